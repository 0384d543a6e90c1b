import { modelKey } from '@pasado/core/catalogue/model'
import type { Problem } from '@pasado/core/values/problem'
import type { Draft } from '@pasado/core/record/entry'
import type { Author } from '@pasado/core/record/attribution'
import { thingsOf, type tableOf, type VisitRecord } from '@pasado/core/record/record'
import { apply } from '@pasado/core/record/reduce'
import { allRules } from '@pasado/core/rules/all'
import { refused } from '../http/problem'
import { withLine, type VisitState } from './states'

const ruleIds = new Set(allRules.map(({ id }) => id))

/**
 * Checks entries against the record they go on: things they speak of must be there.
 * @throws HttpProblem naming each entry and field
 */
export function mustFit(
  drafts: readonly Draft[],
  { record, lines: before }: Pick<VisitState, 'record' | 'lines'>,
  author: Author,
  knowsModel: (key: string) => boolean
): void {
  const problems: Problem[] = []
  let now = record
  let lines = before
  // What a request sets itself may be spoken of in the same request, in whatever order.
  const coming = new Set(
    drafts.flatMap((draft) =>
      /\.set$/.test(draft.kind) && 'id' in draft.body ? [`${draft.kind.slice(0, -4)} ${draft.body.id}`] : []
    )
  )
  const isThere = (kind: keyof typeof tableOf, id: string) =>
    Object.hasOwn(thingsOf(now, kind), id) || coming.has(`${kind} ${id}`)
  drafts.forEach((draft, index) => {
    const say = (field: (string | number)[], message: string) =>
      problems.push({ path: ['entries', index, 'body', ...field], message })
    if (draft.base > record.lastSeq)
      problems.push({
        path: ['entries', index, 'base'],
        message: `is ${draft.base}, but the logbook ends at line ${record.lastSeq}`
      })
    if ((draft.own ?? 0) > (lines[draft.from] ?? 0))
      problems.push({
        path: ['entries', index, 'own'],
        message: `is ${draft.own}, but this outbox has ${lines[draft.from] ?? 0} lines before it`
      })
    lines = withLine(lines, draft.from)
    checkReferences(draft, isThere, say)
    checkFit(draft, now, knowsModel, say)
    now = apply(now, { ...draft, by: author, seq: now.lastSeq + 1, received: draft.at })
  })
  if (problems.length) throw refused(problems)
}

/** The models that drafts name, as `id@version`. */
export function modelsNamed(drafts: readonly Draft[]): string[] {
  return drafts.flatMap((draft) => {
    if (draft.kind !== 'box.set' && draft.kind !== 'unit.set') return []
    const { model, modelVersion } = draft.body.set as { model?: string | null; modelVersion?: number | null }
    return model ? [modelKey(model, modelVersion ?? 1)] : []
  })
}

/** Fields of things that name another thing of the visit. */
const referring: Record<string, keyof typeof tableOf> = {
  box: 'box',
  storey: 'storey',
  segment: 'segment',
  unit: 'unit',
  room: 'room',
  cableTo: 'outlet',
  extender: 'unit',
  behind: 'segment'
}

type IsThere = (kind: keyof typeof tableOf, id: string) => boolean
type Say = (field: (string | number)[], message: string) => void

/** A thing that names another one that is not there would be judged on nothing. */
function checkReferences(draft: Draft, isThere: IsThere, say: Say): void {
  if (!/\.set$/.test(draft.kind) || !('set' in draft.body)) return
  for (const [field, value] of Object.entries(draft.body.set as Record<string, unknown>)) {
    const kind = Object.hasOwn(referring, field) ? referring[field] : undefined
    if (kind && typeof value === 'string' && !isThere(kind, value))
      say(['set', field], `names a ${kind} that this visit does not have`)
    const end = value as { thing?: unknown; id?: unknown } | null
    if (
      draft.kind === 'cable.set' &&
      end &&
      typeof end === 'object' &&
      typeof end.id === 'string' &&
      !isThere(end.thing as 'unit', end.id)
    )
      say(['set', field], `leads to a ${String(end.thing)} that this visit does not have`)
  }
}

