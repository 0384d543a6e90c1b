import type { Catalogue } from '../../catalogue/model'
import { hasEndAt, standing, thingsOf, type Unit, type VisitRecord } from '../../record/record'
import { upstreamOf } from './upstream'

/** Whether a cable leads to a unit from the one it is reached through: said of it, or drawn in the port map. It is recorded once. */
export function isCabled(record: VisitRecord, unit: Unit, catalogue: Catalogue): boolean {
  if (unit.facts.cabled === true) return true
  const through = upstreamOf(record, catalogue).get(unit.id)?.through
  return (
    typeof through === 'string' &&
    standing(thingsOf(record, 'cable')).some((cable) => hasEndAt(cable, unit.id) && hasEndAt(cable, through))
  )
}
