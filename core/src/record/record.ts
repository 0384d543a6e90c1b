import { z } from 'zod'
import { lampLooks } from '../catalogue/look'
import { choiceNames, custodies, elsewhere, itemStates, photoAbout, secretAssessment, secretPurposes } from './answers'
import { author } from './entry'
import {
  boxFacts,
  briefFacts,
  cableFacts,
  deviceFacts,
  fittingFacts,
  hostFacts,
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
  troubleFacts,
  unitFacts,
  wallFacts,
  type ThingKind
} from './facts'

const hash = z.string().regex(/^[0-9a-f]{64}$/)

/** Who said something, and when: by the author's clock and by its place in the logbook. */
const said = { seq: z.int(), at: z.string(), by: author }

/** Where the value of a field comes from. */
const fieldMeta = z.strictObject({ ...said, from: z.string(), origin: z.enum(origins) })
export type FieldMeta = z.infer<typeof fieldMeta>

function thingOf<S extends z.ZodRawShape>(facts: z.ZodObject<S>) {
  return z.strictObject({
    id: z.string(),
    facts: facts.partial(),
    meta: z.record(z.string(), fieldMeta),
    addedSeq: z.int(),
    removedSeq: z.int().nullable()
  })
}

const sighting = z.strictObject({ ...said, lamps: lampLooks })
const unitEvent = z.strictObject({ ...said, what: z.string() })
const answered = z.strictObject({ ...said, answer: z.string(), note: z.string().optional() })
const granted = z.strictObject({
  ...said,
  rule: z.string(),
  subject: z.string().nullable(),
  reason: z.string(),
  until: z.string().optional()
})

const unitThing = thingOf(unitFacts).extend({
  sightings: z.array(sighting),
  events: z.array(unitEvent),
  prompts: z.record(
    z.string(),
    z.strictObject({ ...said, answer: z.enum(['yes', 'no']), from: z.enum(['customer', 'default']) })
  ),
  elsewhere: z.array(elsewhere).optional(),
  transfer: z.strictObject({ ...said, from: z.string(), reason: z.string() }).optional(),
  /** Steps of methods by method and number, what was pressed to pair it, and what its own page told last. */
  steps: z.record(z.string(), z.strictObject({ ...said, seen: z.boolean() })).optional(),
  pairing: z.array(z.strictObject({ ...said, which: z.enum(['first', 'second']), on: z.string() })).optional(),
  presses: z.array(z.strictObject({ ...said, button: z.string(), seconds: z.number() })).optional(),
  read: z.strictObject({ ...said, values: z.record(z.string(), z.string()) }).optional(),
  /** That somebody was really on its air, seen last. */
  path: z
    .strictObject({
      ...said,
      before: z.int().optional(),
      after: z.int().optional(),
      address: z.string(),
      server: z.string().optional(),
      network: z.string().optional()
    })
    .optional()
})

const boxThing = thingOf(boxFacts).extend({
  items: z.record(z.string(), z.strictObject({ ...said, state: z.enum(itemStates), done: z.string().optional() }))
})

const photo = z.strictObject({
  ...said,
  ref: z.string(),
  about: photoAbout,
  caption: z.string().nullable(),
  label: z.boolean(),
  width: z.int(),
  height: z.int(),
  octets: z.int(),
  sha256: hash,
  removedSeq: z.int().nullable()
})

const conflict = z.strictObject({
  thing: z.string(),
  id: z.string(),
  field: z.string(),
  earlier: z.strictObject({ ...said, value: z.unknown() }),
  later: z.strictObject({ ...said, value: z.unknown() })
})
export type Conflict = z.infer<typeof conflict>

/** A search for a fault: what was observed, in the order it was, and how it ended. */
const faultSearch = z.strictObject({
  ...said,
  id: z.string(),
  about: z.strictObject({ unit: z.string().optional(), room: z.string().optional() }),
  observed: z.record(z.string(), z.strictObject({ ...said, answer: z.string() })),
  found: z
    .strictObject({
      ...said,
      cause: z.string(),
      end: z.enum(['mended', 'provider', 'maker', 'left']),
      probability: z.number()
    })
    .nullable()
})

