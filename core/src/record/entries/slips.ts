import { z } from 'zod'
import { unitEvents } from '../answers'
import { attributionOf } from '../attribution'
import { equipmentOf } from '../equipment'
import { id } from '../fields'
import type { Slip, VisitRecord } from '../record'
import { entryKind, type Line } from './kind'

/** Presses that can be taken back as never so, each with where the record holds it. */
const pressTables = {
  'unit.event': 'events',
  'lamp.seen': 'sightings',
  'button.pressed': 'presses',
  'pairing.pressed': 'pairing'
} as const
export type PressKind = keyof typeof pressTables
export const isPress = (kind: string): kind is PressKind => Object.hasOwn(pressTables, kind)

interface Row {
  at: string
  by: { id: string }
  what?: string
}

/** Slips: what was written and never so. */
export const slipKinds = {
  /**
   * An entry of one's own was never so: it is taken back. Where it set values, what stood before was written again just before this
   * line; a press goes from the record.
   */
  'slip.undone': entryKind({
    body: z.strictObject({
      /** The entry that was never so. */
      undoes: id,
      kind: z.string().max(40),
      /** When it was written, by its author's clock. */
      at: z.iso.datetime({ offset: true }),
      /** Of a press: of which unit, and what happened to it. */
      unit: id.optional(),
      what: z.enum(unitEvents).optional()
    }),
    by: 'anybody',
    refersTo: { unit: 'equipment' },
    apply: (record, line) => ({
      ...withoutPress(record, line),
      slips: [...(record.slips ?? []), slipOf(line)]
    }),
    inverse: null,
    describe: ({ unit, kind, what }, names) =>
      `${unit ? `${names.unit(unit)}: ` : ''}${what?.replace('-', ' ') ?? slipWords(kind)}, taken back: it was never so`
  })
}

/** What a kind of entry is called where it is taken back. */
export function slipWords(kind: string): string {
  switch (kind) {
    case 'lamp.seen':
      return 'a look at its lamps'
    case 'button.pressed':
      return 'a press of a button'
    case 'pairing.pressed':
      return 'a press of the pairing'
    default:
      return 'a value'
  }
}

function slipOf(line: Line<{ undoes: string; kind: string; at: string; unit?: string; what?: Slip['what'] }>): Slip {
  const { at: written, ...body } = line.body
  return { ...attributionOf(line), ...body, written }
}

function withoutPress(
  record: VisitRecord,
  { body: { unit, kind, at, what }, by }: Line<{ unit?: string; kind: string; at: string; what?: string }>
): Partial<VisitRecord> {
  if (unit === undefined || !isPress(kind)) return {}
  const table = equipmentOf(record, unit)?.stays ? 'stays' : 'units'
  const holder = record[table]?.[unit] as Partial<Record<string, Row[]>> | undefined
  const rows = holder?.[pressTables[kind]]
  const gone = rows?.findLast(
    (row) => row.at === at && row.by.id === by.id && (kind !== 'unit.event' || row.what === what)
  )
  if (!rows || !gone) return {}
  const others = rows.filter((row) => row !== gone)
  return {
    [table]: { ...record[table], [unit]: { ...holder, [pressTables[kind]]: others } }
  }
}
