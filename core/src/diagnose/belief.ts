import { causes, type Cause, type CauseId } from './causes'
import { mendedId, observations, observationOf, type Observation, type ObservationId } from './observations'
import { chancesOf } from './table'

/** What was observed so far: the answer of each observation; an answer given anew stands in the place of the one before. */
export type Observed = Partial<Record<string, string>>

/** A cause with how likely it is now. */
export interface Suspect {
  cause: Cause & { id: CauseId }
  probability: number
  /** What moved it, heaviest first: bits for it where above 0, against it where below. */
  because: { observation: Observation; answer: string; bits: number }[]
}

/** How a search stands: causes, likeliest first, their probabilities summing to one. */
export interface Belief {
  suspects: Suspect[]
  /** Answers that hardly any cause explains beside the others: they are weighed as they are, and shown. */
  odd: { observation: Observation; answer: string; expected: number }[]
}

const table = new Map(observations.map(({ id }) => [id, new Map(causes.map((cause) => [cause.id, chancesOf(cause.id, id)]))]))
/** A mend helps where it was the cause, nearly always; where it was not, hardly ever. */
const MEND_HELPS = 0.92
function likelihood(cause: CauseId, id: string, answer: string): number | null {
  if (!id.startsWith('mended.')) return table.get(id as ObservationId)?.get(cause)?.[answer] ?? null
  if (answer !== 'helped' && answer !== 'not') return null
  return (id === mendedId(cause)) === (answer === 'helped') ? MEND_HELPS : 1 - MEND_HELPS
}
const known = (observed: Observed) => Object.entries(observed).filter((one): one is [string, string] => one[1] !== undefined && likelihood('dns', one[0], one[1]) !== null).sort(([a], [b]) => (a < b ? -1 : 1))

/** Below this an answer is odd: hardly expected by what the others say. */
const ODD = 0.06

function shares(observed: readonly (readonly [string, string])[]): number[] {
  const logs = causes.map((cause) => Math.log(cause.baseRate) + observed.reduce((sum, [id, answer]) => sum + Math.log(likelihood(cause.id, id, answer)!), 0))
  const most = Math.max(...logs)
  const weights = logs.map((one) => Math.exp(one - most))
  const total = weights.reduce((sum, one) => sum + one, 0)
  return weights.map((one) => one / total)
}

/**
 * How likely each cause is, after Bayes, with each observation's chances from the reviewed table, taken as independent given the cause.
 * The order of answers does not matter; no probability is ever 0 or 1.
 */
export function believe(observed: Observed): Belief {
  const held = known(observed)
  const probabilities = shares(held)
  const suspects = causes.map((cause, at): Suspect => {
    const because = held.map(([id, answer]) => {
      // Against the other causes as likely as the rest of the evidence makes them.
      const others = shares(held.filter(([one]) => one !== id))
      const rest = others.reduce((sum, share, index) => (index === at ? sum : sum + share * likelihood(causes[index]!.id, id, answer)!), 0) / Math.max(1e-12, 1 - others[at]!)
      return { observation: observationOf(id)!, answer, bits: Math.log2(likelihood(cause.id, id, answer)! / rest) }
    }).sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits))
    return { cause, probability: probabilities[at]!, because }
  }).sort((a, b) => b.probability - a.probability)
  const odd = held.flatMap(([id, answer]) => {
    const others = shares(held.filter(([one]) => one !== id))
    const expected = others.reduce((sum, share, index) => sum + share * likelihood(causes[index]!.id, id, answer)!, 0)
    return expected < ODD ? [{ observation: observationOf(id)!, answer, expected }] : []
  })
  return { suspects, odd }
}

const entropy = (probabilities: readonly number[]) => probabilities.reduce((sum, one) => (one > 0 ? sum - one * Math.log2(one) : sum), 0)

/** A test, with what it is expected to tell. */
export interface Test {
  observation: Observation
  /** Bits that it is expected to take off the doubt. */
  bits: number
  perMinute: number
}

/** Every minute of a test has a hand's turn beside it. */
const TURN_MIN = 0.3

/** Tests not made yet, by expected information a minute, best first. @param offered only these, where given */
export function testsFor(observed: Observed, offered?: ReadonlySet<string>): Test[] {
  const held = known(observed)
  const now = shares(held)
  const doubt = entropy(now)
  return observations.filter(({ id }) => observed[id] === undefined && (offered === undefined || offered.has(id))).map((observation): Test => {
    let after = 0
    for (const { id: answer } of observation.answers) {
      const joint = now.map((share, at) => share * likelihood(causes[at]!.id, observation.id, answer)!)
      const chance = joint.reduce((sum, one) => sum + one, 0)
      after += chance * entropy(joint.map((one) => one / chance))
    }
    const bits = Math.max(0, doubt - after)
    return { observation, bits, perMinute: bits / (observation.minutes + TURN_MIN) }
  }).sort((a, b) => b.perMinute - a.perMinute)
}

/** What to do next: a test, or the mend of a cause. */
export type NextStep = { do: 'test'; test: Test } | { do: 'mend'; suspect: Suspect }

/** From this on a cause is mended rather than looked into further. */
export const SURE = 0.8
/** A test that is expected to tell less than this is not worth its time. */
const LEAST_BITS = 0.02

/**
 * The next step: the mend once a cause is all but sure; else the test that tells most a minute. Where no test tells anything more, the
 * mend with the greatest chance a minute; one that wipes what was configured only when nothing cheaper is left to try.
 */
export function nextStep(observed: Observed, offered?: ReadonlySet<string>): NextStep {
  const { suspects } = believe(observed)
  const left = suspects.filter(({ cause }) => observed[mendedId(cause.id)] !== 'not')
  const [top] = left
  const [test] = testsFor(observed, offered)
  const worth = test !== undefined && test.bits >= LEAST_BITS
  if (top && top.probability >= SURE && !(top.cause.wipes && worth)) return { do: 'mend', suspect: top }
  if (worth) return { do: 'test', test }
  const gains = [...left].sort((a, b) => Number(a.cause.wipes ?? false) - Number(b.cause.wipes ?? false) || b.probability / b.cause.mendMin - a.probability / a.cause.mendMin)
  return gains.length ? { do: 'mend', suspect: gains.find(({ cause, probability }) => !cause.wipes && probability > 0.01) ?? gains.at(-1)! } : test ? { do: 'test', test } : { do: 'mend', suspect: suspects[0]! }
}