const signature = z.strictObject({ ...said, name: z.string(), strokes: z.string(), digest: hash })

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
    standard: z.strictObject({ id: z.string(), version: z.int() }),
    startedFrom: z.string().nullable(),
    openedAt: z.string()
  }),
  brief: thingOf(briefFacts),
  /** Boxes, photos and the plan are left out until there is one, so that the digests of records sealed without them stay as they were. */
  boxes: z.record(z.string(), boxThing).optional(),
  photos: z.record(z.string(), photo).optional(),
  storeys: z.record(z.string(), thingOf(storeyFacts)).optional(),
  rooms: z.record(z.string(), thingOf(roomFacts)).optional(),
  walls: z.record(z.string(), thingOf(wallFacts)).optional(),
  openings: z.record(z.string(), thingOf(openingFacts)).optional(),
  outlets: z.record(z.string(), thingOf(outletFacts)).optional(),
  troubles: z.record(z.string(), thingOf(troubleFacts)).optional(),
  readings: z.record(z.string(), thingOf(readingFacts)).optional(),
  cables: z.record(z.string(), thingOf(cableFacts)).optional(),
  fittings: z.record(z.string(), thingOf(fittingFacts)).optional(),
  /** The simulated house that this visit is practised on. */
  house: z.string().nullable().optional(),
  units: z.record(z.string(), unitThing),
  segments: z.record(z.string(), thingOf(segmentFacts)),
  pools: z.record(z.string(), thingOf(poolFacts)),
  hosts: z.record(z.string(), thingOf(hostFacts)),
  networks: z.record(z.string(), thingOf(networkFacts)),
  radios: z.record(z.string(), thingOf(radioFacts)).optional(),
  devices: z.record(z.string(), thingOf(deviceFacts)).optional(),
  measurements: z.record(z.string(), thingOf(measurementFacts)).optional(),
  checks: z
    .record(
      z.string(),
      z.strictObject({ ...said, id: z.string(), from: z.string(), to: z.string(), cancelled: z.boolean() })
    )
    .optional(),
  searches: z.record(z.string(), faultSearch).optional(),
  neighbours: z.strictObject({ ...said, networks: z.array(neighbourNetwork) }).optional(),
  secrets: z.record(
    z.string(),
    z.strictObject({
      ...said,
      ref: z.string(),
      purpose: z.enum(secretPurposes),
      thing: z.enum(['brief', 'unit', 'network']),
      id: z.string(),
      origin: z.enum(['typed', 'label', 'made']),
      assessed: secretAssessment,
      /** When it was erased, where others of the visit were kept. */
      erasedAt: z.string().optional()
    })
  ),
  secretsErased: z.boolean(),
  choices: z.partialRecord(z.enum(choiceNames), answered),
  custody: z
    .strictObject({
      ...said,
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
      ...said,
      id: z.string(),
      what: z.string(),
      unit: z.string().nullable(),
      task: z.string().optional(),
      usualMin: z.number(),
      mostMin: z.number(),
      endedAt: z.string().nullable()
    })
  ),
  notes: z.array(z.strictObject({ ...said, text: z.string(), stage: z.string().nullable() })),
  conflicts: z.array(conflict),
  review: z
    .strictObject({
      ...said,
      state: z.enum(['asked', 'returned', 'approved']),
      remark: z.string(),
      digest: hash.optional()
    })
    .nullable(),
  pack: z.strictObject({
    madeDigest: hash.nullable(),
    madeAt: z.string().nullable(),
    givenDigest: hash.nullable(),
    givenAt: z.string().nullable(),
    how: z.string().nullable()
  }),
  signatures: z.strictObject({ customer: signature.nullable(), technician: signature.nullable() }),
  seal: z
    .strictObject({
      ...said,
      chain: hash,
      record: hash,
      standard: hash,
      catalogue: hash,
      verdicts: hash.optional(),
      key: z.string(),
      signature: z.string()
    })
    .nullable(),
  lastSeq: z.int()
})

