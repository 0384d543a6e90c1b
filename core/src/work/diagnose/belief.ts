import { causes, type Cause, type CauseId } from './causes'
import { chancesUnder, hypothesesOf, isKnown, type Hypothesis, type Rates } from './hypotheses'
import { mendedId, observations, observationOf, type Observation, type ObservationId } from './observations'

/** What was observed so far: the answer of each observation; an answer given anew stands in the place of the one before. */
export type Observed = Partial<Record<string, string>>

/** A cause with how likely it is that it is there now. */
export interface Likely {
  cause: Cause & { id: CauseId }
  /** That it is there, by itself or with another: these need not sum to one. */
  probability: number
}

/** The same, with what it rests on. */
export interface Suspect extends Likely {
  /** What moved it, heaviest first: bits for it where above 0, against it where below. */
  because: { observation: Observation; answer: string; bits: number }[]
}

/** How a search stands: the causes that there can be, likeliest first. */
export interface Belief {
  suspects: Suspect[]
  /** Answers that hardly any cause explains beside the others: they are weighed as they are, and shown. */
  odd: { observation: Observation; answer: string; expected: number }[]
}

/** A home as a search knows it. */
export interface SearchedHome {
  /** The looks that there are at this home; all, where not given. */
  offered?: ReadonlySet<string>
  /** How often the company met each cause; the table's estimate, where not given. */
  rates?: Rates
}

/** Looks that are of one cause only: where a home has none of them, the cause cannot be there. */
export const looksOf: Partial<Record<CauseId, readonly ObservationId[]>> = {
  'bad-unit-cable': ['unit-link', 'swap-unit-cable'],
  'bad-wan-cable': ['wan-link', 'swap-wan-cable'],
  'backhaul-weak': ['hop-signal'],
  'pairing-missed': ['pairing-time'],
  'family-mismatch': ['family'],
  'nat-clash': ['wan-address'],
  'powerline-weak': ['powerline-rate'],
  'repeater-half': ['shared-radio']
}

/** Whether a cause can be there at all: one of its own looks is offered, or was answered. */
export const canBe = (cause: CauseId, observed: Observed, offered?: ReadonlySet<string>): boolean =>
  offered === undefined ||
  (looksOf[cause] ?? []).length === 0 ||
  looksOf[cause]!.some((id) => offered.has(id) || observed[id] !== undefined)

/** Whether a cause was mended, and not all works for it. */
export const wasMended = (cause: CauseId, observed: Observed): boolean =>
  observed[mendedId(cause)] === 'not' || observed[mendedId(cause)] === 'partly'

/** Below this an answer is odd: hardly expected by what the others say. */
const ODD = 0.06
/** What is left of a cause that was mended: that the mend itself failed. */
const MENDED_SHARE = 0.03

/** Answers that are known, in an order that does not hang on when they were given. */
const known = (observed: Observed) =>
  Object.entries(observed)
    .filter((value): value is [string, string] => value[1] !== undefined && isKnown(value[0], value[1]))
    .sort(([a], [b]) => (a < b ? -1 : 1))

/** What each hypothesis has of the whole, by the logarithms of its weights; 0 for those that are left out. */
function shares(logs: Float64Array, isIn: (at: number) => boolean = () => true): Float64Array {
  let most = -Infinity
  for (let at = 0; at < logs.length; at++) if (logs[at]! > most && isIn(at)) most = logs[at]!
  const weights = logs.map((log, at) => (isIn(at) ? Math.exp(log - most) : 0))
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  return weights.map((weight) => weight / total)
}

/** All that may be wrong at a home, each with how likely it is by what was observed. */
interface Weighed {
  hypotheses: readonly Hypothesis[]
  /** What was observed, with how likely it is under each. */
  held: { observation: Observation; answer: string; logs: Float64Array }[]
  logs: Float64Array
  /** Whether something of a hypothesis is left, after what was mended. */
  isOpen: (at: number) => boolean
}

function weigh(observed: Observed, { offered, rates }: SearchedHome): Weighed {
  const hypotheses = hypothesesOf((cause) => canBe(cause, observed, offered), rates)
  const held = known(observed).map(([id, answer]) => ({
    observation: observationOf(id)!,
    answer,
    logs: chancesUnder(id)[answer]!.map(Math.log)
  }))
  const logs = new Float64Array(hypotheses.length)
  for (const [at, { prior }] of hypotheses.entries())
    logs[at] = held.reduce((sum, evidence) => sum + evidence.logs[at]!, Math.log(prior))
  const mended = new Set(causes.map(({ id }) => id).filter((id) => wasMended(id, observed)))
  const left = hypotheses.map(({ prior, causes: wrong }) => prior > 0 && wrong.some((cause) => !mended.has(cause)))
  return { hypotheses, held, logs, isOpen: left.some(Boolean) ? (at) => left[at]! : () => true }
}

