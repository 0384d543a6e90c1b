import { conflictsOf, type Unsettled } from '../history/conflicts'
import type { Folded } from '../history/fold'
import { isSame } from '../history/history'
import { equipmentOf } from '../record/equipment'
import type { VisitRecord } from '../record/record'
import { tableOf, isStored } from '../record/record'
import { isPresence } from '../record/keys'
import { textOf, wordsOf } from '../values/plain'
import { unproven, type Home, type Place, type Rule, type Subject, type Verdict } from './rule'

/** Prepares a record for judging, as `homeOf` does. */
type Prepare = (record: VisitRecord) => Home

/**
 * What a rule says where values stand unsettled: whatever it says of what they are of, and whatever it would say otherwise by another of
 * them, is unproven. Which of them the record holds meanwhile has no say.
 */
export function withoutSay({ record, history }: Folded, rule: Rule, verdicts: Verdict[], prepare: Prepare): Verdict[] {
  let said = verdicts
  for (const conflict of conflictsOf(history)) {
    let isRead = false
    const alternatives = conflict.values.map(({ value }) =>
      rule.judge(prepare(recordWith(record, conflict, value, () => (isRead = true))))
    )
    if (isRead || alternatives.some((other) => !isAlike(other, alternatives[0]!)))
      said = openedBy(rule, record, conflict, said, alternatives)
  }
  return said
}

function openedBy(
  rule: Rule,
  record: VisitRecord,
  conflict: Unsettled,
  verdicts: readonly Verdict[],
  alternatives: readonly Verdict[][]
): Verdict[] {
  const about = subjectOf(conflict)
  const open = (subject: Subject | null) => unsettledVerdict(rule, record, conflict, subject)
  const judged = verdicts.map((verdict) => {
    const isOfIt = verdict.subject === null || verdict.subject.id === about
    const differs = alternatives.some(
      (other) => !isAlike(ofSubject(other, verdict), ofSubject(alternatives[0]!, verdict))
    )
    return isOfIt || differs ? open(verdict.subject) : verdict
  })
  const missed = alternatives
    .flat()
    .filter(({ subject }) => !verdicts.some((verdict) => verdict.subject?.id === subject?.id))
  const subjects = new Map(missed.map(({ subject }) => [subject?.id, subject]))
  return [...judged, ...[...subjects.values()].map(open)]
}

const ofSubject = (verdicts: readonly Verdict[], { subject }: Verdict): Verdict[] =>
  verdicts.filter((verdict) => verdict.subject?.id === subject?.id)

function isAlike(a: readonly Verdict[], b: readonly Verdict[]): boolean {
  return (
    a.length === b.length &&
    a.every(({ outcome, subject }, index) => outcome === b[index]!.outcome && subject?.id === b[index]!.subject?.id)
  )
}

/** The thing that a conflict is of, as verdicts name it; null where it is of the visit. */
function subjectOf({ kind, id }: Unsettled): string | null {
  if (kind === 'answer') return id.split('/')[1] ?? null
  return kind === 'choice' || kind === 'custody' || kind === 'brief' ? null : id
}

function unsettledVerdict(rule: Rule, record: VisitRecord, conflict: Unsettled, subject: Subject | null): Verdict {
  const people = [...new Set(conflict.values.map(({ by }) => by.name))]
  const values =
    conflict.kind === 'secret' ? 'different secrets' : conflict.values.map(({ value }) => inWords(value)).join(' and ')
  const equipment = conflict.kind === 'unit' || conflict.kind === 'stays' ? equipmentOf(record, conflict.id) : null
  const of = equipment ? ` of ${equipment.name}` : ''
  return unproven(
    `${people.join(' and ')} set ${wordsOf(conflict.field)}${of} without having seen each other: ${values}.`,
    'Settle which is right: it stands in the docket.',
    placeOf(rule, conflict),
    subject
  )
}

function inWords(value: unknown): string {
  if (value === null || value === undefined) return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return textOf(value)
}

function placeOf({ id, stage }: Rule, { kind, id: of, field }: Unsettled): Place {
  return kind === 'brief' || isStored(kind)
    ? { stage, kind, id: of, field }
    : { stage, kind: 'answer', id, field: 'answer' }
}

/** A record in which a key has one of the values that stand against each other; `onRead` is told when a rule reads it. */
function recordWith(record: VisitRecord, conflict: Unsettled, value: unknown, onRead: () => void): VisitRecord {
  const { kind, id, field } = conflict
  const read = (over: unknown) => () => {
    onRead()
    return over
  }
  if (kind === 'brief')
    return { ...record, brief: { ...record.brief, facts: getting(record.brief.facts, field, read(value)) } }
  if (isStored(kind)) {
    const table = record[tableOf[kind]]!
    const held = table[id]!
    const changed = isPresence(conflict)
      ? { ...held, removedSeq: value === false ? (held.removedSeq ?? record.lastSeq) : null }
      : { ...held, facts: getting(held.facts, field, read(value)) }
    return { ...record, [tableOf[kind]]: { ...table, [id]: changed } }
  }
  if (kind === 'answer')
    return {
      ...record,
      answers: getting(record.answers, id, read({ ...record.answers[id]!, answer: value as string }))
    }
  if (kind === 'choice') {
    const choice = id as keyof VisitRecord['choices']
    return {
      ...record,
      choices: getting(record.choices, choice, read({ ...record.choices[choice]!, answer: value as string }))
    }
  }
  if (kind === 'custody')
    return Object.defineProperty({ ...record }, 'custody', {
      enumerable: true,
      get: read({ ...record.custody!, ...(value as object) })
    })
  if (kind === 'prompt') {
    const unit = record.units[id]!
    const prompts = getting(unit.prompts, field, read({ ...unit.prompts[field]!, answer: value as 'yes' | 'no' }))
    return { ...record, units: { ...record.units, [id]: { ...unit, prompts } } }
  }
  if (kind === 'item') {
    const box = record.boxes![id]!
    const items = getting(
      box.items,
      field,
      read(value === null ? undefined : { ...box.items[field], ...(value as object) })
    )
    return { ...record, boxes: { ...record.boxes, [id]: { ...box, items } } }
  }
  const secrets = Object.entries(record.secrets).flatMap(([ref, secret]) => {
    if (secret.id !== id || secret.purpose !== field) return [[ref, secret] as const]
    const isOfValue = isSame(secret.assessed.print, value)
    return isOfValue ? [[ref, getting(secret, 'assessed', read(secret.assessed))] as const] : []
  })
  return { ...record, secrets: Object.fromEntries(secrets) }
}

/** An object with one of its fields read through a function; undefined is none. */
function getting<T extends object>(fields: T, field: string, get: () => unknown): T {
  return Object.defineProperty({ ...fields }, field, {
    enumerable: true,
    configurable: true,
    get: () => get() ?? undefined
  })
}
