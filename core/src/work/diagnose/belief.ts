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

const table = new Map(
  observations.map(({ id }) => [id, new Map(causes.map((cause) => [cause.id, chancesOf(cause.id, id)]))])
)
/** A mend that helped was the cause's, nearly always. */
const MEND_HELPS = 0.92
/** What is left of a cause once its mend did not help. */
const MENDED_SHARE = 0.03
function likelihood(cause: CauseId, id: string, answer: string): number | null {
  if (!id.startsWith('mended.')) return table.get(id as ObservationId)?.get(cause)?.[answer] ?? null
  if (answer !== 'helped') return null
  return id === mendedId(cause) ? MEND_HELPS : 1 - MEND_HELPS
}
const known = (observed: Observed) =>
  Object.entries(observed)
    .filter(
      (value): value is [string, string] => value[1] !== undefined && likelihood('dns', value[0], value[1]) !== null
    )
    .sort(([a], [b]) => (a < b ? -1 : 1))

/** Looks that are of one cause only: where a home has none of them, the cause cannot be there. */
const looksOf: Partial<Record<CauseId, readonly ObservationId[]>> = {
  'bad-unit-cable': ['unit-link', 'swap-unit-cable'],
  'bad-wan-cable': ['wan-link', 'swap-wan-cable'],
  'backhaul-weak': ['hop-signal'],
  'pairing-missed': ['pairing-time'],
  'family-mismatch': ['family'],
  'nat-clash': ['wan-address']
}
/** The look that decides whether it is this cause: before it is taken, its mend is not. */
const decidedBy: Partial<Record<CauseId, readonly ObservationId[]>> = {
  ...looksOf,
  'channel-crowded': ['channel-busy'],
  'too-far': ['signal-room'],
  'double-dhcp': ['dhcp-servers'],
  'address-clash': ['duplicate-address'],
  'old-firmware': ['firmware'],
  'wrong-adapter': ['adapter-label'],
  dns: ['name-lookup'],
  'wrong-port': ['ports'],
  'wrong-network': ['network-name']
}

/** Whether a cause can be there at all: one of its own looks is offered, or was answered. */
const canBe = (cause: CauseId, observed: Observed, offered?: ReadonlySet<string>) =>
  offered === undefined ||
  (looksOf[cause] ?? []).length === 0 ||
  looksOf[cause]!.some((id) => offered.has(id) || observed[id] !== undefined)

/** The look of a cause that decides, where it is offered and nobody has taken it; undefined where there is none. */
export function undecided(cause: CauseId, observed: Observed, offered?: ReadonlySet<string>): Observation | undefined {
  const looks = decidedBy[cause] ?? []
  if (looks.some((id) => observed[id] !== undefined)) return undefined
  const open = looks.find((id) => offered === undefined || offered.has(id))
  return open && observationOf(open)
}

/** Below this an answer is odd: hardly expected by what the others say. */
const ODD = 0.06

/** The shares of the causes that are left open, 0 for the others, their sum one. */
function shares(observed: readonly (readonly [string, string])[], isOpen: readonly boolean[]): number[] {
  const logs = causes.map(
    (cause) =>
      Math.log(cause.baseRate) +
      observed.reduce((sum, [id, answer]) => sum + Math.log(likelihood(cause.id, id, answer)!), 0)
  )
  const most = Math.max(...logs.filter((_, at) => isOpen[at]))
  const weights = logs.map((log, at) => (isOpen[at] ? Math.exp(log - most) : 0))
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  return weights.map((weight) => weight / total)
}

/** Which causes can be there, and which of them were not mended in vain. */
function openCauses(observed: Observed, offered?: ReadonlySet<string>): { possible: boolean[]; open: boolean[] } {
  const possible = causes.map(({ id }) => canBe(id, observed, offered))
  const open = causes.map(({ id }, at) => possible[at]! && observed[mendedId(id)] !== 'not')
  return { possible, open: open.some(Boolean) ? open : possible }
}

/**
 * How likely each cause is, after Bayes, with each observation's chances from the reviewed table, taken as independent given the cause.
 * The order of answers does not matter. A cause that cannot be at this home is left out; one whose mend did not help keeps a small share
 * of what it had, and the others share the rest.
 * @param offered the looks that there are at this home; all, where not given
 */
