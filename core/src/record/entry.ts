import { z } from 'zod'
import { lampLooks } from '../catalogue/look'
import { stages } from './stages'
import {
  choiceAnswers,
  choiceNames,
  custodies,
  elsewhere,
  itemStates,
  photoAbout,
  secretAssessment,
  secretPurposes,
  unitEvents
} from './answers'
import {
  boxFacts,
  briefFacts,
  cableFacts,
  deviceFacts,
  fittingFacts,
  hostFacts,
  id,
  measurementFacts,
  neighbourNetwork,
  networkFacts,
  openingFacts,
  origins,
  outletFacts,
  poolFacts,
  radioFacts,
  readingFacts,
  roomFacts,
  segmentFacts,
  storeyFacts,
  textLine,
  troubleFacts,
  unitFacts,
  wallFacts
} from './facts'

/** All fields may be left out; null clears one. */
function someOf<S extends z.ZodRawShape>(facts: z.ZodObject<S>) {
  const shape = Object.fromEntries(
    Object.entries(facts.shape).map(([key, schema]) => [key, (schema as z.ZodType).nullable().optional()])
  )
  return z.strictObject(shape).refine((set) => Object.keys(set).length > 0, 'must set at least one field')
}

const origin = z.enum(origins).optional()
const rule = z.string().regex(/^[a-z0-9-]{3,60}$/)
const subject = z.string().max(80)
const reason = textLine(600)
const text = z.string().min(1).max(2000)
const removable = z.enum([
  'box',
  'unit',
  'storey',
  'room',
  'wall',
  'opening',
  'outlet',
  'trouble',
  'reading',
  'cable',
  'fitting',
  'segment',
  'pool',
  'host',
  'network',
  'radio',
  'device',
  'measurement'
])

