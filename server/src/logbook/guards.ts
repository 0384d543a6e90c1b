import { modelKey } from '@pasado/core/catalogue/model'
import type { Problem } from '@pasado/core/calc/refusal'
import type { Author, Draft } from '@pasado/core/record/entry'
import { thingsOf, type VisitRecord } from '@pasado/core/record/record'
import { apply } from '@pasado/core/record/reduce'
import { allRules } from '@pasado/core/standard/evaluate'
import { forbidden, refused } from '../http/problem'

const leadsOnly = new Set<string>(['waiver.granted', 'waiver.withdrawn', 'review.returned', 'review.approved'])
const ruleIds = new Set(allRules.map(({ id }) => id))

/** @throws HttpProblem where this person may not write entries of this kind */
export function mayWrite(author: Author, draft: Draft): void {
  if (author.role === 'office') throw forbidden('The office reads logbooks but does not write in them; ask the technician.')
  if (leadsOnly.has(draft.kind) && author.role !== 'lead') throw forbidden('Only a lead grants or withdraws waivers and sends visits back.')
}

/**
 * Checks entries against the record they go on: things they speak of must be there.
 * @throws HttpProblem naming each entry and field
 */
export function mustFit(drafts: readonly Draft[], record: VisitRecord, author: Author, knowsModel: (key: string) => boolean): void {
  const problems: Problem[] = []
  let now = record
  drafts.forEach((draft, index) => {
    const say = (field: (string | number)[], message: string) => problems.push({ path: ['entries', index, 'body', ...field], message })
    if (draft.base > record.lastSeq) problems.push({ path: ['entries', index, 'base'], message: `is ${draft.base}, but the logbook ends at line ${record.lastSeq}` })
    checkFit(draft, now, knowsModel, say)
    now = apply(now, { ...draft, by: author, seq: now.lastSeq + 1, received: draft.at } as never)
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

function checkFit(draft: Draft, record: VisitRecord, knowsModel: (key: string) => boolean, say: (field: (string | number)[], message: string) => void): void {
  switch (draft.kind) {
    case 'box.set':
    case 'unit.set': {
      const [key] = modelsNamed([draft])
      if (key !== undefined && !knowsModel(key)) say(['set', 'model'], `no model ${key.replace('@', ' of version ')} is in the catalogue`)
      return
    }
    case 'lamp.seen':
    case 'unit.event':
    case 'prompt.answered':
      if (!record.units[draft.body.unit]) say(['unit'], 'no unit of this visit has this id')
      return
    case 'thing.removed':
    case 'thing.restored': {
      if (!(draft.body.id in thingsOf(record, draft.body.thing))) say(['id'], `no ${draft.body.thing} of this visit has this id`)
      return
    }
    case 'rule.answered':
    case 'rule.acknowledged':
    case 'waiver.granted':
      if (!(ruleIds.has(draft.body.rule) || draft.body.rule.startsWith('own-'))) say(['rule'], `the standard has no rule ${draft.body.rule}`)
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
    else if (value && typeof value === 'object') for (const [key, one] of Object.entries(value)) if (!onTheLabel.has(key)) walk(one, [...path, key])
  }
  if (looked.length) walk(body, [])
  return found
}

/**
 * Looks for secrets in what is to be written.
 * @throws HttpProblem naming the entry and field that holds one, never its value
 */
export function mustNotLeak(drafts: readonly Draft[], secrets: readonly string[]): void {
  const problems = drafts.flatMap((draft, index): Problem[] => leaksIn(draft.body, secrets).map((path) => ({
    path: ['entries', index, 'body', ...path], message: 'holds a secret of this visit; take it out: secrets belong in the vault only'
  })))
  if (problems.length) throw refused(problems)
}
