import type { CauseId } from './causes'
import { effects, type Chances, type Effect } from './effects'
import { observations, type ObservationId } from './observations'

/** In a sound part of a home, how often each answer is given all the same: the first answer of each unless it stands here. */
const sound: Partial<Record<ObservationId, Chances>> = {
  'changed-last': { nothing: 50, moved: 10, settings: 12, cables: 10, 'new-unit': 10, 'power-cut': 8 },
  firmware: { approved: 88, old: 12 },
  'channel-busy': { quiet: 80, busy: 20 },
  'signal-room': { good: 88, weak: 12 },
  'hop-signal': { good: 88, weak: 9, none: 3 },
  'adapter-label': { own: 96, other: 4 },
  family: { same: 97, other: 3 },
  'pairing-time': { 'in-time': 88, late: 12 },
  'restart-unit': { not: 90, helped: 10 },
  'restart-modem': { not: 92, helped: 8 },
  'provider-status': { none: 96, outage: 4 },
  rejoin: { not: 93, helped: 7 },
  'dhcp-servers': { one: 94, two: 6 },
  // Somewhere else the trouble is mostly the same; many a unit shares its radio and nobody minds.
  'other-device': { same: 88, fine: 12 },
  'shared-radio': { own: 72, shared: 28 },
  'powerline-rate': { good: 88, poor: 9, none: 3 }
}
const SOUND_FIRST = 94

const answersOf = (id: ObservationId) =>
  observations.find((observation) => observation.id === id)!.answers.map((answer) => answer.id)

/** Somebody looks wrong, or it happens by chance: this share of every answer is spread evenly. So no answer rules a cause out altogether. */
const LAPSE = 0.03
/** What the program or the phone itself tells is seldom read wrong. */
const lapses: Partial<Record<ObservationId, number>> = {
  'ping-number': 0.004,
  'name-lookup': 0.01,
  'wired-router': 0.015
}

/** How likely each answer is in a sound part of a home. */
const soundChances = (id: ObservationId): Chances => sound[id] ?? { [answersOf(id)[0]!]: SOUND_FIRST }

/** Named shares as chances: what is left over is spread over the answers that are not named, and anybody may look wrong. */
function spread(id: ObservationId, named: Chances): Record<string, number> {
  const answers = answersOf(id)
  const total = answers.reduce((sum, answer) => sum + (named[answer] ?? 0), 0)
  const open = answers.filter((answer) => named[answer] === undefined)
  const rest = open.length ? Math.max(0, 100 - total) / open.length : 0
  const raw = answers.map((answer) => named[answer] ?? rest)
  const sum = raw.reduce((all, value) => all + value, 0)
  const lapse = lapses[id] ?? LAPSE
  return Object.fromEntries(
    answers.map((answer, at) => [answer, (1 - lapse) * (raw[at]! / sum) + lapse / answers.length])
  )
}

/** The ways in which a cause shows itself, their shares one: each with the looks that it changes. */
export function waysOf(cause: CauseId): {
  share: number
  changes: (id: ObservationId) => boolean
  chances: (id: ObservationId) => Record<string, number>
}[] {
  const { on, or = [] }: Effect = effects[cause]
  const rest = 1 - or.reduce((sum, { share }) => sum + share, 0)
  return [{ share: rest, on }, ...or].map((way) => ({
    share: way.share,
    changes: (id) => way.on[id] !== undefined,
    chances: (id) => spread(id, way.on[id] ?? soundChances(id))
  }))
}

/** How likely each answer is under a cause, in whichever way it shows itself: a share for every answer, their sum one. */
export function chancesOf(cause: CauseId, id: ObservationId): Record<string, number> {
  const ways = waysOf(cause).map(({ share, chances }) => ({ share, chances: chances(id) }))
  return Object.fromEntries(
    answersOf(id).map((answer) => [answer, ways.reduce((sum, { share, chances }) => sum + share * chances[answer]!, 0)])
  )
}