/** Kinds that people write, with the body of each. */
const bodies = {
  'brief.set': z.strictObject({ set: someOf(briefFacts), origin }),
  'box.set': z.strictObject({ id, set: someOf(boxFacts), origin }),
  'unit.set': z.strictObject({ id, set: someOf(unitFacts), origin }),
  'storey.set': z.strictObject({ id, set: someOf(storeyFacts), origin }),
  'room.set': z.strictObject({ id, set: someOf(roomFacts), origin }),
  'wall.set': z.strictObject({ id, set: someOf(wallFacts), origin }),
  'opening.set': z.strictObject({ id, set: someOf(openingFacts), origin }),
  'outlet.set': z.strictObject({ id, set: someOf(outletFacts), origin }),
  'trouble.set': z.strictObject({ id, set: someOf(troubleFacts), origin }),
  'reading.set': z.strictObject({ id, set: someOf(readingFacts), origin }),
  'cable.set': z.strictObject({ id, set: someOf(cableFacts), origin }),
  'fitting.set': z.strictObject({ id, set: someOf(fittingFacts), origin }),
  'segment.set': z.strictObject({ id, set: someOf(segmentFacts), origin }),
  'pool.set': z.strictObject({ id, set: someOf(poolFacts), origin }),
  'host.set': z.strictObject({ id, set: someOf(hostFacts), origin }),
  'network.set': z.strictObject({ id, set: someOf(networkFacts), origin }),
  'radio.set': z.strictObject({ id, set: someOf(radioFacts), origin }),
  'device.set': z.strictObject({ id, set: someOf(deviceFacts), origin }),
  'measurement.set': z.strictObject({ id, set: someOf(measurementFacts), origin }),
  /** Somebody joined the air of a unit: how many were on it before and after, the address they got, and who gave it. */
  'path.seen': z.strictObject({
    unit: id,
    before: z.int().min(0).max(500).optional(),
    after: z.int().min(0).max(500).optional(),
    address: z.string().min(1).max(64),
    server: id.optional(),
    /** The network that was joined, where the home has several. */ network: id.optional()
  }),
  /** A look at the home again when it has settled: from when to when. */
  'check.booked': z
    .strictObject({ id, from: z.iso.datetime({ offset: true }), to: z.iso.datetime({ offset: true }) })
    .refine(({ from, to }) => Date.parse(from) < Date.parse(to), {
      path: ['to'],
      message: 'must be later than its beginning'
    }),
  'check.cancelled': z.strictObject({ id }),
  /** What was seen or tried while looking for a fault; `null` takes it back. */
  'fault.observed': z.strictObject({
    search: id,
    observation: z.string().max(40),
    answer: z.string().max(40).nullable()
  }),
  'fault.search': z.strictObject({ search: id, about: z.strictObject({ unit: id.optional(), room: id.optional() }) }),
  /** How a search ended: the cause, and mended or handed over to whom. */
  'fault.found': z.strictObject({
    search: id,
    cause: z.string().max(40),
    end: z.enum(['mended', 'provider', 'maker', 'left']),
    probability: z.number().min(0).max(1)
  }),
  /** The networks of others that are heard here: the strongest, all anew each time. */
  'neighbours.noted': z.strictObject({
    networks: z.array(neighbourNetwork).max(300, 'at most 300: those that are heard strongest')
  }),
  /** Items of a box, looked at: there, missing, damaged, or in it without being on its list; `open` takes that back. */
  'items.checked': z
    .strictObject({
      box: id,
      items: z
        .array(
          textLine(300).refine((name) => name !== '__proto__', 'is not a name that can be kept; call it otherwise')
        )
        .min(1, 'must name at least one item')
        .max(60),
      state: z.enum(itemStates),
      done: textLine(300).optional()
    })
    .refine(({ state, done }) => state === 'present' || state === 'open' || done !== undefined, {
      path: ['done'],
      message: 'is missing: say what was done about it'
    }),
  /** A unit that is recorded at another home was really brought here from there. */
  'unit.transferred': z.strictObject({ unit: id, from: id, reason }),
  'photo.captioned': z.strictObject({ ref: id, caption: textLine(200).nullable() }),
  'photo.removed': z.strictObject({ ref: id }),
  'photo.restored': z.strictObject({ ref: id }),
  'thing.removed': z.strictObject({ thing: removable, id }),
  'thing.restored': z.strictObject({ thing: removable, id }),
  'lamp.seen': z.strictObject({ unit: id, lamps: lampLooks.min(1, 'must name at least one lamp') }),
  'unit.event': z.strictObject({ unit: id, what: z.enum(unitEvents) }),
  /** A step of a unit's setup method was done, and what it is to show was seen or not. */
  'method.step': z.strictObject({
    unit: id,
    method: z.string().max(60),
    step: z.int().min(0).max(60),
    seen: z.boolean()
  }),
  /** A press of the push-button pairing of a unit: the first opens the window, on another unit; the second is on this one. */
  'pairing.pressed': z.strictObject({ unit: id, which: z.enum(['first', 'second']), on: id }),
  /** A button was held so long. */
  'button.pressed': z.strictObject({
    unit: id,
    button: z.string().max(60),
    seconds: z.number().min(0, 'must be 0 or more').max(120, 'must be at most 120 s')
  }),
  /** What a unit's own page told: dotted names and values, never a secret. */
  'unit.read': z.strictObject({
    unit: id,
    values: z
      .record(z.string().max(80), z.string().max(200))
      .refine((values) => Object.keys(values).length <= 200, 'must hold at most 200 values')
  }),
  /** This visit is practised on a simulated house. */
  'house.bound': z.strictObject({ house: id.nullable() }),
  'prompt.answered': z.strictObject({
    unit: id,
    prompt: z.string().max(60),
    answer: z.enum(['yes', 'no']),
    by: z.enum(['customer', 'default'])
  }),
  'choice.answered': z
    .strictObject({ choice: z.enum(choiceNames), answer: z.string().max(40) })
    .refine((body) => choiceAnswers[body.choice].includes(body.answer), {
      path: ['answer'],
      message: 'is not an answer to this choice'
    }),
  /** Who keeps the secrets; where the company keeps some, which and until when. */
  'custody.answered': z.strictObject({
    custody: z.enum(custodies),
    keeps: z.array(z.enum(secretPurposes)).min(1, 'must name at least one kind of secret').max(10).optional(),
    until: z.iso.date().optional()
  }),
  'rule.answered': z.strictObject({
    rule,
    subject: subject.optional(),
    answer: z.enum(['yes', 'no']),
    note: textLine(300).optional()
  }),
  'rule.acknowledged': z.strictObject({ rule, subject: subject.optional(), reason }),
  'waiver.granted': z.strictObject({
    rule,
    subject: subject.optional(),
    reason,
    /** Until when it is to be put right; null or left out: for good. */ until: z.iso.date().optional()
  }),
  'waiver.withdrawn': z.strictObject({ rule, subject: subject.optional() }),
  'conflict.settled': z.strictObject({
    thing: z.string().max(20),
    id: z.string().max(40),
    field: z.string().max(40),
    keep: z.enum(['earlier', 'later'])
  }),
  /** `task`: what of the run plan it is the wait of. */
  'wait.started': z.strictObject({
    id,
    what: textLine(80),
    unit: id.optional(),
    task: z.string().max(160).optional(),
    usualMin: z.number().min(0).max(1440),
    mostMin: z.number().min(0).max(1440)
  }),
  'wait.ended': z.strictObject({ id }),
  'note.written': z.strictObject({ text, stage: z.string().max(20).optional() }),
  'review.asked': z.strictObject({ remark: z.string().max(600) }),
  'review.returned': z.strictObject({ remark: reason }),
  /** A lead looked at this very record and found it in order. */
  'review.approved': z.strictObject({ remark: z.string().max(600), digest: z.string().regex(/^[0-9a-f]{64}$/) }),
  'pack.given': z.strictObject({ how: z.enum(['printed', 'by mail', 'on their device']) }),
  'signature.given': z.strictObject({
    who: z.enum(['customer', 'technician']),
    name: textLine(120),
    /** The strokes drawn, as an SVG path of moves and lines on a 600 × 200 sheet. */
    strokes: z
      .string()
      .max(60_000)
      .regex(
        /^M-?\d+(?:\.\d)? -?\d+(?:\.\d)?(?: [ML]-?\d+(?:\.\d)? -?\d+(?:\.\d)?)+$/,
        'must hold at least one stroke: sign in the box'
      ),
    /** The digest of the record that was on the screen when it was signed. */
    digest: z.string().regex(/^[0-9a-f]{64}$/)
  })
} as const

