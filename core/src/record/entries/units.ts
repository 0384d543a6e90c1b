import { z } from 'zod'
import { lampLooks, lookWords } from '../../catalogue/look'
import { elsewhere, unitEvents } from '../answers'
import { attributionOf } from '../attribution'
import { id, textLine } from '../fields'
import { equipmentOf } from '../equipment'
import { promptKey } from '../keys'
import { stepKey, type Unit, type VisitRecord } from '../record'
import { changed, entryKind } from './kind'

function withUnit(record: VisitRecord, id: string, change: (unit: Unit) => Partial<Unit>): Partial<VisitRecord> {
  const units = changed(record.units, id, change)
  return units ? { units } : {}
}

/** Of a unit, or of what stays: both have lamps to look at and can be restarted. */
function withEquipment(
  record: VisitRecord,
  id: string,
  change: (seen: Pick<Unit, 'sightings' | 'events'>) => Partial<Pick<Unit, 'sightings' | 'events'>>
): Partial<VisitRecord> {
  if (!equipmentOf(record, id)?.stays) return withUnit(record, id, change)
  const stays = record.stays?.[id]
  return stays ? { stays: { ...record.stays, [id]: { ...stays, ...change(stays) } } } : {}
}

/** What was seen of a unit, and done to it. */
export const unitKinds = {
  'lamp.seen': entryKind({
    body: z.strictObject({ unit: id, lamps: lampLooks.min(1, 'must name at least one lamp') }),
    by: 'anybody',
    refersTo: { unit: 'equipment' },
    apply: (record, line) =>
      withEquipment(record, line.body.unit, ({ sightings }) => ({
        sightings: [...sightings, { ...attributionOf(line), lamps: line.body.lamps }]
      })),
    inverse: null,
    describe: ({ unit, lamps }, names) =>
      `${names.unit(unit)}: seen ${lamps.map((look) => `${look.lamp} ${lookWords(look)}`).join('; ')}`
  }),
  'unit.event': entryKind({
    body: z.strictObject({ unit: id, what: z.enum(unitEvents) }),
    by: 'anybody',
    refersTo: { unit: 'equipment' },
    apply: (record, line) =>
      withEquipment(record, line.body.unit, ({ events }) => ({
        events: [...events, { ...attributionOf(line), what: line.body.what }]
      })),
    inverse: null,
    describe: ({ unit, what }, names) => `${names.unit(unit)}: ${what.replace('-', ' ')}`
  }),
  /** A step of a unit's setup method was done, and what it is to show was seen or not. */
  'method.step': entryKind({
    body: z.strictObject({
      unit: id,
      method: z.string().max(60),
      step: z.int().min(0).max(60),
      seen: z.boolean()
    }),
    by: 'anybody',
    refersTo: { unit: 'unit' },
    apply: (record, line) => {
      const { unit, method, step, seen } = line.body
      return withUnit(record, unit, ({ steps }) => ({
        steps: { ...steps, [stepKey(method, step)]: { ...attributionOf(line), seen } }
      }))
    },
    inverse: null,
    describe: ({ unit, step, seen }, names) =>
      `${names.unit(unit)}: step ${step + 1} done, ${seen ? 'seen as it is to be' : 'not seen as it is to be'}`
  }),
  /** A press of the push-button pairing of a unit: the first opens the window, on another unit; the second is on this one. */
  'pairing.pressed': entryKind({
    body: z.strictObject({ unit: id, which: z.enum(['first', 'second']), on: id }),
    by: 'anybody',
    refersTo: { unit: 'unit', on: 'equipment' },
    apply: (record, line) => {
      const { unit, which, on } = line.body
      return withUnit(record, unit, ({ pairing = [] }) => ({
        pairing: [...pairing, { ...attributionOf(line), which, on }]
      }))
    },
    inverse: null,
    describe: ({ unit, which, on }, names) => `${names.unit(unit)}: ${which} press, on ${names.unit(on)}`
  }),
  /** A button was held so long. */
  'button.pressed': entryKind({
    body: z.strictObject({
      unit: id,
      button: z.string().max(60),
      seconds: z.number().min(0, 'must be 0 or more').max(120, 'must be at most 120 s')
    }),
    by: 'anybody',
    refersTo: { unit: 'unit' },
    apply: (record, line) => {
      const { unit, button, seconds } = line.body
      return withUnit(record, unit, ({ presses = [] }) => ({
        presses: [...presses, { ...attributionOf(line), button, seconds }]
      }))
    },
    inverse: null,
    describe: ({ unit, button, seconds }, names) => `${names.unit(unit)}: ${button} held ${seconds} s`
  }),
  /** What a unit's own page told: dotted names and values, never a secret. */
  'unit.read': entryKind({
    body: z.strictObject({
      unit: id,
      values: z
        .record(z.string().max(80), z.string().max(200))
        .refine((values) => Object.keys(values).length <= 200, 'must hold at most 200 values')
    }),
    by: 'anybody',
    refersTo: { unit: 'unit' },
    apply: (record, line) =>
      withUnit(record, line.body.unit, () => ({ read: { ...attributionOf(line), values: line.body.values } })),
    inverse: null,
    describe: ({ unit, values }, names) =>
      `${names.unit(unit)}: ${Object.keys(values).length} values read from its own page`
  }),
  'prompt.answered': entryKind({
    body: z.strictObject({
      unit: id,
      prompt: z.string().max(60),
      answer: z.enum(['yes', 'no']),
      by: z.enum(['customer', 'default'])
    }),
    by: 'anybody',
    refersTo: { unit: 'unit' },
    tells: ({ unit, prompt, answer }) => [{ key: promptKey(unit, prompt), value: answer }],
    apply: (record, line) => {
      const { unit, prompt, answer, by } = line.body
      return withUnit(record, unit, ({ prompts }) => ({
        prompts: { ...prompts, [prompt]: { ...attributionOf(line), answer, from: by } }
      }))
    },
    inverse: null,
    describe: ({ unit, prompt, answer }, names) => `${names.unit(unit)}: prompt ${prompt} answered ${answer}`
  }),
  /** Somebody joined the air of a unit: how many were on it before and after, the address they got, and who gave it. */
  'path.seen': entryKind({
    body: z.strictObject({
      unit: id,
      before: z.int().min(0).max(500).optional(),
      after: z.int().min(0).max(500).optional(),
      address: z.string().min(1).max(64),
      server: id.optional(),
      /** The network that was joined, where the home has several. */
      network: id.optional()
    }),
    by: 'anybody',
    refersTo: { unit: 'unit', server: 'equipment', network: 'network' },
    apply: (record, line) => {
      const { unit, ...seen } = line.body
      return withUnit(record, unit, () => ({ path: { ...attributionOf(line), ...seen } }))
    },
    inverse: null,
    describe: ({ unit, address }, names) => `${names.unit(unit)}: somebody on its air, with ${address}`
  }),
  /** The same serial or MAC address stands at another home: where, and since when. Empty where it does no longer. */
  'unit.elsewhere': entryKind({
    body: z.strictObject({ unit: id, found: z.array(elsewhere).max(10) }),
    by: 'server',
    refersTo: { unit: 'unit' },
    apply: (record, { body }) => withUnit(record, body.unit, () => ({ elsewhere: body.found })),
    inverse: null,
    describe: ({ unit, found }, names) =>
      found.length
        ? `${names.unit(unit)}: the same serial or MAC address stands at another home`
        : `${names.unit(unit)}: stands at no other home any more`
  }),
  /** A unit that is recorded at another home was really brought here from there. */
  'unit.transferred': entryKind({
    body: z.strictObject({ unit: id, from: id, reason: textLine(600) }),
    by: 'anybody',
    refersTo: { unit: 'unit' },
    problem: ({ from }, { record }) =>
      from === record.visit.home
        ? { field: ['from'], message: 'is this very home; a unit is brought from another' }
        : null,
    apply: (record, line) => {
      const { unit, from, reason } = line.body
      return withUnit(record, unit, () => ({ transfer: { ...attributionOf(line), from, reason } }))
    },
    inverse: null,
    describe: ({ unit, reason }, names) => `${names.unit(unit)}: brought from another home: ${reason}`
  })
}
