import {
  type AnyThing,
  anyThingsOf,
  secretFor,
  standing,
  tableOf,
  thingsOf,
  unitName,
  type Unit,
  type VisitRecord
} from '../record/record'
import type { Compared } from '../record/things/thing'
import { type StoredKind, storedKinds, things } from '../record/things/all'
import { textOf } from '../values/plain'
import { sameVersion } from '../values/version'
import type { Catalogue } from '../catalogue/model'
import { causes } from '../work/diagnose/causes'
import { lookWords } from '../catalogue/look'
import { judgeRooms, type RoomVerdict } from '../work/prove/rooms'
import { choices, choiceNames } from '../record/answers'
import { sameJson } from '../values/canonical'
import type { ThingKind } from '../record/facts'
import { evaluate, type Finding } from '../rules/evaluate'
import type { Outcome } from '../rules/rule'
import type { Standard } from '../policy/standard'
import { fieldWords, thingName, valueWords } from './field-words'

/** A record with what it is judged by. */
export interface Revision {
  record: VisitRecord
  catalogue: Catalogue
  standard: Standard
  /** In which zone moments are told; the device's own where it is left out. */ zone?: string
}

/** One field that is another now. */
export interface Change {
  field: string
  says: string
  before: string | null
  after: string | null
  /** Who set it last; null where that is not recorded for it. */
  by: { name: string; at: string } | null
  /** Why, as far as the record tells: rules that were broken before, reasons that were given. */
  why: string[]
}

/** What changed of one thing. */
export interface ThingChanges {
  kind: ThingKind | 'choices' | 'plan'
  id: string
  name: string
  is: 'added' | 'gone' | 'changed'
  changes: Change[]
  why: string[]
}

/** A rule whose outcome is another now. */
export interface OutcomeChange {
  rule: string
  name: string
  subject: string | null
  before: Outcome
  after: Outcome
  says: string
}

/** A room as it was measured before and after. */
export interface RoomChange {
  name: string
  before: RoomFigures | null
  after: RoomFigures | null
}
export interface RoomFigures {
  dbm: number | null
  downMbps: number | null
  outcome: 'holds' | 'breaks' | 'unproven'
}

/** Everything that differs from one revision to another, units first. */
export interface Changes {
  things: ThingChanges[]
  outcomes: OutcomeChange[]
  rooms: RoomChange[]
  /** Rooms, rules and answers of the visit before that the later one has not come to again: no change, only not looked at. */
  notAgain: number
}

/** Where a kind is told among those that are compared field by field; null where it is not compared so. */
const rankOf = (kind: StoredKind): number | null => {
  const { compared } = things[kind]
  return typeof compared === 'object' && 'byField' in compared ? compared.byField : null
}
/** Kinds that are compared field by field, in the order they are shown. */
const byField = storedKinds.filter((kind) => rankOf(kind) !== null).sort((a, b) => rankOf(a)! - rankOf(b)!)
/** Kinds that are drawn: what counts is that they are others, not by how many metres. */
const drawn = storedKinds.flatMap((kind) => {
  const { compared } = things[kind]
  return typeof compared === 'object' && 'drawn' in compared ? [{ kind, plural: compared.drawn }] : []
})
/** Fields that follow from others or are the visit's own affair. */
const unsaid = new Set([
  'modelVersion',
  'storey',
  'x',
  'y',
  'paper',
  'paperX',
  'paperY',
  'paperWidthM',
  'stayed',
  'box',
  'needsReady',
  'moveRecorded',
  'plannedAt',
  'unit'
])
/** Of a new thing its name is told already, and what it is not goes without saying. */
const toldByItself = (field: string, value: string | null) => field === 'name' || field === 'ssid' || value === 'no'

/**
 * What changed from one revision to another: of the same visit at two moments, or of two visits of one home. Things are the same where
 * their id is, as a visit that starts from another keeps it; units also where model and serial are.
 */
export function changesBetween(before: Revision, after: Revision): Changes {
  const [was, is] = [judged(before), judged(after)]
  const mended = was.filter(
    ({ outcome, rule, subject }) =>
      outcome === 'breaks' &&
      is.some(
        (now) => now.rule === rule && (now.subject?.id ?? null) === (subject?.id ?? null) && now.outcome === 'holds'
      )
  )
  const things: ThingChanges[] = [
    ...byField.flatMap((kind) => thingsOfKind(kind, before, after, mended)),
    ...briefChanges(before, after, mended),
    ...choiceChanges(before.record, after.record),
    ...planChanges(before.record, after.record)
  ]
  const [outcomes, rooms] = [outcomeChanges(was, is), roomChanges(before, after)]
  return before.record.visit.id === after.record.visit.id
    ? { things, outcomes, rooms, notAgain: 0 }
    : lookedAtAgain({ things, outcomes, rooms, notAgain: 0 })
}

