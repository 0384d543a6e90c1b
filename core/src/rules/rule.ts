import type { KnownUnit } from '../work/units/known-unit'
import { modelOf, type Catalogue } from '../catalogue/model'
import type { Folded } from '../history/fold'
import { linesSaying, type History } from '../history/history'
import { proofOf, whyStale } from '../history/proof'
import type { Rests } from '../history/stands'
import { answerKey } from '../record/keys'
import { Kept } from '../record/kept'
import type { ProvenBefore } from '../record/proven-before'
import type { ThingKind } from '../record/facts'
import {
  ruleKey,
  standing,
  unitName,
  type Host,
  type KitInVisit,
  type Network,
  type Pool,
  type Segment,
  type Unit,
  type VisitRecord
} from '../record/record'
import type { Stage } from '../record/stages'
import type { Figure } from '../values/figure'
import type { laterFigures, Level, Policy } from '../policy/standard'

/** What a rule says of a record, or of one thing in it. */
export type Outcome = 'holds' | 'breaks' | 'unproven' | 'waived' | 'not-here'

/** Where the mend of a finding is made: a stage, a thing and a field of it. */
export interface Place {
  stage: Stage
  kind: ThingKind | 'item' | 'choice' | 'answer' | 'lamp' | 'prompt' | 'secret' | 'pack' | 'custody'
  id: string
  field: string
}

/** What a rule is about, where it speaks of one thing. */
export interface Subject {
  id: string
  name: string
}

/** One verdict: the outcome, what was seen, and how to mend it. */
export interface Verdict {
  outcome: Exclude<Outcome, 'waived'>
  subject: Subject | null
  /** What was seen, in one sentence. */
  evidence: string
  /** What to do; empty where nothing is to be done. */
  remedy: string
  place: Place | null
  /** A rule about several things may speak of one at a lower level than its own. */
  level?: Level
  /** Which of the rule’s cases it is, with what it names; where it is left out, the evidence by its letters tells. */
  code?: string
  /** The figures it goes by: whoever let it pass let these pass, and better ones. */
  figures?: readonly Figure[]
  /** That it was proven once, and something changed since. */
  wasProven?: true
}

/** A fact of a unit that rules go by. */
export type Need = 'model' | 'role' | 'method' | 'firmwareAfter'

/** A rule of the standard: all that is known of it, and the small pure function that judges by it. */
export interface Rule {
  id: string
  /** What it is called where there is room for a few words only. */
  name: string
  stage: Stage
  level: Level
  /** Minutes that its remedy takes, about: this project's estimate. */
  minutes: number
  /** The rule in one sentence, as the standard words it. */
  statement: string
  /** Rules that have to hold of the same thing before this one can be proven. */
  after?: readonly Rule[]
  /** Rules that have to hold of everything here before this one can be proven. */
  afterAnywhere?: readonly Rule[]
  /** What has to be known of every unit before this can be said to hold of it, or not to be here. */
  needs?: readonly Need[]
  /** Whether it asks nothing of a unit that stood here before and was not touched in this visit. */
  sparesUntouched?: true
  /**
   * What it rests on that this held when the home was last left, where it is asked of what stood here before only if something changed;
   * null where something was found in this visit, or is said to be otherwise.
   * @param proof the number of the line that says it
   */
  restsOfBefore?: (home: Home, before: ProvenBefore, proof: number) => readonly Rests[] | null
  /** The figures of the standard that it goes by: what held by others is asked anew. */
  figuresOfBefore?: readonly (keyof typeof laterFigures)[]
  /** Answered by a person with one tap, where set: the question that is asked. */
  asks?: string
  judge: (home: Home) => Verdict[]
}

/** Defines a rule: one object holds everything about it, and the list of its stage names it. */
export function rule(definition: Rule): Rule {
  return definition
}

/** The record as rules read it: standing things in order, units with their models. */
export interface Home {
  record: VisitRecord
  history: History
  policy: Policy
  boxes: KitInVisit[]
  catalogue: Catalogue
  units: KnownUnit[]
  segments: Segment[]
  pools: Pool[]
  hosts: Host[]
  networks: Network[]
}

