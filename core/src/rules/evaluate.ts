import type { Catalogue } from '../catalogue/model'
import { nothingDone } from '../record/installs'
import { hasHeld, type VisitRecord } from '../record/record'
import type { Stage } from '../record/stages'
import type { Finding } from './finding'
import { withGrants } from './grants'
import { withNeeds } from './needs'
import { withoutWhatWasProven } from './proven-before'
import { withoutWhatStood } from './stood-before'
import { homeOf, type Home, type Outcome, type Rule, type Verdict } from './rule'
import { allRules } from './all'
import { firstRules } from './first-rules'
import { asRule } from './own-rules'
import { withoutSay } from './unsettled'
import { conflictsOf } from '../history/conflicts'
import { foldedSeen, type Folded, type History } from '../history/history'
import { byWordOf, unorderedOf, type Collecting } from './by-word'
import type { Level, Standard } from '../policy/standard'

export type { Finding } from './finding'

/** Told of a rule that could not judge a record. */
export type OnFault = (rule: string, error: unknown) => void

export interface JudgeOptions {
  onFault?: OnFault | undefined
  now?: string
}

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
  { onFault = () => undefined, now }: JudgeOptions = {}
): Finding[] {
  const { record } = folded
  const history: History = standard.policy.wordNeedsLead ? { ...folded.history, wordsNeedLead: true } : folded.history
  const judging: Collecting = { ...history, unordered: [], recordedSince: [] }
  const prepare = (other: VisitRecord) => homeOf({ history, record: other }, catalogue, standard.policy)
  const home = homeOf({ record, history: judging }, catalogue, standard.policy)
  const homesThen = new Map<number, Home>()
  const saidThen = (rule: Rule, line: number) => {
    let then = homesThen.get(line)
    if (!then) homesThen.set(line, (then = homeOf(foldedSeen(folded.history, line), catalogue, standard.policy)))
    return judged(rule, onFault, () => judgeBy(rule, then))
  }
  const known = new Set(standard.rules ?? firstRules)
  const own = (standard.own ?? []).map(asRule)
  return [...allRules, ...own].flatMap((rule) => {
    const level = standard.levels[rule.id] ?? rule.level
    if (level === 'off' || (!known.has(rule.id) && !own.includes(rule))) return []
    judging.unordered.length = 0
    judging.recordedSince.length = 0
    const verdicts = judged(rule, onFault, () => withoutSay({ record, history }, rule, judgeBy(rule, home), prepare))
    const byWord = byWordOf(verdicts, history, (other) =>
      judged(rule, onFault, () => judgeBy(rule, homeOf({ record, history: other }, catalogue, standard.policy)))
    )
    const common = {
      rule: rule.id,
      name: rule.name,
      stage: rule.stage,
      says: rule.statement,
      asks: rule.asks ?? null
    }
    if (verdicts.length === 0) {
      return [
        {
          ...common,
          level,
          outcome: 'not-here' as const,
          subject: null,
          evidence: 'Nothing of this kind is here.',
          mend: '',
          place: null,
          granted: null
        }
      ]
    }
    return verdicts.map((said) =>
      withGrants(findingOf(common, said, said.level ?? level, judging, byWord), folded, now, (line) =>
        saidThen(rule, line)
      )
    )
  })
}

type Common = Pick<Finding, 'rule' | 'name' | 'stage' | 'says' | 'asks'>

/** A verdict as a finding, under the names that findings had from the first: they are stored with records. */
function findingOf(
  { rule, name, stage, says, asks }: Common,
  said: Verdict,
  level: Level,
  judging: Collecting,
  byWord: ReturnType<typeof byWordOf>
): Finding {
  const { outcome, subject, evidence, remedy: mend, place, code, figures, wasProven } = said
  // Field by field: there are hundreds after every entry.
  const finding: Finding = {
    rule,
    name,
    stage,
    says,
    asks,
    level,
    outcome,
    subject,
    evidence,
    mend,
    place,
    granted: null
  }
  if (code !== undefined) finding.code = code
  if (figures !== undefined) finding.figures = figures
  if (wasProven) finding.wasProven = wasProven
  return Object.assign(finding, unorderedOf(said, judging), byWord(said))
}

const judgeBy = (rule: Rule, home: Home): Verdict[] =>
  withoutWhatWasProven(rule, home, withoutWhatStood(rule, home, withNeeds(rule, home, rule.judge(home))))

function judged(rule: Rule, onFault: OnFault, judge: () => Verdict[]): Verdict[] {
  try {
    return judge()
  } catch (error) {
    onFault(rule.id, error)
    return [
      {
        outcome: 'unproven',
        subject: null,
        evidence: 'This rule could not judge the record: something in it is not as it expects.',
        remedy: 'Look at what was entered last at this stage; then tell the lead.',
        place: { stage: rule.stage, kind: 'answer', id: rule.id, field: 'answer' }
      }
    ]
  }
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