/**
 * Of two moments of one visit, what really differs: units that came or went, and what was set before and is another now. That a thing came
 * to be recorded at all is no difference from the plan.
 */
export function differing({ things }: Changes): Changes {
  const told = things
    .filter(({ kind }) => kind === 'unit' || kind === 'network' || kind === 'brief')
    .map((one) => ({
      ...one,
      changes: one.is === 'changed' ? one.changes.filter(({ before }) => before !== null) : []
    }))
  return {
    things: told.filter(({ is, changes }) => is !== 'changed' || changes.length > 0),
    outcomes: [],
    rooms: [],
    notAgain: 0
  }
}

/** What each visit asks, measures and proves anew: left open in a later visit, it has not become another. */
const anew = new Set<ThingChanges['kind']>(['choices', 'device'])

function lookedAtAgain({ things, outcomes, rooms }: Changes): Changes {
  const kept = things
    .map((one) => (anew.has(one.kind) ? { ...one, changes: one.changes.filter(({ after }) => after !== null) } : one))
    .filter(({ is, changes }) => is !== 'changed' || changes.length > 0)
  const [proven, seen] = [
    outcomes.filter(({ after }) => after !== 'unproven' && after !== 'not-here'),
    rooms.filter(({ after }) => after !== null)
  ]
  return {
    things: kept,
    outcomes: proven,
    rooms: seen,
    notAgain: outcomes.length - proven.length + rooms.length - seen.length
  }
}

const judged = ({ record, catalogue, standard }: Revision): Finding[] =>
  record.lastSeq === 0 ? [] : evaluate(record, catalogue, standard)

function thingsOfKind(kind: StoredKind, before: Revision, after: Revision, mended: readonly Finding[]): ThingChanges[] {
  const [old, now] = [standing(anyThingsOf(before.record, kind)), standing(anyThingsOf(after.record, kind))]
  const left = new Map(old.map((one) => [one.id, one]))
  const found: ThingChanges[] = []
  for (const thing of now) {
    const twin =
      left.get(thing.id) ??
      (kind === 'unit'
        ? old.find(
            ({ facts, id }) =>
              left.has(id) &&
              facts.serial !== undefined &&
              facts.serial === thing.facts.serial &&
              facts.model === thing.facts.model
          )
        : undefined)
    if (twin) left.delete(twin.id)
    const changes = fieldChanges(kind, twin ?? null, thing, before, after, mended)
    if (kind === 'unit')
      changes.push(...unitExtras(twin as unknown as Unit | undefined, thing as unknown as Unit, before, after))
    if (kind === 'network') changes.push(...passphraseChange(thing.id, twin !== undefined, before.record, after.record))
    if (!twin || changes.length)
      found.push({
        kind,
        id: thing.id,
        name: nameOf(kind, thing, after.record),
        is: twin ? 'changed' : 'added',
        changes,
        why: whyOf(thing, after.record)
      })
  }
  for (const gone of left.values())
    found.push({
      kind,
      id: gone.id,
      name: nameOf(kind, gone, before.record),
      is: 'gone',
      changes: [],
      why: whyOf(gone, after.record)
    })
  return found
}

function fieldChanges(
  kind: ThingKind,
  twin: AnyThing | null,
  thing: AnyThing,
  before: Revision,
  after: Revision,
  mended: readonly Finding[]
): Change[] {
  const fields = new Set([...Object.keys(twin?.facts ?? {}), ...Object.keys(thing.facts)])
  return [...fields].flatMap((field): Change[] => {
    // A firmware that was updated before counts as what is found now: one line tells both.
    if (
      unsaid.has(field) ||
      (field === 'firmwareBefore' &&
        (thing.facts.firmwareAfter !== undefined || twin?.facts.firmwareAfter !== undefined))
    )
      return []
    const [a, b] = [
      valueWords(before.record, before.catalogue, kind, field, valueOf(twin, field), after.zone),
      valueWords(after.record, after.catalogue, kind, field, valueOf(thing, field), after.zone)
    ]
    if (
      a === b ||
      (field.startsWith('firmware') && a !== null && b !== null && sameVersion(a, b)) ||
      (!twin && toldByItself(field, b))
    )
      return []
    const meta = thing.meta[field]
    const why = mended
      .filter(({ place }) => place !== null && place.kind === kind && place.id === thing.id && place.field === field)
      .map(({ name, evidence }) => `${name}: ${evidence}`)
    if (meta && 'origin' in meta && meta.origin === 'label') why.push('from its label')
    return [
      {
        field,
        says: field === 'firmwareAfter' ? 'firmware' : fieldWords(field),
        before: a,
        after: b,
        by: meta ? { name: meta.by.name, at: meta.at } : null,
        why
      }
    ]
  })
}

