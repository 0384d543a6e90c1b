import { slipWords } from '../record/entries/slips'
import { equipmentOf } from '../record/equipment'
import type { VisitRecord } from '../record/record'

/**
 * What was taken back as never so, a line each, for whoever approves.
 * @param moment how a moment is told, from its ISO text
 */
export const slipsTold = (record: VisitRecord, moment: (iso: string) => string): string[] =>
  (record.slips ?? []).map(({ unit, kind, what, written, by, at }) => {
    const name = unit === undefined ? '' : `${equipmentOf(record, unit)?.name ?? 'a unit'}: `
    const press = what?.replace('-', ' ') ?? slipWords(kind)
    return `${name}${press}, written ${moment(written)}; taken back by ${by.name}, ${moment(at)}.`
  })
