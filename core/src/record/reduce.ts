import type { Body, Entry, EntryKind, Placed } from './entry'
import type { ThingKind } from './facts'
import {
  ruleKey,
  stepKey,
  tableOf,
  thingsOf,
  type Conflict,
  type FaultSearch,
  type FieldMeta,
  type VisitRecord
} from './record'

/** A record before its first entry. */
export const emptyRecord: VisitRecord = {
  format: 'pasado.state/1',
  visit: {
    id: '',
    home: '',
    customer: '',
    technician: { id: '', name: '' },
    standard: { id: '', version: 1 },
    startedFrom: null,
    openedAt: ''
  },
  brief: { id: 'brief', facts: {}, meta: {}, addedSeq: 0, removedSeq: null },
  units: {},
  segments: {},
  pools: {},
  hosts: {},
  networks: {},
  secrets: {},
  secretsErased: false,
  choices: {},
  custody: null,
  answers: {},
  acknowledged: {},
  waivers: {},
  waits: {},
  notes: [],
  conflicts: [],
  review: null,
  pack: { madeDigest: null, madeAt: null, givenDigest: null, givenAt: null, how: null },
  signatures: { customer: null, technician: null },
  seal: null,
  lastSeq: 0
}

type Handler<K extends EntryKind> = (record: VisitRecord, entry: Placed<K>) => Partial<VisitRecord>
type AnyThing = {
  id: string
  facts: Record<string, unknown>
  meta: Record<string, FieldMeta>
  addedSeq: number
  removedSeq: number | null
}

/**
 * The record after one more entry. Pure: the record given is not changed.
 * The server, the browser and the command line all use this one function.
 */
export function apply(record: VisitRecord, entry: Placed): VisitRecord {
  const handler = handlers[entry.kind] as Handler<EntryKind>
  return { ...record, ...handler(record, entry), lastSeq: entry.seq }
}

/** The record that a whole logbook amounts to. */
export function reduce(entries: Iterable<Placed>, from: VisitRecord = emptyRecord): VisitRecord {
  let record = from
  for (const one of entries) record = apply(record, one)
  return record
}

const said = (entry: Placed | Entry) => ({ seq: entry.seq, at: entry.at, by: entry.by })

function setFacts<K extends Exclude<ThingKind, 'brief'>>(kind: K): Handler<`${K}.set`> {
  const table = tableOf[kind]
  return (record, entry) => {
    const { id, set, origin } = entry.body
    const things = thingsOf(record, kind) as Record<string, AnyThing>
    const before = things[id] ?? newThing(kind, id, entry.seq)
    const { thing, conflicts } = setFields(kind, before, set, origin, entry, record.conflicts)
    return { [table]: { ...things, [id]: thing }, conflicts }
  }
}

function newThing(kind: ThingKind, id: string, seq: number): AnyThing {
  const thing = { id, facts: {}, meta: {}, addedSeq: seq, removedSeq: null }
  if (kind === 'box') return { ...thing, items: {} } as AnyThing
  return kind === 'unit' ? ({ ...thing, sightings: [], events: [], prompts: {} } as AnyThing) : thing
}

/**
 * Sets fields, later over earlier. Where another device set the same field to another value after the author
 * last looked (`base`), the two are a conflict; a value set in knowledge of both settles it.
 */
function setFields(
  kind: ThingKind,
  before: AnyThing,
  set: Record<string, unknown>,
  origin: Body<'unit.set'>['origin'],
  entry: Placed,
  open: Conflict[]
) {
  const facts = { ...before.facts }
  const meta = { ...before.meta }
  let conflicts = open
  for (const [field, value] of Object.entries(set)) {
    const last = meta[field]
    const unseen = last && last.seq > entry.base && last.from !== entry.from
    const here = (one: Conflict) => one.thing === kind && one.id === before.id && one.field === field
    if (unseen && !same(facts[field] ?? null, value)) {
      const earlier = { seq: last.seq, at: last.at, by: last.by, value: facts[field] ?? null }
      conflicts = [
        ...conflicts.filter((one) => !here(one)),
        { thing: kind, id: before.id, field, earlier, later: { ...said(entry), value } }
      ]
    } else if (conflicts.length) {
      conflicts = conflicts.filter((one) => !(here(one) && entry.base >= one.later.seq))
    }
    if (value === null) delete facts[field]
    else facts[field] = value
    meta[field] = { ...said(entry), from: entry.from, origin: origin ?? 'typed' }
  }
  return { thing: { ...before, facts, meta }, conflicts }
}