/** Kinds that only the server writes. */
const serverBodies = {
  /** The same serial or MAC address stands at another home: where, and since when. Empty where it does no longer. */
  'unit.elsewhere': z.strictObject({ unit: id, found: z.array(elsewhere).max(10) }),
  'photo.added': z.strictObject({
    ref: id,
    about: photoAbout,
    caption: textLine(200).nullable(),
    /** True for a picture of a label: a secret, kept under the visit's key. */
    label: z.boolean(),
    width: z.int().min(1),
    height: z.int().min(1),
    octets: z.int().min(1),
    sha256: z.string().regex(/^[0-9a-f]{64}$/)
  }),
  'visit.opened': z.strictObject({
    home: id,
    customer: id,
    technician: z.strictObject({ id, name: textLine(120) }),
    standard: z.strictObject({ id: z.string().max(60), version: z.int().min(1) }),
    startedFrom: id.nullable(),
    brief: someOf(briefFacts)
  }),
  /** Somebody else goes on with the visit, and why. */
  'visit.handed': z.strictObject({ technician: z.strictObject({ id, name: textLine(120) }), reason: textLine(300) }),
  /** The visit is checked by another version of the standard from here on; by an older one only with why. */
  'standard.moved': z.strictObject({
    standard: z.strictObject({ id: z.string().max(60), version: z.int().min(1) }),
    reason: textLine(300).optional()
  }),
  'secret.kept': z.strictObject({
    ref: id,
    purpose: z.enum(secretPurposes),
    thing: z.enum(['brief', 'unit', 'network']),
    id: z.string().max(40),
    origin: z.enum(['typed', 'label', 'made']),
    assessed: secretAssessment
  }),
  'secret.assessed': z.strictObject({ ref: id, assessed: secretAssessment }),
  'secret.shown': z.strictObject({ ref: id, why: textLine(120) }),
  /** Secrets are gone for good: their key was destroyed, its SHA-256 beside, and those kept went under another. `by custody` where nobody asked for it. */
  'secrets.erased': z.strictObject({
    refs: z.array(id),
    kept: z.array(id).optional(),
    key: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .optional(),
    because: z.enum(['asked', 'custody']).optional(),
    /** Why somebody asked for it before its day. */ why: textLine(300).optional()
  }),
  /** What was copied from a visit whose secrets were erased is gone with them: its key was destroyed, what else is kept here went under another. */
  'copies.erased': z.strictObject({
    refs: z.array(id).min(1),
    from: id,
    key: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .optional()
  }),
  'pack.made': z.strictObject({ digest: z.string().regex(/^[0-9a-f]{64}$/) }),
  sealed: z.strictObject({
    chain: z.string().regex(/^[0-9a-f]{64}$/),
    record: z.string().regex(/^[0-9a-f]{64}$/),
    standard: z.string().regex(/^[0-9a-f]{64}$/),
    catalogue: z.string().regex(/^[0-9a-f]{64}$/),
    /** What the rules said at that moment; left out by seals from before it was signed. */
    verdicts: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .optional(),
    key: z.string().max(80),
    signature: z.string().max(200)
  })
} as const