export function believe(observed: Observed, offered?: ReadonlySet<string>): Belief {
  const held = known(observed)
  const { possible, open } = openCauses(observed, offered)
  const [before, among] = [shares(held, possible), shares(held, open)]
  const mended = before.map((share, at) => (open[at] ? 0 : share * MENDED_SHARE))
  const left = 1 - mended.reduce((sum, value) => sum + value, 0)
  const suspects = causes
    .flatMap((cause, at): Suspect[] => {
      if (!possible[at]) return []
      const because = held
        .map(([id, answer]) => {
          // Against the other causes as likely as the rest of the evidence makes them.
          const others = shares(
            held.filter(([looked]) => looked !== id),
            possible
          )
          const rest =
            others.reduce(
              (sum, share, index) => (index === at ? sum : sum + share * likelihood(causes[index]!.id, id, answer)!),
              0
            ) / Math.max(1e-12, 1 - others[at]!)
          return { observation: observationOf(id)!, answer, bits: Math.log2(likelihood(cause.id, id, answer)! / rest) }
        })
        .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits))
      return [{ cause, probability: open[at] ? among[at]! * left : mended[at]!, because }]
    })
    .sort((a, b) => b.probability - a.probability)
  const odd = held.flatMap(([id, answer]) => {
    const others = shares(
      held.filter(([looked]) => looked !== id),
      possible
    )
    const expected = others.reduce((sum, share, index) => sum + share * likelihood(causes[index]!.id, id, answer)!, 0)
    return expected < ODD ? [{ observation: observationOf(id)!, answer, expected }] : []
  })
  return { suspects, odd }
}

const entropy = (probabilities: readonly number[]) =>
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

/** Tests not made yet, by expected information a minute, best first. @param offered only these, where given */
export function testsFor(observed: Observed, offered?: ReadonlySet<string>): Test[] {
  // What was mended in vain is out: a look is to tell between the causes that are left.
  const now = shares(known(observed), openCauses(observed, offered).open)
  const doubt = entropy(now)
  return observations
    .filter(({ id }) => observed[id] === undefined && (offered === undefined || offered.has(id)))
    .map((observation): Test => {
      let after = 0
      for (const { id: answer } of observation.answers) {
        const joint = now.map((share, at) => share * likelihood(causes[at]!.id, observation.id, answer)!)
        const chance = joint.reduce((sum, value) => sum + value, 0)
        if (chance > 0) after += chance * entropy(joint.map((value) => value / chance))
      }
      const bits = Math.max(0, doubt - after)
      return { observation, bits, perMinute: bits / (observation.minutes + TURN_MIN) }
    })
    .sort((a, b) => b.perMinute - a.perMinute)
}

/** What to do next: a test, the mend of a cause, or nothing, because something made it work. */
export type NextStep =
  { do: 'test'; test: Test } | { do: 'mend'; suspect: Suspect } | { do: 'done'; suspect: Suspect; by: Observation }

/** The look or mend that made it work; undefined where none did. */
export function whatHelped(observed: Observed): Observation | undefined {
  const id = Object.keys(observed)
    .sort()
    .find((candidate) => observed[candidate] === 'helped')
  return id === undefined ? undefined : observationOf(id)
}

/** From this on a cause is mended rather than looked into further. */
export const SURE = 0.8
/** A test that is expected to tell less than this is not worth its time. */
const LEAST_BITS = 0.02

/**
 * The next step: none once something made it work; the mend of a cause that is all but sure, its own look taken; else the test that
 * tells most a minute. Where no test tells anything more, the mend with the greatest chance a minute; one that wipes what was configured
 * never while a look that is offered is not taken.
 */
export function nextStep(observed: Observed, offered?: ReadonlySet<string>): NextStep {
  const { suspects } = believe(observed, offered)
  const by = whatHelped(observed)
  if (by) return { do: 'done', suspect: suspects[0]!, by }
  const left = suspects.filter(({ cause }) => observed[mendedId(cause.id)] !== 'not')
  const tests = testsFor(observed, offered)
  const [test] = tests
  const worth = test !== undefined && test.bits >= LEAST_BITS
  const mend = (suspect: Suspect): NextStep => {
    const look = undecided(suspect.cause.id, observed, offered)
    const own =
      look && look.minutes < suspect.cause.remedyMin
        ? tests.find(({ observation }) => observation.id === look.id)
        : undefined
    return own ? { do: 'test', test: own } : { do: 'mend', suspect }
  }
  const [top] = left
  if (top && top.probability >= SURE && !(top.cause.wipes && test)) return mend(top)
  if (worth) return { do: 'test', test }
  const gains = left
    .filter(({ cause }) => !cause.wipes)
    .sort((a, b) => b.probability / b.cause.remedyMin - a.probability / a.cause.remedyMin)
  const likely = gains.find(({ probability }) => probability > 0.01)
  if (likely) return mend(likely)
  if (test) return { do: 'test', test }
  return { do: 'mend', suspect: gains[0] ?? left[0] ?? suspects[0]! }
}