export type VisitRecord = z.infer<typeof visitRecord>
export type KitInVisit = NonNullable<VisitRecord['boxes']>[string]
export type Photo = NonNullable<VisitRecord['photos']>[string]
export type Storey = NonNullable<VisitRecord['storeys']>[string]
export type Room = NonNullable<VisitRecord['rooms']>[string]
export type Outlet = NonNullable<VisitRecord['outlets']>[string]
export type Reading = NonNullable<VisitRecord['readings']>[string]
export type Cable = NonNullable<VisitRecord['cables']>[string]
export type Fitting = NonNullable<VisitRecord['fittings']>[string]
export type Trouble = NonNullable<VisitRecord['troubles']>[string]
export type Unit = VisitRecord['units'][string]
export type Wait = VisitRecord['waits'][string]
export type Network = VisitRecord['networks'][string]
export type Radio = NonNullable<VisitRecord['radios']>[string]
export type Device = NonNullable<VisitRecord['devices']>[string]
export type Measurement = NonNullable<VisitRecord['measurements']>[string]
export type FaultSearch = z.infer<typeof faultSearch>
export type Segment = VisitRecord['segments'][string]
export type Pool = VisitRecord['pools'][string]
export type Host = VisitRecord['hosts'][string]
export type Secret = VisitRecord['secrets'][string]
export type Sighting = z.infer<typeof sighting>

/** The table that things of a kind stand in. */
export const tableOf = {
  box: 'boxes',
  unit: 'units',
  storey: 'storeys',
  room: 'rooms',
  wall: 'walls',
  opening: 'openings',
  outlet: 'outlets',
  trouble: 'troubles',
  reading: 'readings',
  cable: 'cables',
  fitting: 'fittings',
  segment: 'segments',
  pool: 'pools',
  host: 'hosts',
  network: 'networks',
  radio: 'radios',
  device: 'devices',
  measurement: 'measurements'
} as const satisfies Record<Exclude<ThingKind, 'brief'>, keyof VisitRecord>

/** Every thing of a kind, those taken out as well, by id. */
export function thingsOf<K extends keyof typeof tableOf>(
  record: Pick<VisitRecord, (typeof tableOf)[K]>,
  kind: K
): NonNullable<VisitRecord[(typeof tableOf)[K]]> {
  return record[tableOf[kind]] ?? {}
}

/** Where a step of a method is kept in its unit. */
export const stepKey = (method: string, step: number): string => `${method} ${step}`

/** Photos that stand, oldest first. */
export function photosOf(record: VisitRecord): Photo[] {
  return Object.values(record.photos ?? {})
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

/** The key under which answers, acknowledgements and waivers of a rule stand, for one subject or for all. */
export function ruleKey(rule: string, subject?: string | null): string {
  return subject ? `${rule}/${subject}` : rule
}

/** Whether a person has or had the visit: such a one does not approve it. */
export function hasHeld({ visit }: Pick<VisitRecord, 'visit'>, person: string): boolean {
  return [visit.technician, ...(visit.before ?? [])].some(({ id }) => id === person)
}

/**
 * A conflict as it stands now: the later value is the one the record holds, which whoever wrote it may have changed since without
 * having seen the earlier one.
 */
export function conflictNow(record: VisitRecord, conflict: Conflict): Conflict {
  const { thing, id, field, later } = conflict
  const holder =
    thing === 'brief'
      ? record.brief
      : Object.hasOwn(tableOf, thing)
        ? (
            thingsOf(record, thing as keyof typeof tableOf) as Record<
              string,
              { facts: Record<string, unknown>; meta: Record<string, FieldMeta> }
            >
          )[id]
        : undefined
  const meta = holder?.meta[field]
  if (!holder || !meta || meta.seq <= later.seq) return conflict
  const facts: Record<string, unknown> = holder.facts
  return { ...conflict, later: { seq: meta.seq, at: meta.at, by: meta.by, value: facts[field] ?? null } }
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
export function secretFor(record: VisitRecord, purpose: Secret['purpose'], thing: string): Secret | null {
  let newest: Secret | null = null
  for (const secret of Object.values(record.secrets)) {
    if (secret.purpose === purpose && secret.id === thing && (!newest || secret.seq > newest.seq)) newest = secret
  }
  return newest
}