/** What runs on a unit: what it was updated to, else what it came with. */
function valueOf(thing: AnyThing | null, field: string): unknown {
  return field === 'firmwareAfter' ? (thing?.facts.firmwareAfter ?? thing?.facts.firmwareBefore) : thing?.facts[field]
}

const lampsOf = (unit: Unit | undefined): string | null =>
  unit?.sightings
    .at(-1)
    ?.lamps.map((look) => `${look.lamp} ${lookWords(look)}`)
    .join('; ') ?? null

function unitExtras(twin: Unit | undefined, unit: Unit, before: Revision, after: Revision): Change[] {
  const found: Change[] = []
  const [a, b] = [lampsOf(twin), lampsOf(unit)]
  const seen = unit.sightings.at(-1)
  if (a !== b && b !== null)
    found.push({
      field: 'lamps',
      says: 'lamps seen last',
      before: a,
      after: b,
      by: seen ? { name: seen.by.name, at: seen.at } : null,
      why: []
    })
  if (
    twin?.facts.x !== undefined &&
    twin.facts.y !== undefined &&
    unit.facts.x !== undefined &&
    unit.facts.y !== undefined
  ) {
    const [from, to] = [
      thingName(before.record, twin.facts.storey ?? ''),
      thingName(after.record, unit.facts.storey ?? '')
    ]
    const metres = Math.hypot(unit.facts.x - twin.facts.x, unit.facts.y - twin.facts.y)
    if (from !== to || metres >= 0.5)
      found.push({
        field: 'x',
        says: 'moved in the plan',
        before: from,
        after: `${to ?? ''}${to ? ', ' : ''}${Math.round(metres * 10) / 10} m away`,
        by: unit.meta.x ? { name: unit.meta.x.by.name, at: unit.meta.x.at } : null,
        why: []
      })
  }
  return found
}

/** Whether a passphrase is another one; what it is, nobody is told. */
function passphraseChange(network: string, stood: boolean, before: VisitRecord, after: VisitRecord): Change[] {
  const now = secretFor(after, 'wifi-passphrase', network)
  if (!now || !stood) return []
  const sameVisit = before.visit.id === after.visit.id
  const kept = Object.values(after.secrets).filter(
    ({ purpose, id }) => purpose === 'wifi-passphrase' && id === network
  ).length
  const was = secretFor(before, 'wifi-passphrase', network)
  const other = sameVisit ? was?.ref !== now.ref : kept > 1
  return other
    ? [
        {
          field: 'passphrase',
          says: 'passphrase',
          before: was ? '••••••••' : null,
          after: 'another one',
          by: { name: now.by.name, at: now.at },
          why: []
        }
      ]
    : []
}

function nameOf(kind: ThingKind, thing: AnyThing, record: VisitRecord): string {
  const { facts } = thing
  const unit = (id: unknown) => thingName(record, String(id)) ?? 'a unit'
  if (kind === 'unit') return unitName(thing as unknown as Unit)
  if (kind === 'pool') return `DHCP pool of ${facts.unit === undefined ? 'the provider' : unit(facts.unit)}`
  if (kind === 'host')
    return `Address of ${facts.unit === undefined ? textOf(facts.name ?? 'a device') : unit(facts.unit)}`
  if (kind === 'radio') return `${unit(facts.unit)}, ${String(facts.band)} GHz`
  if (kind === 'cable')
    return `Cable ${[facts.a, facts.b].map((end) => (end ? (thingName(record, (end as { id: string }).id) ?? (end as { thing: string }).thing) : 'somewhere')).join(' to ')}`
  return thingName(record, thing.id) ?? kind
}