function checkFit(draft: Draft, record: VisitRecord, knowsModel: (key: string) => boolean, say: Say): void {
  switch (draft.kind) {
    case 'box.set':
    case 'unit.set': {
      const [key] = modelsNamed([draft])
      if (key !== undefined && !knowsModel(key))
        say(['set', 'model'], `no model ${key.replace('@', ' of version ')} is in the catalogue`)
      return
    }
    case 'lamp.seen':
    case 'unit.event':
    case 'method.step':
    case 'button.pressed':
    case 'unit.read':
    case 'prompt.answered':
      if (!record.units[draft.body.unit]) say(['unit'], 'no unit of this visit has this id')
      return
    case 'path.seen':
      if (!record.units[draft.body.unit]) say(['unit'], 'no unit of this visit has this id')
      if (draft.body.server !== undefined && !record.units[draft.body.server])
        say(['server'], 'no unit of this visit has this id')
      if (draft.body.network !== undefined && !record.networks[draft.body.network])
        say(['network'], 'no network of this visit has this id')
      return
    case 'pairing.pressed':
      if (!record.units[draft.body.unit]) say(['unit'], 'no unit of this visit has this id')
      if (!record.units[draft.body.on]) say(['on'], 'no unit of this visit has this id')
      return
    case 'check.cancelled':
      if (!record.checks?.[draft.body.id]) say(['id'], 'no check of this visit has this id')
      return
    case 'fault.observed':
    case 'fault.found':
      if (!record.searches?.[draft.body.search]) say(['search'], 'no search of this visit has this id')
      return
    case 'thing.removed':
    case 'thing.restored': {
      if (!Object.hasOwn(thingsOf(record, draft.body.thing), draft.body.id))
        say(['id'], `no ${draft.body.thing} of this visit has this id`)
      return
    }
    case 'rule.answered':
    case 'rule.acknowledged':
    case 'waiver.granted':
      if (!(ruleIds.has(draft.body.rule) || draft.body.rule.startsWith('own-')))
        say(['rule'], `the standard has no rule ${draft.body.rule}`)
      // By the author's own day: one that has passed would be a waiver of nothing.
      if (draft.kind === 'waiver.granted' && draft.body.until !== undefined && draft.body.until < draft.at.slice(0, 10))
        say(['until'], 'is a day that has passed; choose the day of today or a later one')
      return
    case 'items.checked':
      if (!record.boxes?.[draft.body.box]) say(['box'], 'no box of this visit has this id')
      return
    case 'unit.transferred':
      if (!record.units[draft.body.unit]) say(['unit'], 'no unit of this visit has this id')
      else if (draft.body.from === record.visit.home) say(['from'], 'is this very home; a unit is brought from another')
      return
    case 'photo.captioned':
    case 'photo.removed':
    case 'photo.restored':
      if (!record.photos?.[draft.body.ref]) say(['ref'], 'no photo of this visit has this reference')
      return
    case 'wait.ended':
      if (!record.waits[draft.body.id]) say(['id'], 'no wait of this visit has this id')
      return
    case 'pack.given':
      if (!record.pack.madeDigest) say(['how'], 'the pack has not been made yet; make it first')
      return
    default:
  }
}

/** Shorter values are found by chance in ordinary text, so only these are looked for. */
const SHORTEST_LOOKED_FOR = 6

/** What stands on a unit's label in the open: some makers print a serial or MAC address as the key as well. */
const onTheLabel = new Set(['serial', 'mac', 'defaultSsid'])

/** Where texts of an entry's body hold a secret, by their paths. */
export function leaksIn(body: unknown, secrets: readonly string[]): (string | number)[][] {
  const looked = secrets.filter((secret) => secret.length >= SHORTEST_LOOKED_FOR)
  const found: (string | number)[][] = []
  const walk = (value: unknown, path: (string | number)[]) => {
    if (typeof value === 'string') {
      if (looked.some((secret) => value.includes(secret))) found.push(path)
    } else if (Array.isArray(value)) value.forEach((one, index) => walk(one, [...path, index]))
    else if (value && typeof value === 'object')
      for (const [key, one] of Object.entries(value)) if (!onTheLabel.has(key)) walk(one, [...path, key])
  }
  if (looked.length) walk(body, [])
  return found
}

/**
 * Looks for secrets in what is to be written.
 * @throws HttpProblem naming the entry and field that holds one, never its value
 */
export function mustNotLeak(drafts: readonly Draft[], secrets: readonly string[]): void {
  const problems = drafts.flatMap((draft, index): Problem[] =>
    leaksIn(draft.body, secrets).map((path) => ({
      path: ['entries', index, 'body', ...path],
      message: 'holds a secret of this visit; take it out: secrets belong in the vault only'
    }))
  )
  if (problems.length) throw refused(problems)
}