/** What of the whole the hypotheses have in which a cause is, or in which it is not. */
function sumOf(hypotheses: readonly Hypothesis[], cause: CauseId): (values: Float64Array, wanted?: boolean) => number {
  const isIn = hypotheses.map((hypothesis) => hypothesis.causes.includes(cause))
  return (values, wanted = true) => {
    let total = 0
    for (let at = 0; at < values.length; at++) if (isIn[at] === wanted) total += values[at]!
    return total
  }
}

const likeliestFirst = (a: Likely, b: Likely) => b.probability - a.probability || (a.cause.id < b.cause.id ? -1 : 1)

/**
 * How likely it is that each cause is there, after Bayes, over single causes and two at once, with each observation's chances from the reviewed
 * table, taken as independent given what is wrong; likeliest first. The order of answers does not matter. A cause that cannot be at this home is left
 * out; one that was mended keeps a small share, and what it explains says nothing of what is left.
 */
export function likelyCauses(observed: Observed, home: SearchedHome = {}): Likely[] {
  const { hypotheses, logs, isOpen } = weigh(observed, home)
  const [before, now] = [shares(logs), shares(logs, isOpen)]
  return causes
    .filter(({ id }) => canBe(id, observed, home.offered))
    .map((cause): Likely => {
      const sum = sumOf(hypotheses, cause.id)
      // Where it is all that is left its parts may add up to a hair more than one.
      return { cause, probability: wasMended(cause.id, observed) ? MENDED_SHARE * sum(before) : Math.min(1, sum(now)) }
    })
    .sort(likeliestFirst)
}

/** The same, each with what it rests on, and the answers that hardly go together. */
export function believe(observed: Observed, home: SearchedHome = {}): Belief {
  const { hypotheses, held, logs } = weigh(observed, home)
  // Each answer against what the others say.
  const without = held.map(({ observation, answer, logs: chances }) => {
    const rest = shares(logs.map((log, at) => (log === -Infinity ? log : log - chances[at]!)))
    return { observation, answer, rest, joint: rest.map((share, at) => share * Math.exp(chances[at]!)) }
  })
  const suspects = likelyCauses(observed, home).map((likely): Suspect => {
    const sum = sumOf(hypotheses, likely.cause.id)
    const because = without
      .map(({ observation, answer, rest, joint }) => {
        const expected = (wanted: boolean) => sum(joint, wanted) / Math.max(1e-300, sum(rest, wanted))
        return { observation, answer, bits: Math.log2(expected(true) / expected(false)) }
      })
      .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits))
    return { ...likely, because }
  })
  const odd = without.flatMap(({ observation, answer, joint }) => {
    const expected = joint.reduce((sum, value) => sum + value, 0)
    return expected < ODD ? [{ observation, answer, expected }] : []
  })
  return { suspects, odd }
}

const entropy = (probabilities: Float64Array): number =>
  probabilities.reduce((sum, probability) => (probability > 0 ? sum - probability * Math.log2(probability) : sum), 0)

/** A test, with what it is expected to tell. */
export interface Test {
  observation: Observation
  /** Bits that it is expected to take off the doubt. */
  bits: number
  perMinute: number
}

/** Every minute of a test has a hand's turn beside it. */
const TURN_MIN = 0.3

/** Tests not made yet, by expected information a minute, best first. */
export function testsFor(observed: Observed, home: SearchedHome = {}): Test[] {
  const { hypotheses, logs, isOpen } = weigh(observed, home)
  // What was mended is out: a look is to tell between what may be left. The doubt is about what to mend: two in which the same is left are one.
  const now = shares(logs, isOpen)
  const mended = new Set(causes.map(({ id }) => id).filter((id) => wasMended(id, observed)))
  const groups = new Map<string, number>()
  const likely = hypotheses.flatMap(({ causes: wrong }, at) => {
    if (now[at]! <= LEAST_SHARE) return []
    const left = wrong.filter((cause) => !mended.has(cause)).join(' ')
    if (!groups.has(left)) groups.set(left, groups.size)
    return [{ at, share: now[at]!, group: groups.get(left)! }]
  })
  const doubtBy = (weight: (at: number) => number): { chance: number; doubt: number } => {
    const sums = new Float64Array(groups.size)
    for (const { at, share, group } of likely) sums[group]! += share * weight(at)
    const chance = sums.reduce((sum, value) => sum + value, 0)
    return { chance, doubt: chance > 0 ? entropy(sums.map((value) => value / chance)) : 0 }
  }
  const { doubt } = doubtBy(() => 1)
  return observations
    .filter(({ id }) => observed[id] === undefined && (home.offered === undefined || home.offered.has(id)))
    .map((observation): Test => {
      const chances = chancesUnder(observation.id)
      const after = observation.answers
        .map(({ id: answer }) => doubtBy((at) => chances[answer]![at]!))
        .reduce((sum, answered) => sum + answered.chance * answered.doubt, 0)
      const bits = Math.max(0, doubt - after)
      return { observation, bits, perMinute: bits / (observation.minutes + TURN_MIN) }
    })
    .sort((a, b) => b.perMinute - a.perMinute)
}

/** What is less likely than this no look is chosen for. */
const LEAST_SHARE = 1e-5
