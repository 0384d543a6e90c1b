import { z } from 'zod'
import { attributionOf } from '../attribution'
import { briefFacts } from '../brief'
import type { ThingKind } from '../facts'
import { digest, id, textLine } from '../fields'
import { provenBefore } from '../proven-before'
import { holderOf, isStored, tableOf, type VisitRecord } from '../record'
import { setFields } from '../set-fields'
import { stages } from '../stages'
import type { StoredKind } from '../things/all'
import { changed, entryKind, type Line } from './kind'
import { someOf } from './things'

const person = z.strictObject({ id, name: textLine(120) })
const standardVersion = z.strictObject({ id: z.string().max(60), version: z.int().min(1) })
const noteText = z.string().min(1).max(2000)

/** The record with a field set as somebody settled it: what it was changed to unseen meanwhile is a conflict of its own. */
function withField(
  record: VisitRecord,
  line: Line<{ thing: string; id: string; field: string }>,
  value: unknown,
  conflicts: VisitRecord['conflicts']
): Partial<VisitRecord> {
  const { thing, id, field } = line.body
  const holder = holderOf(record, thing, id)
  if (!holder) return { conflicts }
  const origin = holder.meta[field]?.origin
  const set = setFields(thing as ThingKind, holder, { [field]: value }, origin, line, conflicts)
  if (thing === 'brief') return { brief: set.thing, conflicts: set.conflicts }
  const table = tableOf[thing as StoredKind]
  return { [table]: { ...record[table], [id]: set.thing }, conflicts: set.conflicts }
}

