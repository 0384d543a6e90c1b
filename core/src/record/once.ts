import type { Catalogue } from '../catalogue/model'
import { Kept } from './kept'
import type { VisitRecord } from './record'

/** Makes a reckoning of a record and a catalogue that is done once for both. */
export function onceOf<T>(
  reckon: (record: VisitRecord, catalogue: Catalogue) => T
): (record: VisitRecord, catalogue: Catalogue) => T {
  const kept = new Kept<VisitRecord, T>()
  return (record, catalogue) => kept.get(record, [catalogue], () => reckon(record, catalogue))
}
