import { type FieldMeta, attributed } from './attribution'
import { provenBefore } from './proven-before'
import { digest } from './fields'
import { type StoredKind, type Things, storedKinds, things } from './things/all'
import { recordedThing } from './things/thing'
import { z } from 'zod'
import { choiceNames, custodies, photoAbout, secretAssessment, secretPurposes, unitEvents } from './answers'
import { briefFacts } from './brief'
import { neighbourNetwork } from './neighbour-network'

const answered = z.strictObject({ ...attributed, answer: z.string(), note: z.string().optional() })
const granted = z.strictObject({
  ...attributed,
  rule: z.string(),
  subject: z.string().nullable(),
  reason: z.string(),
  until: z.string().optional()
})

const photo = z.strictObject({
  ...attributed,
  ref: z.string(),
  about: photoAbout,
  caption: z.string().nullable(),
  label: z.boolean(),
  width: z.int(),
  height: z.int(),
  octets: z.int(),
  sha256: digest,
  removedSeq: z.int().nullable()
})

const conflict = z.strictObject({
  thing: z.string(),
  id: z.string(),
  field: z.string(),
  earlier: z.strictObject({ ...attributed, value: z.unknown() }),
  later: z.strictObject({ ...attributed, value: z.unknown() })
})
export type Conflict = z.infer<typeof conflict>

/** A search for a fault: what was observed, in the order it was, and how it ended. */
const faultSearch = z.strictObject({
  ...attributed,
  id: z.string(),
  about: z.strictObject({ unit: z.string().optional(), room: z.string().optional() }),
  observed: z.record(z.string(), z.strictObject({ ...attributed, answer: z.string() })),
  found: z
    .strictObject({
      ...attributed,
      cause: z.string(),
      end: z.enum(['mended', 'provider', 'maker', 'left']),
      probability: z.number()
    })
    .nullable()
})

const signature = z.strictObject({ ...attributed, name: z.string(), strokes: z.string(), digest: digest })

/** A thing of a kind as the record holds it. */
export type Recorded<K extends StoredKind> = z.infer<ReturnType<typeof recordedThing<FactsShape<K>, BesidesShape<K>>>>
type FactsShape<K extends StoredKind> = Things[K]['facts'] extends z.ZodObject<infer S> ? S : never
type BesidesShape<K extends StoredKind> = NonNullable<Things[K]['besides']>

type Table<K extends StoredKind> = z.ZodRecord<
  z.ZodString,
  ReturnType<typeof recordedThing<FactsShape<K>, BesidesShape<K>>>
>
type Tables = {
  [K in StoredKind as Things[K]['table']]: Things[K]['later'] extends true ? z.ZodOptional<Table<K>> : Table<K>
}
/** The tables of things, each by id. */
const tables = Object.fromEntries(
  Object.values(things).map(({ table, facts, besides, later }) => {
    const held = z.record(z.string(), recordedThing(facts as z.ZodObject, besides as z.ZodRawShape | undefined))
    return [table, later ? held.optional() : held]
  })
) as unknown as Tables

/** An entry that its author took back: it was never so. */
const slip = z.strictObject({
  ...attributed,
  undoes: z.string(),
  kind: z.string(),
  /** When what was never so was written. */
  written: z.string(),
  unit: z.string().optional(),
  what: z.enum(unitEvents).optional()
})

