import type { Catalogue } from '../catalogue/model'
import type { VisitRecord } from './record'

/**
 * Makes a reckoning of a record and a catalogue that is done once for both: neither is ever changed in place, and many rules ask the same
 * of one. Nobody changes what it gives.
 */
export function onceOf<T>(
  reckon: (record: VisitRecord, catalogue: Catalogue) => T
): (record: VisitRecord, catalogue: Catalogue) => T {
  const known = new WeakMap<VisitRecord, { catalogue: Catalogue; found: T }>()
  return (record, catalogue) => {
    const before = known.get(record)
    if (before?.catalogue === catalogue) return before.found
    const found = reckon(record, catalogue)
    known.set(record, { catalogue, found })
    return found
  }
}
