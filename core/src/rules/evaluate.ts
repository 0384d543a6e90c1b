import type { Catalogue } from '../catalogue/model'
import { nothingDone } from '../record/installs'
import { hasHeld } from '../record/record'
import type { Stage } from '../record/stages'
import type { Finding } from './finding'
import { Judging, rulesInForce, type JudgeOptions } from './judging'
import type { Outcome } from './rule'
import { conflictsOf } from '../history/conflicts'
import type { Folded } from '../history/fold'
import type { Level, Standard } from '../policy/standard'

export type { Finding } from './finding'
export type { JudgeOptions, OnFault } from './judging'

/**
 * Judges a logbook by a standard. A rule that fails on it is unproven and named: it never stops a visit.
 * @param catalogue holds the models, in the versions that the record's units name
 * @param options `onFault` is told where a rule failed; `now`, ISO, is what waivers until a day are held against
 * @returns one finding for each rule in force and subject, in the order of the rules; a rule with nothing to say is not here
 */
export function evaluate(
  folded: Folded,
  catalogue: Catalogue,
  standard: Standard,
  options: JudgeOptions = {}
): Finding[] {
  const judging = new Judging(folded, catalogue, standard, options)
  return rulesInForce(standard).flatMap((inForce) => judging.withGrants(inForce.rule, judging.findingsOf(inForce)))
}

/** Whether a finding stands between the visit and sign-off. */
export function blocks(finding: Finding): boolean {
  if (finding.outcome !== 'breaks' && finding.outcome !== 'unproven') return false
  return finding.level === 'must' || (finding.level === 'should' && finding.granted === null)
}

const weightOf: Record<Outcome, number> = { breaks: 0, unproven: 1, waived: 2, holds: 3, 'not-here': 4 }
const levelWeight: Record<Level, number> = { must: 0, should: 1, note: 2 }

/** Findings, heaviest first: what blocks before what does not, breaks before unproven, must before should; else in order. */
export function heaviestFirst(findings: readonly Finding[]): Finding[] {
  return findings
    .map((finding, index) => ({ finding, index }))
    .sort(
      (a, b) =>
        Number(blocks(b.finding)) - Number(blocks(a.finding)) ||
        weightOf[a.finding.outcome] - weightOf[b.finding.outcome] ||
        levelWeight[a.finding.level] - levelWeight[b.finding.level] ||
        a.index - b.index
    )
    .map(({ finding }) => finding)
}

/** How a stage stands as a whole: its heaviest outcome that counts for sign-off. */
export function stageOutcome(stage: Stage, findings: readonly Finding[]): Outcome {
  const here = findings.filter((finding) => finding.stage === stage && finding.outcome !== 'not-here')
  if (here.some((finding) => finding.outcome === 'breaks' && blocks(finding))) return 'breaks'
  if (here.some((finding) => finding.outcome === 'unproven' && blocks(finding))) return 'unproven'
  if (here.some((finding) => finding.outcome === 'waived')) return 'waived'
  return here.length ? 'holds' : 'not-here'
}

/** How many findings of each outcome there are. */
export function countOutcomes(findings: readonly Finding[]): Record<Outcome, number> {
  const counts: Record<Outcome, number> = { holds: 0, breaks: 0, unproven: 0, waived: 0, 'not-here': 0 }
  for (const { outcome } of findings) counts[outcome]++
  return counts
}

/**
 * What stands between a record and its seal, in words; empty where it can be sealed.
 * Signatures must be under the very record that is sealed.
 */
export function sealHindrances(
  { record, history }: Folded,
  findings: readonly Finding[],
  digest: string,
  fourEyes = false
): string[] {
  const unsettled = conflictsOf(history).length
  const hindrances: string[] = []
  if (record.visit.cancelled) hindrances.push('it is cancelled: reopen it first')
  const nothing = nothingDone(record)
  if (nothing) hindrances.push(nothing)
  const open = findings.filter(blocks)
  if (open.length)
    hindrances.push(
      `${open.length} ${open.length === 1 ? 'finding stands' : 'findings stand'} between this visit and sign-off`
    )
  if (unsettled) hindrances.push(`${unsettled} ${unsettled === 1 ? 'conflict is' : 'conflicts are'} not settled`)
  if (fourEyes) {
    const { review } = record
    if (review?.state !== 'approved' || hasHeld(record, review.by.id))
      hindrances.push('somebody else has to approve it: ask a lead to look')
    else if (review.digest !== digest)
      hindrances.push('the record changed after it was approved: ask a lead to look again')
  }
  for (const who of ['customer', 'technician'] as const) {
    const signature = record.signatures[who]
    if (!signature) hindrances.push(`the ${who} has not signed`)
    else if (signature.digest !== digest) hindrances.push(`the record changed after the ${who} signed: sign again`)
  }
  return hindrances
}