/** Somebody of the company, as an entry names them. */
export const author = z.strictObject({
  id: z.string().max(40),
  name: textLine(120),
  role: z.enum(['technician', 'lead', 'office', 'server'])
})
export type Author = z.infer<typeof author>

type Bodies = typeof bodies & typeof serverBodies
export type EntryKind = keyof Bodies
export type Body<K extends EntryKind> = z.infer<Bodies[K]>

const envelope = {
  id: z.uuidv7('must be a UUID of version 7'),
  visit: id,
  /** The author's clock, with its offset. */
  at: z.iso.datetime({ offset: true }),
  /** The outbox it was sent from, one person on one device: what comes from one outbox never conflicts with itself. */
  from: id,
  /** The last seq the author had seen when the look was taken. */
  base: z.int().min(0),
  /** How many lines of this outbox the visit had at that moment, sent or not; left out, as by entries from before: all before it. */
  own: z.int().min(0).optional()
}

function kindOf<K extends string, B extends z.ZodType, X extends z.ZodRawShape>(kind: K, body: B, extra: X) {
  return z.strictObject({ ...envelope, ...extra, kind: z.literal(kind), body })
}

function unionOf<T extends Record<string, z.ZodType>, X extends z.ZodRawShape>(table: T, extra: X) {
  const options = Object.entries(table).map(([kind, body]) => kindOf(kind, body, extra))
  return z.discriminatedUnion('kind', options as never)
}

const stamped = {
  by: author,
  seq: z.int().min(1),
  /** The server's clock when it took the entry. */
  received: z.iso.datetime(),
  hash: z.string().regex(/^[0-9a-f]{64}$/)
}

/** What a browser sends: one entry, not yet stamped by the server. A note names one of the stages; notes from before may name anything. */
export const draftEntry = unionOf(
  { ...bodies, 'note.written': z.strictObject({ text, stage: z.enum(stages).optional() }) },
  {}
) as unknown as z.ZodType<Draft>
/** An entry as the logbook holds it. */
export const entry = unionOf({ ...bodies, ...serverBodies }, stamped) as unknown as z.ZodType<Entry>

interface Envelope<K extends EntryKind> {
  id: string
  visit: string
  at: string
  from: string
  base: number
  own?: number
  kind: K
  body: Body<K>
}

/** An entry before the server has stamped it. */
export type Draft<K extends EntryKind = EntryKind> = K extends EntryKind ? Envelope<K> : never
/** An entry of the logbook: a draft with its author, its place, the server's clock and its link in the chain. */
export type Entry<K extends EntryKind = EntryKind> = Draft<K> & {
  by: Author
  seq: number
  received: string
  hash: string
}
/** What the reducer needs: everything but the hash. */
export type Placed<K extends EntryKind = EntryKind> = Draft<K> & { by: Author; seq: number; received: string }
