import { forbidden, conflictingState } from '../problem'
import type { briefFacts } from '@pasado/core/record/brief'
import type { Draft } from '@pasado/core/record/entry'
import { kindOf, type EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import { entriesOf } from '@pasado/core/history/history'
import { conflictsOf } from '@pasado/core/history/conflicts'
import { isCarriedOver } from '@pasado/core/record/carry-over'
import {
  whyNotApprove,
  whyNotMoveStandard,
  whyNotSeal,
  whyNotSign,
  whyNotWaive,
  whyNotWrite
} from '@pasado/core/record/may'
import { hasHeld, type VisitRecord } from '@pasado/core/record/record'
import { allRules } from '@pasado/core/rules/all'
import { blocks } from '@pasado/core/rules/weigh'
import { laterFigures, type Standard } from '@pasado/core/policy/standard'
import { entriesAfter } from '../archive/archived'
import { leadsWorking } from '../db/people'
import type { OpenVisit } from './open-visit'
import type { VisitStates } from './states'

/** What the office writes: the booking. When, who, whom to call, why. */
const booking = new Set<string>([
  'customerName',
  'street',
  'town',
  'phone',
  'secondContact',
  'plannedAt',
  'reason',
  'language'
] satisfies (keyof typeof briefFacts.shape)[])
/** What a lead does without having recorded, answered or measured anything. */
const noRecording = new Set<EntryKind>([
  'visit.opened',
  'visit.handed',
  'visit.joined',
  'standard.moved',
  'review.asked',
  'review.returned',
  'review.approved',
  'waiver.granted',
  'waiver.withdrawn',
  'note.written',
  'secret.shown',
  'secrets.erased',
  'copies.erased',
  'pack.made',
  'conflict.settled',
  'rule.acknowledged',
  'sealed'
])

/** @throws DomainProblem where this person may not write these entries in this visit */
export async function mayWrite(
  states: VisitStates,
  open: OpenVisit,
  author: Author,
  drafts: readonly Draft[],
  now: Date
): Promise<void> {
  const { record } = open.state
  await mustBeGoneOnWith(states, open)
  let joins = false
  for (const draft of drafts) {
    if (author.role === 'office') officeMay(draft)
    joins ||= draft.kind === 'visit.joined'
    if (!joins) await mustWorkOn(states, open, author, draft.base, now)
    if (kindOf(draft.kind).by === 'lead' && author.role !== 'lead')
      throw forbidden('Only a lead grants or withdraws waivers and sends visits back.')
    if (draft.kind === 'stays.set' && author.role !== 'lead' && turnsUnit(record, draft.body.id))
      throw forbidden('Only a lead turns a unit of the visit into something that stays.')
    if (draft.kind === 'signature.given') maySign(record, author, draft)
    if (draft.kind === 'waiver.granted' || draft.kind === 'waiver.withdrawn')
      await mayWaive(states, open, author, draft.body.rule)
    if (draft.kind === 'review.approved') await mayApprove(states, open, author)
  }
}

/** Whether a line would make what is a unit of ours something that stays, of which nothing is asked. */
const turnsUnit = ({ units, stays = {} }: VisitRecord, id: string): boolean =>
  Object.hasOwn(units, id) && !Object.hasOwn(stays, id)

/**
 * @param base the last line that they had seen when they wrote; left out, they have seen all
 * @throws DomainProblem where this person does not work on the visit, and did not have it then
 */
export async function mustWorkOn(
  states: VisitStates,
  { state, connection }: OpenVisit,
  author: Author,
  base: number | undefined,
  now: Date
): Promise<void> {
  const { record, history } = state
  const { policy } = await states.standardOf(connection, record)
  const lateH = policy.lateH ?? laterFigures.lateH
  const why = whyNotWrite(record, () => entriesOf(history), base ?? record.lastSeq, author, now.toISOString(), lateH)
  if (why) throw forbidden(why, 'not-joined')
}

function officeMay(draft: Draft): void {
  if (draft.kind === 'note.written') return
  if (draft.kind !== 'brief.set' || !Object.keys(draft.body.set).every((field) => booking.has(field)))
    throw forbidden('The office writes the booking and notes, and reads the rest; ask the technician.')
}

/** A visit that was taken in is gone on with by a standard of ours only. */
async function mustBeGoneOnWith(states: VisitStates, open: OpenVisit): Promise<void> {
  const foreign = await states.foreignOf(open.connection, open.head.id)
  const { id, version } = open.state.record.visit.standard
  if (foreign?.standard?.id === id && foreign.standard.version === version)
    throw conflictingState(
      'foreign',
      'This visit came as a file with a standard that is not in force here; a lead moves it to ours first.'
    )
}

function maySign(record: VisitRecord, author: Author, { body }: Draft<'signature.given'>): void {
  const why = whyNotSign(record, author)
  if (why) throw forbidden(why)
  if (body.who === 'technician' && body.name !== author.name)
    throw forbidden(`You are logged in as ${author.name}: a technician signs with the name of the account.`)
}

async function mayWaive(states: VisitStates, open: OpenVisit, author: Author, rule: string): Promise<void> {
  const { record } = open.state
  const standard = await states.standardOf(open.connection, record)
  const why = whyNotWaive(record, isMust(standard, rule), standard.policy.fourEyes ?? false, author)
  if (why) throw forbidden(why)
}

function isMust(standard: Standard, rule: string): boolean {
  const level =
    standard.levels[rule] ??
    allRules.find(({ id }) => id === rule)?.level ??
    standard.own?.find(({ id }) => id === rule)?.level
  return level === 'must'
}

async function mayApprove(states: VisitStates, open: OpenVisit, author: Author): Promise<void> {
  const { record, history } = open.state
  const findings = await states.findingsOf(open.connection, open.head.id, open.state)
  const left = {
    mustsOpen: findings.filter((finding) => finding.level === 'must' && blocks(finding)).length,
    unsettled: conflictsOf(history).length
  }
  if (hasHeld(record, author.id)) throw forbidden(whyNotApprove(record, left, author)!)
  const lines = await entriesAfter(open.connection, open.head.id, 0)
  const recorded = lines.find(
    (line) => line.by.id === author.id && !noRecording.has(line.kind) && !isCarriedOver(line, lines[0])
  )
  if (recorded)
    throw forbidden(
      `You recorded something in this visit yourself (line ${recorded.seq}); ask another lead to approve it.`
    )
  if (Object.values(record.waivers).some(({ by }) => by.id === author.id)) {
    const { policy } = await states.standardOf(open.connection, record)
    const others = (await leadsWorking(open.connection)).filter((id) => id !== author.id && !hasHeld(record, id))
    if (policy.fourEyes && others.length > 0)
      throw forbidden('You waived something in this visit; another lead approves it.')
  }
  const why = whyNotApprove(record, left, author)
  if (why) throw conflictingState('not-ready', why)
}

/** @throws DomainProblem where this person may not seal this visit */
export function maySeal(record: VisitRecord, by: Author): void {
  const why = whyNotSeal(record, by)
  if (why) throw forbidden(why)
}

/** @throws DomainProblem where this person may not have the visit checked by another version */
export function mayMoveStandard(record: VisitRecord, version: number, reason: string | undefined, by: Author): void {
  const why = whyNotMoveStandard(record, version, by)
  if (why) throw forbidden(why)
  if (version < record.visit.standard.version && !reason)
    throw conflictingState('reason-wanted', 'Say why this visit is to be checked by an older version of the standard.')
}
