import {
  likelyCauses,
  looksOf,
  testsFor,
  wasMended,
  type Likely,
  type Observed,
  type SearchedHome,
  type Test
} from './belief'
import type { CauseId } from './causes'
import { chancesOf } from './table'
import { observationOf, type Observation, type ObservationId } from './observations'

/** What to do next: a test, the mend of a cause, or nothing, because something made it work. */
export type NextStep =
  { do: 'test'; test: Test } | { do: 'mend'; suspect: Likely } | { do: 'done'; suspect: Likely; by: Observation }

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
  'wrong-network': ['network-name'],
  'own-device': ['other-device'],
  'line-slow': ['wired-modem']
}

/** Whoever blames the air of the last hop has looked at the hops before it. */
const beforeIt: Partial<Record<string, readonly ObservationId[]>> = {
  'channel-busy': ['hop-signal', 'shared-radio', 'powerline-rate']
}

/** The look of a cause that decides, where it is offered and nobody has taken it; undefined where there is none. */
export function undecided(cause: CauseId, observed: Observed, offered?: ReadonlySet<string>): Observation | undefined {
  const looks = decidedBy[cause] ?? []
  if (looks.some((id) => observed[id] !== undefined)) return undefined
  const open = looks.find((id) => offered === undefined || offered.has(id))
  return open && observationOf(open)
}

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
const LEAST_BITS = 0.015
/** A cause that shows itself is mended, where nothing is left to look at, from this on. */
const WORTH_TRYING = 0.15
/** An answer that a cause gives so often shows it. */
const SHOWS = 0.3

/**
 * The next step: none once something made it work; the mend of a cause that is all but sure, its own look taken; else the test that
 * tells most a minute. Where no test tells anything more, the mend with the greatest chance a minute; or, where nothing of the list is as
 * likely as something that is not on it, handing over.
 */
export function nextStep(observed: Observed, home: SearchedHome = {}): NextStep {
  const suspects = likelyCauses(observed, home)
  const by = whatHelped(observed)
  if (by) return { do: 'done', suspect: suspects[0]!, by }
  const left = suspects.filter(({ cause }) => !wasMended(cause.id, observed))
  const tests = testsFor(observed, home)
  const [top] = left
  const mend = (suspect: Likely): NextStep => {
    const look = undecided(suspect.cause.id, observed, home.offered)
    const own =
      look && look.minutes < suspect.cause.remedyMin
        ? tests.find(({ observation }) => observation.id === look.id)
        : undefined
    return own ? takeTest(own, tests) : { do: 'mend', suspect }
  }
  const isUnlisted = top?.cause.id === 'something-else'
  if (top && top.probability >= SURE && !isUnlisted) return mend(top)
  // That it is none of the list is said once nothing is left to look at that would tell anything.
  const [test] = tests
  if (test && test.bits >= LEAST_BITS) return takeTest(test, tests)
  const listed = left.filter(({ cause }) => cause.id !== 'something-else')
  // What was seen to be wrong is put right, whether or not it is all.
  const shown = listed.find(({ cause, probability }) => probability >= WORTH_TRYING && isShown(cause.id, observed))
  if (shown) return mend(shown)
  if (top && isUnlisted) return { do: 'mend', suspect: top }
  const [gain] = listed.sort((a, b) => b.probability / b.cause.remedyMin - a.probability / a.cause.remedyMin)
  return mend(gain ?? suspects[0]!)
}

/** Whether the look that decides was taken, and is as only this cause makes it. */
function isShown(cause: CauseId, observed: Observed): boolean {
  return (decidedBy[cause] ?? []).some((id) => {
    const answer = observed[id]
    const [sound] = observationOf(id)!.answers
    return answer !== undefined && answer !== sound!.id && (chancesOf(cause, id)[answer] ?? 0) >= SHOWS
  })
}

/** A test, or what has to be looked at before it. */
function takeTest(test: Test, tests: readonly Test[]): NextStep {
  const before = beforeIt[test.observation.id] ?? []
  return { do: 'test', test: tests.find(({ observation }) => before.includes(observation.id as ObservationId)) ?? test }
}