/** Reasons that speak of the whole thing: how a fault search about it ended, that it was brought from elsewhere, notes that name it. */
function whyOf(thing: AnyThing, record: VisitRecord): string[] {
  const name = typeof thing.facts.name === 'string' ? thing.facts.name : null
  const transfer = (thing as unknown as Partial<Unit>).transfer
  return [
    ...Object.values(record.searches ?? {}).flatMap(({ about, found }) =>
      about.unit === thing.id && found
        ? [`fault found: ${causes.find(({ id }) => id === found.cause)?.name ?? found.cause}`]
        : []
    ),
    ...(transfer ? [`brought from another home: ${transfer.reason}`] : []),
    ...(name === null
      ? []
      : record.notes
          .filter(({ text }) => text.toLowerCase().includes(name.toLowerCase()))
          .map(({ text, by }) => `${by.name}: ${text}`))
  ]
}

function briefChanges(before: Revision, after: Revision, mended: readonly Finding[]): ThingChanges[] {
  const changes = fieldChanges('brief', before.record.brief, after.record.brief, before, after, mended)
  return changes.length ? [{ kind: 'brief', id: 'brief', name: 'The brief', is: 'changed', changes, why: [] }] : []
}

function choiceChanges(before: VisitRecord, after: VisitRecord): ThingChanges[] {
  const changes = choiceNames.flatMap((choice): Change[] => {
    const [a, b] = [before.choices[choice], after.choices[choice]]
    return a?.answer === b?.answer
      ? []
      : [
          {
            field: choice,
            says: choices[choice].toLowerCase(),
            before: a?.answer ?? null,
            after: b?.answer ?? null,
            by: b ? { name: b.by.name, at: b.at } : null,
            why: []
          }
        ]
  })
  const [had, has] = [before.custody, after.custody]
  if (had?.custody !== has?.custody)
    changes.push({
      field: 'custody',
      says: 'who keeps the passwords',
      before: had?.custody.replaceAll('-', ' ') ?? null,
      after: has?.custody.replaceAll('-', ' ') ?? null,
      by: has ? { name: has.by.name, at: has.at } : null,
      why: []
    })
  return changes.length
    ? [{ kind: 'choices', id: 'choices', name: 'What the customer chose', is: 'changed', changes, why: [] }]
    : []
}

function planChanges(before: VisitRecord, after: VisitRecord): ThingChanges[] {
  const changes = drawn.flatMap(({ kind, plural }): Change[] => {
    const [old, now] = [standing(anyThingsOf(before, kind)), standing(anyThingsOf(after, kind))]
    const others = now.filter((one) => {
      const was = old.find(({ id }) => id === one.id)
      return !was || !sameJson(was.facts, one.facts)
    })
    return others.length === 0 && old.length === now.length
      ? []
      : [
          {
            field: tableOf[kind],
            says: plural,
            before: String(old.length),
            after: `${now.length}${others.length ? `, ${others.length} new or changed` : ''}`,
            by: null,
            why: []
          }
        ]
  })
  return changes.length ? [{ kind: 'plan', id: 'plan', name: 'The drawn plan', is: 'changed', changes, why: [] }] : []
}

function outcomeChanges(was: readonly Finding[], is: readonly Finding[]): OutcomeChange[] {
  const key = ({ rule, subject }: Finding) => `${rule}\n${subject?.id ?? ''}`
  const old = new Map(was.map((one) => [key(one), one]))
  return is.flatMap((one): OutcomeChange[] => {
    const before = old.get(key(one))
    return before && before.outcome !== one.outcome
      ? [
          {
            rule: one.rule,
            name: one.name,
            subject: one.subject?.name ?? null,
            before: before.outcome,
            after: one.outcome,
            says: one.granted?.reason ?? one.evidence
          }
        ]
      : []
  })
}

function roomChanges(before: Revision, after: Revision): RoomChange[] {
  const figures = (verdict: RoomVerdict | undefined): RoomFigures | null => {
    const best = verdict?.bands[0]
    return best
      ? { dbm: best.measurement.facts.dbm ?? null, downMbps: best.down?.median ?? null, outcome: verdict.outcome }
      : null
  }
  const [old, now] = [before, after].map(({ record, catalogue, standard }) =>
    judgeRooms(record, catalogue, standard.policy)
  ) as [RoomVerdict[], RoomVerdict[]]
  const of = (rooms: RoomVerdict[], id: string) => rooms.find(({ room }) => room.id === id)
  return [...new Set([...now, ...old].map(({ room }) => room.id))].flatMap((id): RoomChange[] => {
    const [a, b] = [figures(of(old, id)), figures(of(now, id))]
    return sameJson(a, b)
      ? []
      : [{ name: (of(now, id) ?? of(old, id))!.room.facts.name ?? 'Room', before: a, after: b }]
  })
}
