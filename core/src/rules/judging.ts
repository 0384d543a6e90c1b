import type { Catalogue } from '../catalogue/model'
import { foldedSeen, type Folded } from '../history/fold'
import type { History } from '../history/history'
import { noteAll } from '../record/read-through'
import type { VisitRecord } from '../record/record'
import type { Level, Standard } from '../policy/standard'
import { allRules } from './all'
import { byWordOf, unorderedOf, type Collecting } from './by-word'
import type { Finding } from './finding'
import { firstRules } from './first-rules'
import { withGrants, type SaidThen } from './grants'
import { withNeeds } from './needs'
import { asRule } from './own-rules'
import { withoutWhatWasProven } from './proven-before'
import { homeOf, type Home, type Rule, type Verdict } from './rule'
import { withoutWhatStood } from './stood-before'
import { withoutSay } from './unsettled'

/** Told of a rule that could not judge a record. */
export type OnFault = (rule: string, error: unknown) => void

export interface JudgeOptions {
  onFault?: OnFault | undefined
  /** ISO; what waivers until a day are held against. */
  now?: string
}

/** A logbook that rules are asked of, one after another. */
export class Judging {
  readonly #history: History
  readonly #collecting: Collecting
  readonly #home: Home
  readonly #homesThen = new Map<number, Home>()

  /** @param through the same logbook, as rules are to look at it */
  constructor(
    private readonly folded: Folded,
    private readonly catalogue: Catalogue,
    private readonly standard: Standard,
    private readonly options: JudgeOptions,
    through: Folded = folded
  ) {
    const { policy } = standard
    const asPolicy = (history: History): History =>
      policy.wordNeedsLead ? { ...history, wordsNeedLead: true } : history
    this.#history = asPolicy(folded.history)
    this.#collecting = { ...asPolicy(through.history), unordered: [], recordedSince: [] }
    this.#home = homeOf({ record: through.record, history: this.#collecting }, catalogue, policy)
  }

  /** What a rule says, without what was let pass: one finding for each thing it speaks of. */
  findingsOf({ rule, level }: InForce): Finding[] {
    const { record } = this.folded
    const history = this.#history
    this.#collecting.unordered.length = 0
    this.#collecting.recordedSince.length = 0
    const prepare = (other: VisitRecord) => this.#homeOf({ history, record: other })
    const verdicts = this.#judged(rule, () => withoutSay({ record, history }, rule, judgeBy(rule, this.#home), prepare))
    const byWord = byWordOf(verdicts, history, (other) =>
      this.#judged(rule, () => judgeBy(rule, this.#homeOf({ record, history: other })))
    )
    const said = verdicts.length > 0 ? verdicts : [nothingHere]
    return said.map((verdict) => findingOf(rule, verdict, verdict.level ?? level, this.#collecting, byWord))
  }

  /** Findings of a rule with what was let pass. */
  withGrants(rule: Rule, findings: readonly Finding[]): Finding[] {
    const saidThen: SaidThen = (line) => this.#judged(rule, () => judgeBy(rule, this.#homeThen(line)))
    return findings.map((finding) => withGrants(finding, this.folded, this.options.now, saidThen))
  }

  #homeThen(line: number): Home {
    let then = this.#homesThen.get(line)
    if (!then) this.#homesThen.set(line, (then = this.#homeOf(foldedSeen(this.folded.history, line))))
    return then
  }

  #homeOf(folded: Folded): Home {
    return homeOf(folded, this.catalogue, this.standard.policy)
  }

  /** What a rule says; one that fails is unproven, and asked again whatever changes. */
  #judged(rule: Rule, judge: () => Verdict[]): Verdict[] {
    try {
      return judge()
    } catch (error) {
      noteAll()
      this.options.onFault?.(rule.id, error)
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
}

/** What a rule says where nothing of its kind is here. */
const nothingHere: Verdict = {
  outcome: 'not-here',
  subject: null,
  evidence: 'Nothing of this kind is here.',
  remedy: '',
  place: null
}

/** A rule that a standard has in force, and how heavy it is there. */
export interface InForce {
  rule: Rule
  level: Level
}

/** The rules of a standard, its own after the program's. */
export function rulesInForce(standard: Standard): InForce[] {
  const known = new Set(standard.rules ?? firstRules)
  const own = (standard.own ?? []).map(asRule)
  return [...allRules.filter(({ id }) => known.has(id)), ...own].flatMap((rule) => {
    const level = standard.levels[rule.id] ?? rule.level
    return level === 'off' ? [] : [{ rule, level }]
  })
}

/** A verdict as a finding, under the names that findings had from the first: they are stored with records. */
function findingOf(
  { id, name, stage, statement, asks }: Rule,
  said: Verdict,
  level: Level,
  collecting: Collecting,
  byWord: ReturnType<typeof byWordOf>
): Finding {
  const { outcome, subject, evidence, remedy: mend, place, code, figures, wasProven } = said
  // Field by field: there are hundreds after every entry.
  const finding: Finding = {
    rule: id,
    name,
    stage,
    says: statement,
    asks: asks ?? null,
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
  return Object.assign(finding, unorderedOf(said, collecting), byWord(said))
}

const judgeBy = (rule: Rule, home: Home): Verdict[] =>
  withoutWhatWasProven(rule, home, withoutWhatStood(rule, home, withNeeds(rule, home, rule.judge(home))))