/** The visit itself: opened, handed on, waited in, talked about and looked at. */
export const visitKinds = {
  'visit.opened': entryKind({
    body: z.strictObject({
      home: id,
      customer: id,
      technician: person,
      standard: standardVersion,
      startedFrom: id.nullable(),
      brief: someOf(briefFacts)
    }),
    by: 'server',
    refersTo: {},
    apply: (record, line) => {
      const { home, customer, technician, standard, startedFrom, brief } = line.body
      const set = setFields('brief', record.brief, brief, 'typed', line, [])
      return {
        visit: { id: line.visit, home, customer, technician, standard, startedFrom, openedAt: line.at },
        brief: set.thing
      }
    },
    inverse: null,
    describe: () => 'Visit opened'
  }),
  /** Somebody else goes on with the visit, and why. */
  'visit.handed': entryKind({
    body: z.strictObject({ technician: person, reason: textLine(300) }),
    by: 'server',
    refersTo: {},
    apply: ({ visit }, { body: { technician } }) => {
      const before = [...(visit.before ?? []), visit.technician].filter(({ id }) => id !== technician.id)
      return { visit: { ...visit, technician, before } }
    },
    inverse: null,
    describe: ({ technician, reason }) => `Goes on with ${technician.name}: ${reason}`
  }),
  /** The visit takes place no more, and why. */
  'visit.cancelled': entryKind({
    body: z.strictObject({ reason: textLine(300) }),
    by: 'server',
    refersTo: {},
    apply: ({ visit }, line) => ({
      visit: { ...visit, cancelled: { ...attributionOf(line), reason: line.body.reason } }
    }),
    inverse: null,
    describe: ({ reason }) => `Cancelled: ${reason}`
  }),
  /** It takes place after all, and why. */
  'visit.reopened': entryKind({
    body: z.strictObject({ reason: textLine(300) }),
    by: 'server',
    refersTo: {},
    apply: ({ visit: { cancelled: _, ...visit } }) => ({ visit }),
    inverse: null,
    describe: ({ reason }) => `Reopened: ${reason}`
  }),
  /** Somebody works on the visit beside whoever has it, and why. */
  'visit.joined': entryKind({
    body: z.strictObject({ reason: textLine(300) }),
    by: 'anybody',
    refersTo: {},
    apply: ({ visit }, { by: { id, name } }) => {
      const others = (visit.joined ?? []).filter((person) => person.id !== id)
      return { visit: { ...visit, joined: [...others, { id, name }] } }
    },
    inverse: null,
    describe: ({ reason }) => `Joined the visit: ${reason}`
  }),
  /** The visit is checked by another version of the standard from here on; by an older one only with why. */
  'standard.moved': entryKind({
    body: z.strictObject({ standard: standardVersion, reason: textLine(300).optional() }),
    by: 'server',
    refersTo: {},
    apply: ({ visit }, { body }) => ({ visit: { ...visit, standard: body.standard } }),
    inverse: null,
    describe: ({ standard, reason }) =>
      `Checked by version ${standard.version} of the standard from here on${reason ? `: ${reason}` : ''}`
  }),
  /** This visit is practised on a simulated house. */
  'house.bound': entryKind({
    body: z.strictObject({ house: id.nullable() }),
    by: 'anybody',
    refersTo: {},
    apply: (_, { body }) => ({ house: body.house }),
    inverse: null,
    describe: ({ house }) => (house ? 'Practised on a simulated house from here' : 'No longer on a simulated house')
  }),
  'conflict.settled': entryKind({
    body: z.strictObject({
      thing: z.string().max(20),
      id: z.string().max(40),
      field: z.string().max(40),
      keep: z.enum(['earlier', 'later']),
      /** The two values as they were on the screen of whoever settled it; left out by entries from before. */
      values: z.strictObject({ earlier: z.json(), later: z.json() }).optional()
    }),
    by: 'anybody',
    refersTo: { id: ({ thing }: { thing: string }) => (isStored(thing) ? thing : null) },
    problem: ({ thing }) =>
      thing === 'brief' || isStored(thing) ? null : { field: ['thing'], message: `there is no kind of thing ${thing}` },
    apply: (record, line) => {
      const { thing, id, field, keep, values } = line.body
      if (values) return withField(record, line, values[keep], record.conflicts)
      const settled = record.conflicts.find(
        (conflict) => conflict.thing === thing && conflict.id === id && conflict.field === field
      )
      if (!settled) return {}
      const conflicts = record.conflicts.filter((conflict) => conflict !== settled)
      return keep === 'later'
        ? { conflicts }
        : withField(record, { ...line, base: line.seq }, settled.earlier.value, conflicts)
    },
    inverse: null,
    describe: ({ field, keep }) => `Conflict over ${field} settled: the ${keep} kept`
  }),
  'wait.started': entryKind({
    body: z.strictObject({
      id,
      what: textLine(80),
      unit: id.optional(),
      /** What of the run plan it is the wait of. */
      task: z.string().max(160).optional(),
      usualMin: z.number().min(0).max(1440),
      mostMin: z.number().min(0).max(1440)
    }),
    by: 'anybody',
    refersTo: { unit: 'equipment' },
    apply: (record, line) => {
      const { id, what, unit, task, usualMin, mostMin } = line.body
      const times = { usualMin, mostMin, endedAt: null }
      const wait = {
        ...attributionOf(line),
        id,
        what,
        unit: unit ?? null,
        ...(task === undefined ? {} : { task }),
        ...times
      }
      return { waits: { ...record.waits, [id]: wait } }
    },
    inverse: null,
    describe: ({ what }) => `Wait started: ${what}`
  }),
  'wait.ended': entryKind({
    body: z.strictObject({ id }),
    by: 'anybody',
    refersTo: { id: 'wait' },
    apply: (record, { body, at }) => {
      const waits = changed(record.waits, body.id, () => ({ endedAt: at }))
      return waits ? { waits } : {}
    },
    inverse: null,
    describe: () => 'Wait ended'
  }),
  /** What held when the home was last left: it is proven anew only where the visit changes something that it rests on. */
  'proven.before': entryKind({
    body: z.strictObject({ visit: id, proven: z.array(provenBefore).min(1).max(2000) }),
    by: 'server',
    refersTo: {},
    apply: (_, line) => ({ provenBefore: { ...attributionOf(line), ...line.body } }),
    inverse: null,
    describe: ({ proven }) =>
      `Taken over as proven when the home was last left: ${proven.length} ${proven.length === 1 ? 'finding' : 'findings'}`
  }),
  'note.written': entryKind({
    body: z.strictObject({ text: noteText, stage: z.string().max(20).optional() }),
    // A note names one of the stages; notes from before may name anything.
    asked: z.strictObject({ text: noteText, stage: z.enum(stages).optional() }),
    by: 'anybody',
    refersTo: {},
    apply: (record, line) => ({
      notes: [...record.notes, { ...attributionOf(line), text: line.body.text, stage: line.body.stage ?? null }]
    }),
    inverse: null,
    describe: ({ text }) => `Note: ${text}`
  }),
  'review.asked': entryKind({
    body: z.strictObject({ remark: z.string().max(600) }),
    by: 'anybody',
    refersTo: {},
    apply: (_, line) => ({ review: { ...attributionOf(line), state: 'asked', remark: line.body.remark } }),
    inverse: null,
    describe: ({ remark }) => `Sent to review: ${remark}`
  }),
  'review.returned': entryKind({
    body: z.strictObject({ remark: textLine(600) }),
    by: 'lead',
    refersTo: {},
    apply: (_, line) => ({ review: { ...attributionOf(line), state: 'returned', remark: line.body.remark } }),
    inverse: null,
    describe: ({ remark }) => `Back from review: ${remark}`
  }),
  /** A lead looked at this very record and found it in order. */
  'review.approved': entryKind({
    body: z.strictObject({ remark: z.string().max(600), digest }),
    by: 'lead',
    refersTo: {},
    apply: (_, line) => ({ review: { ...attributionOf(line), state: 'approved', ...line.body } }),
    inverse: null,
    describe: ({ remark }) => `Approved${remark ? `: ${remark}` : ''}`
  })
}
