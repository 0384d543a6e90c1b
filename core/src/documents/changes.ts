import type { ThingKind } from '../record/facts'
import { anyThingsOf, standing, unitName, type AnyThing, type Unit, type VisitRecord } from '../record/record'
import { storedKinds, things, type StoredKind } from '../record/things/all'
import { evaluate, type Finding } from '../rules/evaluate'
import { textOf } from '../values/plain'
import { causes } from '../work/diagnose/causes'
import type { Changes, Revision, ThingChanges } from './change'
import { fieldChanges, passphraseChange, unitExtras } from './field-changes'
import { thingName } from './field-words'
import { choiceChanges, outcomeChanges, planChanges, roomChanges } from './other-changes'

/** Where a kind is told among those that are compared field by field; null where it is not compared so. */
const rankOf = (kind: StoredKind): number | null => {
  const { compared } = things[kind]
  return typeof compared === 'object' && 'byField' in compared ? compared.byField : null
}
/** Kinds that are compared field by field, in the order they are shown. */
const byField = storedKinds.filter((kind) => rankOf(kind) !== null).sort((a, b) => rankOf(a)! - rankOf(b)!)
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
    .map((thing) => ({
      ...thing,
      changes: thing.is === 'changed' ? thing.changes.filter(({ before }) => before !== null) : []
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
    .map((thing) =>
      anew.has(thing.kind) ? { ...thing, changes: thing.changes.filter(({ after }) => after !== null) } : thing
    )
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

const judged = (revision: Revision): Finding[] =>
  revision.record.lastSeq === 0 ? [] : evaluate(revision, revision.catalogue, revision.standard)

function thingsOfKind(kind: StoredKind, before: Revision, after: Revision, mended: readonly Finding[]): ThingChanges[] {
  const [old, now] = [standing(anyThingsOf(before.record, kind)), standing(anyThingsOf(after.record, kind))]
  const left = new Map(old.map((thing) => [thing.id, thing]))
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