/** Prepares a folded logbook for judging. What a rule does not ask for is not looked at. */
export function homeOf({ record, history }: Folded, catalogue: Catalogue, policy: Policy): Home {
  const boxes = new Kept<Home, KitInVisit[]>()
  const units = new Kept<Home, KnownUnit[]>()
  const segments = new Kept<Home, Segment[]>()
  const pools = new Kept<Home, Pool[]>()
  const hosts = new Kept<Home, Host[]>()
  const networks = new Kept<Home, Network[]>()
  const home: Home = {
    record,
    history,
    policy,
    catalogue,
    get boxes() {
      return boxes.get(home, [], () => standing(record.boxes ?? {}))
    },
    get units() {
      return units.get(home, [], () =>
        standing(record.units).map((unit) => ({ unit, model: modelOf(unit, catalogue) ?? null, name: unitName(unit) }))
      )
    },
    get segments() {
      return segments.get(home, [], () => standing(record.segments))
    },
    get pools() {
      return pools.get(home, [], () => standing(record.pools))
    },
    // What was taken out has no address here.
    get hosts() {
      return hosts.get(home, [], () => standing(record.hosts).filter(({ facts }) => isHere(record, facts.unit)))
    },
    get networks() {
      return networks.get(home, [], () => standing(record.networks))
    }
  }
  return home
}

const isHere = ({ units }: VisitRecord, unit: string | undefined): boolean =>
  unit === undefined || units[unit]?.removedSeq === null

/** A verdict that something holds. */
export function holds(evidence: string, subject: Subject | null = null): Verdict {
  return { outcome: 'holds', subject, evidence, remedy: '', place: null }
}

/** A verdict that something breaks the rule. */
export function breaks(evidence: string, remedy: string, place: Place, subject: Subject | null = null): Verdict {
  return { outcome: 'breaks', subject, evidence, remedy, place }
}

/** A verdict that something is not proven yet. */
export function unproven(evidence: string, remedy: string, place: Place, subject: Subject | null = null): Verdict {
  return { outcome: 'unproven', subject, evidence, remedy, place }
}

/**
 * A verdict that goes by figures: whoever let it pass let the same case with these figures pass, and with better ones.
 * @param code which of the rule’s cases it is, with what it names
 * @param figures those that fall short; what does not is in none
 */
export const byFigures = (code: string, figures: readonly Figure[], verdict: Verdict): Verdict => ({
  ...verdict,
  code,
  figures
})

/** A verdict that something was proven once and is not any more: the evidence says what changed. */
export const noLonger = (verdict: Verdict): Verdict => ({ ...verdict, wasProven: true })

/** The subject of a verdict about a unit. */
export function aboutUnit({ unit, name }: KnownUnit): Subject {
  return { id: unit.id, name }
}

/** A place at a field of a unit. */
export function atUnit(stage: Stage, unit: Unit, field: string): Place {
  return { stage, kind: 'unit', id: unit.id, field }
}

/** A place at a field of the brief. */
export function atBrief(field: string): Place {
  return { stage: 'brief', kind: 'brief', id: 'brief', field }
}

/**
 * A rule that a person answers: holds on a yes that still tells how it is, breaks on no, unproven while nobody answered.
 * @param definition.unknown what is unproven where it is not recorded whether the rule applies
 */
export function askedRule({
  applies,
  unknown = () => null,
  rests = () => [],
  ...definition
}: Omit<Rule, 'judge'> & {
  asks: string
  applies: (home: Home) => boolean
  unknown?: (home: Home) => Verdict | null
  rests?: (home: Home) => readonly Rests[]
}): Rule {
  const { id, stage } = definition
  const place: Place = { stage, kind: 'answer', id, field: 'answer' }
  return {
    ...definition,
    judge: (home) => {
      const open = unknown(home)
      if (open) return [open]
      return applies(home) ? [judgeAnswer(home, id, place, null, rests(home))] : []
    }
  }
}

/** Why the *yes* to a rule no longer tells how it is, of what it rests on; null where it still does. */
export function staleAnswer(
  { history }: Home,
  rule: string,
  subject: string | null,
  rests: readonly Rests[] | ((line: number) => readonly Rests[])
): string | null {
  const said = linesSaying(history, answerKey(ruleKey(rule, subject)), 'yes')
  const proof = proofOf(history, said, ({ seq }) => (typeof rests === 'function' ? rests(seq) : rests))
  return proof && whyStale(proof)
}

/** Judges the answer to a person-answered rule for one subject or for the visit, by what it rests on. */
export function judgeAnswer(
  home: Home,
  rule: string,
  place: Place,
  subject: Subject | null,
  rests: readonly Rests[] = []
): Verdict {
  const given = home.record.answers[ruleKey(rule, subject?.id)]
  if (!given) return unproven('Nobody has answered this yet.', 'Look, ask or tell, then answer here.', place, subject)
  const words = `${given.by.name} answered ${given.answer}${given.note ? `: ${given.note}` : ''}.`
  const stale = given.answer === 'yes' ? staleAnswer(home, rule, subject?.id ?? null, rests) : null
  if (stale) return noLonger(unproven(stale, 'Look, ask or tell again, then answer once more.', place, subject))
  if (given.answer === 'yes') return holds(words, subject)
  return breaks(words, 'Put it right, then answer yes.', place, subject)
}
