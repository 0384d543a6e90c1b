import type { Level } from '../policy/standard'
import type { Stage } from '../record/stages'
import type { Finding } from './finding'
import type { Outcome } from './rule'

/** Whether a finding stands between the visit and sign-off. */
export function blocks(finding: Finding): boolean {
  if (finding.outcome !== 'breaks' && finding.outcome !== 'unproven') return false
  return finding.level === 'must' || (finding.level === 'should' && finding.granted === null)
}

const weightOf: Record<Outcome, number> = { breaks: 0, unproven: 1, waived: 2, holds: 3, 'not-here': 4 }
const levelWeight: Record<Level, number> = { must: 0, should: 1, note: 2 }

/** How heavy a finding is, the heaviest the least: breaks before unproven, must before should. */
export const weightOfFinding = ({ outcome, level }: Pick<Finding, 'outcome' | 'level'>): number =>
  weightOf[outcome] * Object.keys(levelWeight).length + levelWeight[level]

/** Findings, heaviest first: what blocks before what does not, breaks before unproven, must before should; else in order. */
export function heaviestFirst(findings: readonly Finding[]): Finding[] {
  return findings
    .map((finding, index) => ({ finding, index }))
    .sort(
      (a, b) =>
        Number(blocks(b.finding)) - Number(blocks(a.finding)) ||
        weightOfFinding(a.finding) - weightOfFinding(b.finding) ||
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
