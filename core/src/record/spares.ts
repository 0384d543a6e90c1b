import { unitName, type Unit, type VisitRecord } from './record'

/** Where a unit that was not needed went. */
export const spareWords = { 'with-customer': 'left with the customer', 'taken-back': 'taken back' } as const

/** Units of a visit's boxes that were not needed: taken out of the visit, with where they went; their labels stay known. */
export const sparesOf = ({ units }: VisitRecord): Unit[] =>
  Object.values(units).filter(({ removedSeq, facts }) => removedSeq !== null && facts.spare !== undefined)

/** A spare unit in a line: what it is, its serial, where it went. */
export function spareTold(unit: Unit): string {
  const { serial, spare } = unit.facts
  return `${unitName(unit)}${serial === undefined ? '' : ` (${serial})`}: ${spareWords[spare!]}`
}
