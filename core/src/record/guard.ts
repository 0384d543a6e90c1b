import type { Problem } from '../values/problem'
import type { Author } from './attribution'
import { kindOf } from './entries/all'
import { equipmentOf } from './equipment'
import type { Circumstances, Referent } from './entries/kind'
import { modelNamed } from './entries/things'
import type { Draft } from './entry'
import { thingsOf, type VisitRecord } from './record'
import { apply } from './reduce'
import { storedKinds, things, type StoredKind } from './things/all'

/** What is known beside the visit. */
export interface Known {
  /** Whether the catalogue holds a model, by `id@version`. */
  model: (key: string) => boolean
  /** Whether a rule is one of ours or of the company's own. */
  rule: (id: string) => boolean
}

/** The models that drafts name, as `id@version`. */
export function modelsNamed(drafts: readonly Draft[]): string[] {
  return drafts.flatMap(({ body }) => ('set' in body ? (modelNamed(body.set as Record<string, unknown>) ?? []) : []))
}

type Path = (string | number)[]

/**
 * What stands against entries that go on a record, one after another: what they refer to must be there.
 * @returns problems by the entry and field, empty where all of them fit
 */
export function draftProblems(
  drafts: readonly Draft[],
  before: { record: VisitRecord; /** How many lines each outbox has. */ outboxes: ReadonlyMap<string, number> },
  author: Author,
  known: Known
): Problem[] {
  const problems: Problem[] = []
  let { record } = before
  const outboxes = new Map(before.outboxes)
  // What a request sets itself may be named by another thing of the same request, in whatever order.
  const coming = new Set(drafts.flatMap((draft) => thingSet(draft) ?? []))
  drafts.forEach((draft, index) => {
    const say = (path: Path, message: string) => problems.push({ path: ['entries', index, ...path], message })
    if (draft.base > before.record.lastSeq)
      say(['base'], `is ${draft.base}, but the logbook ends at line ${before.record.lastSeq}`)
    const had = outboxes.get(draft.from) ?? 0
    if ((draft.own ?? 0) > had) say(['own'], `is ${draft.own}, but this outbox has ${had} lines before it`)
    outboxes.set(draft.from, had + 1)
    const here = { record, at: draft.at, knowsModel: known.model }
    for (const { field, message } of fieldProblems(draft, here, known, coming)) say(['body', ...field], message)
    record = apply(record, { ...draft, by: author, seq: record.lastSeq + 1, received: draft.at })
  })
  return problems
}

function thingSet({ kind, body }: Draft): string | null {
  return kind.endsWith('.set') && 'id' in body ? `${kind.slice(0, -4)} ${body.id}` : null
}

function fieldProblems(
  draft: Draft,
  here: Circumstances,
  known: Known,
  coming: ReadonlySet<string>
): { field: Path; message: string }[] {
  const definition = kindOf(draft.kind)
  const found: { field: Path; message: string }[] = []
  for (const [path, referent] of Object.entries(definition.refersTo)) {
    const field = path.split('.')
    const id = valueAt(draft.body, field)
    const what = typeof referent === 'function' ? referent(draft.body) : referent
    if (typeof id !== 'string' || what === null || isThere(here.record, what, id, known)) continue
    found.push({ field, message: missing(what, id) })
  }
  const own = found.length === 0 ? definition.problem?.(draft.body, here) : null
  return [...found, ...referenceProblems(draft, here.record, coming), ...(own ? [own] : [])]
}

function valueAt(body: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((at, name) => (at as Record<string, unknown> | undefined)?.[name], body)
}

function missing(what: Referent, id: string): string {
  if (what === 'rule') return `the standard has no rule ${id}`
  if (what === 'subject') return 'nothing of this visit has this id'
  if (what === 'equipment') return 'no unit of this visit has this id, and nothing that stays'
  return `no ${what} of this visit has this ${what === 'photo' || what === 'secret' ? 'reference' : 'id'}`
}

const tablesBeside = { photo: 'photos', check: 'checks', search: 'searches', wait: 'waits', secret: 'secrets' } as const
const uuid = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

function isThere(record: VisitRecord, what: Referent, id: string, known: Known): boolean {
  if (what === 'rule') return known.rule(id)
  // A rule may speak of something that is no thing, such as one of two calls.
  if (what === 'subject') return !uuid.test(id) || storedKinds.some((kind) => Object.hasOwn(thingsOf(record, kind), id))
  if (what === 'equipment') return equipmentOf(record, id) !== null
  if (what in tablesBeside) return Object.hasOwn(record[tablesBeside[what as keyof typeof tablesBeside]] ?? {}, id)
  return Object.hasOwn(thingsOf(record, what as StoredKind), id)
}

/** A thing that names another one that is not there would be judged on nothing. */
function referenceProblems(
  { kind, body }: Draft,
  record: VisitRecord,
  coming: ReadonlySet<string>
): { field: Path; message: string }[] {
  const of = kind.slice(0, -4) as StoredKind
  if (!kind.endsWith('.set') || !Object.hasOwn(things, of) || !('set' in body)) return []
  const named: Readonly<Record<string, string | undefined>> = things[of].refersTo
  const isHere = (kind: string, id: string): boolean =>
    kind === 'equipment'
      ? isHere('unit', id) || isHere('stays', id)
      : Object.hasOwn(thingsOf(record, kind as StoredKind), id) || coming.has(`${kind} ${id}`)
  return Object.entries(body.set as Record<string, unknown>).flatMap(([field, value]) => {
    const referent = named[field]
    if (referent === undefined || value === null) return []
    if (referent === 'end') {
      const { thing, id } = value as { thing: string; id: string }
      return isHere(thing, id)
        ? []
        : [{ field: ['set', field], message: `leads to a ${thing} that this visit does not have` }]
    }
    return isHere(referent, value as string)
      ? []
      : [
          {
            field: ['set', field],
            message: `names a ${referent === 'equipment' ? 'unit' : referent} that this visit does not have`
          }
        ]
  })
}