/** What the entries of a visit amount to. */
export const visitRecord = z.strictObject({
  format: z.literal('pasado.state/1'),
  visit: z.strictObject({
    id: z.string(),
    home: z.string(),
    customer: z.string(),
    technician: z.strictObject({ id: z.string(), name: z.string() }),
    /** Who had the visit before; left out until it was handed on. */
    before: z.array(z.strictObject({ id: z.string(), name: z.string() })).optional(),
    /** Who works on it beside whoever has it; left out until somebody joined. */
    joined: z.array(z.strictObject({ id: z.string(), name: z.string() })).optional(),
    /** That it takes place no more; left out while it does. */
    cancelled: z.strictObject({ ...attributed, reason: z.string() }).optional(),
    standard: z.strictObject({ id: z.string(), version: z.int() }),
    startedFrom: z.string().nullable(),
    openedAt: z.string()
  }),
  brief: recordedThing(briefFacts),
  ...tables,
  /** What came later is left out until there is one, so that the digests of records sealed without it stay as they were. */
  photos: z.record(z.string(), photo).optional(),
  /** The simulated house that this visit is practised on. */
  house: z.string().nullable().optional(),
  checks: z
    .record(
      z.string(),
      z.strictObject({ ...attributed, id: z.string(), from: z.string(), to: z.string(), cancelled: z.boolean() })
    )
    .optional(),
  searches: z.record(z.string(), faultSearch).optional(),
  /** What was taken back as never so. */
  slips: z.array(slip).optional(),
  /** What stood there before it was recorded, by the word of who was there. */
  stood: z.array(z.strictObject({ ...attributed, thing: z.enum(['unit', 'stays']), id: z.string() })).optional(),
  /** What those who were there say came first. */
  words: z
    .array(
      z.strictObject({
        ...attributed,
        change: z.string(),
        proof: z.string(),
        came: z.enum(['before', 'after'])
      })
    )
    .optional(),
  neighbours: z.strictObject({ ...attributed, networks: z.array(neighbourNetwork) }).optional(),
  secrets: z.record(
    z.string(),
    z.strictObject({
      ...attributed,
      ref: z.string(),
      purpose: z.enum(secretPurposes),
      thing: z.enum(['brief', 'unit', 'network']),
      id: z.string(),
      origin: z.enum(['typed', 'label', 'made']),
      /** That it is to be typed in later; left out where it is in use. */
      prepared: z.literal(true).optional(),
      /** That it was prepared, and typed in since. */
      typedIn: z.literal(true).optional(),
      assessed: secretAssessment,
      /** When it was erased, where others of the visit were kept. */
      erasedAt: z.string().optional()
    })
  ),
  secretsErased: z.boolean(),
  choices: z.partialRecord(z.enum(choiceNames), answered),
  custody: z
    .strictObject({
      ...attributed,
      custody: z.enum(custodies),
      keeps: z.array(z.enum(secretPurposes)).optional(),
      until: z.string().optional()
    })
    .nullable(),
  answers: z.record(z.string(), answered),
  acknowledged: z.record(z.string(), granted),
  waivers: z.record(z.string(), granted),
  waits: z.record(
    z.string(),
    z.strictObject({
      ...attributed,
      id: z.string(),
      what: z.string(),
      unit: z.string().nullable(),
      task: z.string().optional(),
      usualMin: z.number(),
      mostMin: z.number(),
      endedAt: z.string().nullable()
    })
  ),
  notes: z.array(z.strictObject({ ...attributed, text: z.string(), stage: z.string().nullable() })),
  conflicts: z.array(conflict),
  review: z
    .strictObject({
      ...attributed,
      state: z.enum(['asked', 'returned', 'approved']),
      remark: z.string(),
      digest: digest.optional()
    })
    .nullable(),
  pack: z.strictObject({
    madeDigest: digest.nullable(),
    madeAt: z.string().nullable(),
    givenDigest: digest.nullable(),
    givenAt: z.string().nullable(),
    how: z.string().nullable()
  }),
  signatures: z.strictObject({ customer: signature.nullable(), technician: signature.nullable() }),
  seal: z
    .strictObject({
      ...attributed,
      chain: digest,
      record: digest,
      standard: digest,
      catalogue: digest,
      verdicts: digest.optional(),
      key: z.string(),
      signature: z.string()
    })
    .nullable(),
  /** What held when the home was last left, of what is not there to be recorded once more; left out where nothing did. */
  provenBefore: z.strictObject({ ...attributed, visit: z.string(), proven: z.array(provenBefore) }).optional(),
  /** That it was sealed without what devices that were not heard from may hold; left out until it is. */
  unheard: z
    .strictObject({
      ...attributed,
      outboxes: z.array(z.strictObject({ person: z.string(), since: z.string() })),
      reason: z.string()
    })
    .optional(),
  lastSeq: z.int()
})

export type VisitRecord = z.infer<typeof visitRecord>
export type KitInVisit = Recorded<'box'>
export type Slip = z.infer<typeof slip>
export type Photo = NonNullable<VisitRecord['photos']>[string]
export type Storey = Recorded<'storey'>
export type Room = Recorded<'room'>
export type Outlet = Recorded<'outlet'>
export type Reading = Recorded<'reading'>
export type Cable = Recorded<'cable'>
export type Fitting = Recorded<'fitting'>
export type Trouble = Recorded<'trouble'>
export type Unit = Recorded<'unit'>
export type Wait = VisitRecord['waits'][string]
export type Network = Recorded<'network'>
export type Radio = Recorded<'radio'>
export type Device = Recorded<'device'>
export type Measurement = Recorded<'measurement'>
export type FaultSearch = z.infer<typeof faultSearch>
export type Segment = Recorded<'segment'>
export type Stays = Recorded<'stays'>
export type Pool = Recorded<'pool'>
export type Host = Recorded<'host'>
export type Secret = VisitRecord['secrets'][string]