function same(a: unknown, b: unknown): boolean {
  return a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b))
}

function withUnit(
  record: VisitRecord,
  id: string,
  change: (unit: VisitRecord['units'][string]) => Partial<VisitRecord['units'][string]>
): Partial<VisitRecord> {
  const unit = record.units[id]
  return unit ? { units: { ...record.units, [id]: { ...unit, ...change(unit) } } } : {}
}

function withSearch(
  record: VisitRecord,
  id: string,
  change: (search: FaultSearch) => Partial<FaultSearch>
): Partial<VisitRecord> {
  const search = record.searches?.[id]
  return search ? { searches: { ...record.searches, [id]: { ...search, ...change(search) } } } : {}
}

function withPhoto(
  record: VisitRecord,
  ref: string,
  change: Partial<NonNullable<VisitRecord['photos']>[string]>
): Partial<VisitRecord> {
  const photo = record.photos?.[ref]
  return photo ? { photos: { ...record.photos, [ref]: { ...photo, ...change } } } : {}
}

function without<T>(table: Record<string, T>, key: string): Record<string, T> {
  const { [key]: _, ...rest } = table
  return rest
}

const handlers: { [K in EntryKind]: Handler<K> } = {
  'visit.opened': (record, entry) => {
    const { home, customer, technician, standard, startedFrom, brief } = entry.body
    const set = setFields('brief', record.brief, brief, 'typed', entry, [])
    return {
      visit: { id: entry.visit, home, customer, technician, standard, startedFrom, openedAt: entry.at },
      brief: set.thing
    }
  },
  'brief.set': (record, entry) => {
    const { thing, conflicts } = setFields(
      'brief',
      record.brief,
      entry.body.set,
      entry.body.origin,
      entry,
      record.conflicts
    )
    return { brief: thing, conflicts }
  },
  'box.set': setFacts('box'),
  'items.checked': (record, entry) => {
    const { box: id, items, state, done } = entry.body
    const box = record.boxes?.[id]
    if (!box) return {}
    const kept = { ...box.items }
    for (const item of items) {
      if (state === 'open') delete kept[item]
      else kept[item] = { ...said(entry), state, ...(done === undefined ? {} : { done }) }
    }
    return { boxes: { ...record.boxes, [id]: { ...box, items: kept } } }
  },
  'unit.elsewhere': (record, entry) => withUnit(record, entry.body.unit, () => ({ elsewhere: entry.body.found })),
  'unit.transferred': (record, entry) =>
    withUnit(record, entry.body.unit, () => ({
      transfer: { ...said(entry), from: entry.body.from, reason: entry.body.reason }
    })),
  'photo.added': (record, entry) => ({
    photos: { ...record.photos, [entry.body.ref]: { ...said(entry), ...entry.body, removedSeq: null } }
  }),
  'photo.captioned': (record, { body }) => withPhoto(record, body.ref, { caption: body.caption }),
  'photo.removed': (record, { body, seq }) => withPhoto(record, body.ref, { removedSeq: seq }),
  'photo.restored': (record, { body }) => withPhoto(record, body.ref, { removedSeq: null }),
  'unit.set': setFacts('unit'),
  'storey.set': setFacts('storey'),
  'room.set': setFacts('room'),
  'wall.set': setFacts('wall'),
  'opening.set': setFacts('opening'),
  'outlet.set': setFacts('outlet'),
  'trouble.set': setFacts('trouble'),
  'reading.set': setFacts('reading'),
  'cable.set': setFacts('cable'),
  'fitting.set': setFacts('fitting'),
  'segment.set': setFacts('segment'),
  'pool.set': setFacts('pool'),
  'host.set': setFacts('host'),
  'network.set': setFacts('network'),
  'radio.set': setFacts('radio'),
  'device.set': setFacts('device'),
  'measurement.set': setFacts('measurement'),
  'path.seen': (record, entry) =>
    withUnit(record, entry.body.unit, () => {
      const { unit: _, ...seen } = entry.body
      return { path: { ...said(entry), ...seen } }
    }),
  'check.booked': (record, entry) => ({
    checks: { ...record.checks, [entry.body.id]: { ...said(entry), ...entry.body, cancelled: false } }
  }),
  'check.cancelled': (record, { body }) => {
    const check = record.checks?.[body.id]
    return check ? { checks: { ...record.checks, [body.id]: { ...check, cancelled: true } } } : {}
  },
  'fault.search': (record, entry) => ({
    searches: {
      ...record.searches,
      [entry.body.search]: { ...said(entry), id: entry.body.search, about: entry.body.about, observed: {}, found: null }
    }
  }),
  'fault.observed': (record, entry) =>
    withSearch(record, entry.body.search, (search) => {
      const { observation, answer } = entry.body
      return {
        observed:
          answer === null
            ? without(search.observed, observation)
            : { ...without(search.observed, observation), [observation]: { ...said(entry), answer } }
      }
    }),
  'fault.found': (record, entry) =>
    withSearch(record, entry.body.search, () => {
      const { search: _, ...found } = entry.body
      return { found: { ...said(entry), ...found } }
    }),
  'neighbours.noted': (_, entry) => ({ neighbours: { ...said(entry), networks: entry.body.networks } }),
  'thing.removed': (record, { body, seq }) => markRemoved(record, body, seq),
  'thing.restored': (record, { body }) => markRemoved(record, body, null),
  'lamp.seen': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      sightings: [...unit.sightings, { ...said(entry), lamps: entry.body.lamps }]
    })),
  'unit.event': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      events: [...unit.events, { ...said(entry), what: entry.body.what }]
    })),
  'method.step': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      steps: { ...unit.steps, [stepKey(entry.body.method, entry.body.step)]: { ...said(entry), seen: entry.body.seen } }
    })),
  'pairing.pressed': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      pairing: [...(unit.pairing ?? []), { ...said(entry), which: entry.body.which, on: entry.body.on }]
    })),
  'button.pressed': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      presses: [...(unit.presses ?? []), { ...said(entry), button: entry.body.button, seconds: entry.body.seconds }]
    })),
  'unit.read': (record, entry) =>
    withUnit(record, entry.body.unit, () => ({ read: { ...said(entry), values: entry.body.values } })),
  'house.bound': (_, { body }) => ({ house: body.house }),
  'prompt.answered': (record, entry) =>
    withUnit(record, entry.body.unit, (unit) => ({
      prompts: {
        ...unit.prompts,
        [entry.body.prompt]: { ...said(entry), answer: entry.body.answer, from: entry.body.by }
      }
    })),
  'choice.answered': (record, entry) => ({
    choices: { ...record.choices, [entry.body.choice]: { ...said(entry), answer: entry.body.answer } }
  }),
  'custody.answered': (_, entry) => ({ custody: { ...said(entry), ...entry.body } }),
  'rule.answered': (record, entry) => {
    const { rule, subject, answer, note } = entry.body
    return {
      answers: {
        ...record.answers,
        [ruleKey(rule, subject)]: { ...said(entry), answer, ...(note === undefined ? {} : { note }) }
      }
    }
  },
  'rule.acknowledged': (record, entry) => ({ acknowledged: { ...record.acknowledged, ...grant(entry) } }),
  'waiver.granted': (record, entry) => ({ waivers: { ...record.waivers, ...grant(entry) } }),
  'waiver.withdrawn': (record, { body }) => ({ waivers: without(record.waivers, ruleKey(body.rule, body.subject)) }),
  'conflict.settled': (record, entry) => {
    const { thing, id, field, keep } = entry.body
    const settled = record.conflicts.find((one) => one.thing === thing && one.id === id && one.field === field)
    if (!settled) return {}
    const conflicts = record.conflicts.filter((one) => one !== settled)
    if (keep === 'later') return { conflicts }
    const holder = (
      thing === 'brief'
        ? record.brief
        : (thingsOf(record, thing as keyof typeof tableOf) as Record<string, AnyThing>)[id]
    ) as AnyThing
    const origin = holder.meta[field]?.origin
    const back = setFields(
      thing as ThingKind,
      holder,
      { [field]: settled.earlier.value },
      origin,
      { ...entry, base: entry.seq },
      conflicts
    )
    if (thing === 'brief') return { brief: back.thing, conflicts }
    const table = tableOf[thing as keyof typeof tableOf]
    return { [table]: { ...record[table], [id]: back.thing }, conflicts }
  },
  'wait.started': (record, entry) => {
    const { id, what, unit, task, usualMin, mostMin } = entry.body
    return {
      waits: {
        ...record.waits,
        [id]: {
          ...said(entry),
          id,
          what,
          unit: unit ?? null,
          ...(task === undefined ? {} : { task }),
          usualMin,
          mostMin,
          endedAt: null
        }
      }
    }
  },
  'wait.ended': (record, entry) => {
    const wait = record.waits[entry.body.id]
    return wait ? { waits: { ...record.waits, [wait.id]: { ...wait, endedAt: entry.at } } } : {}
  },
  'note.written': (record, entry) => ({
    notes: [...record.notes, { ...said(entry), text: entry.body.text, stage: entry.body.stage ?? null }]
  }),
  'review.asked': (_, entry) => ({ review: { ...said(entry), state: 'asked', remark: entry.body.remark } }),
  'review.returned': (_, entry) => ({ review: { ...said(entry), state: 'returned', remark: entry.body.remark } }),
  'visit.handed': (record, { body: { technician } }) => {
    const had = [...(record.visit.before ?? []), record.visit.technician].filter(({ id }) => id !== technician.id)
    return { visit: { ...record.visit, technician, before: had } }
  },
  'standard.moved': (record, { body }) => ({ visit: { ...record.visit, standard: body.standard } }),
  'review.approved': (_, entry) => ({
    review: { ...said(entry), state: 'approved', remark: entry.body.remark, digest: entry.body.digest }
  }),
  'secret.kept': (record, entry) => ({
    secrets: { ...record.secrets, [entry.body.ref]: { ...said(entry), ...entry.body } }
  }),
  'secret.assessed': (record, entry) => {
    const secret = record.secrets[entry.body.ref]
    return secret ? { secrets: { ...record.secrets, [secret.ref]: { ...secret, assessed: entry.body.assessed } } } : {}
  },
  'secret.shown': () => ({}),
  'secrets.erased': (record, entry) => {
    const { refs, kept } = entry.body
    if (!kept?.length) return { secretsErased: true }
    return {
      secrets: Object.fromEntries(
        Object.entries(record.secrets).map(([ref, secret]) => [
          ref,
          refs.includes(ref) ? { ...secret, erasedAt: entry.at } : secret
        ])
      )
    }
  },
  'copies.erased': (record, entry) => ({
    secrets: Object.fromEntries(
      Object.entries(record.secrets).map(([ref, secret]) => [
        ref,
        entry.body.refs.includes(ref) ? { ...secret, erasedAt: entry.at } : secret
      ])
    )
  }),
  'pack.made': (record, entry) => ({ pack: { ...record.pack, madeDigest: entry.body.digest, madeAt: entry.at } }),
  'pack.given': (record, entry) => ({
    pack: { ...record.pack, givenDigest: record.pack.madeDigest, givenAt: entry.at, how: entry.body.how }
  }),
  'signature.given': (record, entry) => {
    const { who, name, strokes, digest } = entry.body
    return { signatures: { ...record.signatures, [who]: { ...said(entry), name, strokes, digest } } }
  },
  sealed: (_, entry) => ({ seal: { ...said(entry), ...entry.body } })
}

function grant(entry: Placed<'rule.acknowledged'> | Placed<'waiver.granted'>) {
  const { rule, subject, reason } = entry.body
  const until = 'until' in entry.body ? entry.body.until : undefined
  return {
    [ruleKey(rule, subject)]: {
      ...said(entry),
      rule,
      subject: subject ?? null,
      reason,
      ...(until === undefined ? {} : { until })
    }
  }
}

function markRemoved(
  record: VisitRecord,
  { thing, id }: Body<'thing.removed'>,
  removedSeq: number | null
): Partial<VisitRecord> {
  const table = tableOf[thing]
  const held = (thingsOf(record, thing) as Record<string, AnyThing>)[id]
  return held ? { [table]: { ...record[table], [id]: { ...held, removedSeq } } } : {}
}