/** The table that things of a kind stand in. */
export const tableOf = Object.fromEntries(storedKinds.map((kind) => [kind, things[kind].table])) as {
  readonly [K in StoredKind]: Things[K]['table']
}

/** Every thing of a kind, those taken out as well, by id. */
export function thingsOf<K extends StoredKind>(
  record: Pick<VisitRecord, (typeof tableOf)[K]>,
  kind: K
): NonNullable<VisitRecord[(typeof tableOf)[K]]> {
  return record[tableOf[kind]] ?? {}
}

/** A thing of the record, whatever its kind. */
export interface AnyThing {
  id: string
  facts: Record<string, unknown>
  meta: Record<string, FieldMeta>
  addedSeq: number
  removedSeq: number | null
}

/** Every thing of a kind by id, as what all kinds have in common. */
export const anyThingsOf = (record: VisitRecord, kind: StoredKind): Readonly<Record<string, AnyThing>> =>
  thingsOf(record, kind)

/** Whether one end of a cable is in a unit, or in what stays. */
export const hasEndAt = ({ facts: { a, b } }: Pick<Cable, 'facts'>, equipment: string): boolean =>
  [a, b].some((end) => (end?.thing === 'unit' || end?.thing === 'stays') && end.id === equipment)

/** Whether a word names a kind of thing. */
export const isStored = (kind: string): kind is StoredKind => Object.hasOwn(things, kind)

/** What holds the facts of a kind and id: the brief, or a thing; none where there is no such. */
export function holderOf(record: VisitRecord, kind: string, id: string): AnyThing | undefined {
  if (kind === 'brief') return record.brief
  return isStored(kind) ? anyThingsOf(record, kind)[id] : undefined
}

/** Where a step of a method is kept in its unit. */
export const stepKey = (method: string, step: number): string => `${method} ${step}`

/** Photos that stand, oldest first. */
export function photosOf({ photos = {} }: { photos?: VisitRecord['photos'] | undefined }): Photo[] {
  return Object.values(photos)
    .filter(({ removedSeq }) => removedSeq === null)
    .sort((a, b) => a.seq - b.seq)
}

/** Things that still stand, in the order they were added. */
export function standing<T extends { addedSeq: number; removedSeq: number | null; id: string }>(
  table: Readonly<Record<string, T>>
): T[] {
  return Object.values(table)
    .filter((thing) => thing.removedSeq === null)
    .sort((a, b) => a.addedSeq - b.addedSeq || (a.id < b.id ? -1 : 1))
}

/**
 * The key under which answers, acknowledgements and waivers of a rule stand, for one subject or for all.
 * @param named which of several things that the rule says of the subject, by the name it says it under: one a band, for one
 */
export function ruleKey(rule: string, subject?: string | null, named?: string): string {
  const key = subject ? `${rule}/${subject}` : rule
  return named === undefined ? key : `${key}/${named}`
}

/** Whether a person has or had the visit: such a one does not approve it. */
export function hasHeld({ visit }: Pick<VisitRecord, 'visit'>, person: string): boolean {
  return [visit.technician, ...(visit.before ?? [])].some(({ id }) => id === person)
}

/** The name people know a unit by. */
export function unitName(unit: Unit): string {
  return unit.facts.name ?? unit.facts.serial ?? 'unnamed unit'
}

/** Other homes where a unit of the same serial or MAC address stands, but for the one it was brought from; none for one that stood here before. */
export function elsewhereNow(unit: Unit): NonNullable<Unit['elsewhere']> {
  return (unit.facts.stayed ? [] : (unit.elsewhere ?? [])).filter(({ home }) => home !== unit.transfer?.from)
}

/** The secret kept for a purpose of a thing; the newest where it was replaced. */
export const secretFor = (record: VisitRecord, purpose: Secret['purpose'], thing: string): Secret | null =>
  newestSecret(record, purpose, thing, false)

/** A secret of a thing that was prepared last and is not typed in yet. */
export const preparedSecret = (record: VisitRecord, purpose: Secret['purpose'], thing: string): Secret | null =>
  newestSecret(record, purpose, thing, true)

function newestSecret(
  record: VisitRecord,
  purpose: Secret['purpose'],
  thing: string,
  isPrepared: boolean
): Secret | null {
  let newest: Secret | null = null
  for (const secret of Object.values(record.secrets)) {
    const isOfThese = secret.purpose === purpose && secret.id === thing && (secret.prepared ?? false) === isPrepared
    if (isOfThese && (!newest || secret.seq > newest.seq)) newest = secret
  }
  return newest
}
