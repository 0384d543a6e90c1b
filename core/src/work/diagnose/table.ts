import type { CauseId } from './causes'
import { observations, type ObservationId } from './observations'

/** Chances of answers, in hundredths; what is left over is spread over the answers that are not named. */
type Chances = Record<string, number>

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
  'dhcp-servers': { one: 94, two: 6 }
}
const SOUND_FIRST = 94

/** What follows for the whole home where the internet does not come in. */
const allDown = {
  others: { down: 92, fine: 5 },
  'router-lamp': { 'no-internet': 82, good: 14 },
  'unit-lamp': { 'no-internet': 72, good: 22 },
  'wired-router': { no: 95 },
  'wifi-router': { no: 94 },
  'wifi-unit': { no: 93 },
  'ping-number': { no: 95 },
  'name-lookup': { no: 96 }
} as const
/** And where only one unit does not bring it. */
const onlyHere = {
  'wifi-unit': { no: 66, slow: 14, yes: 12, 'no-network': 8 },
  'ping-number': { no: 70, yes: 30 },
  'name-lookup': { no: 70, yes: 30 },
  others: { fine: 94 },
  'client-count': { stays: 60, rises: 40 }
} as const
/** A unit that was never joined: its own setup network, or none. */
const neverJoined = {
  ...onlyHere,
  'unit-lamp': { ready: 66, failed: 24, 'no-link': 7 },
  'wifi-unit': { 'no-network': 62, no: 34 },
  'client-count': { stays: 92 },
  'changed-last': { 'new-unit': 62, nothing: 16, settings: 10 }
} as const

/**
 * What each cause does to what is observed, with the reasoning for each line. What is not named is as in a sound home. The figures are
 * this project's estimates, to be reviewed line by line; they are shares, not measurements.
 */
export const effects: Record<CauseId, { why: string; on: Partial<Record<ObservationId, Chances>> }> = {
  'line-down': {
    why: 'Nothing comes in from the street: the modem says so itself, a cable at it gives nothing, and no restart brings it.',
    on: {
      ...allDown,
      'line-lamp': { 'no-line': 92, good: 4 },
      'wired-modem': { no: 98 },
      'provider-status': { outage: 62, none: 38 },
      'wan-address': { none: 70, fine: 28 },
      'restart-modem': { not: 95 }
    }
  },
  'provider-settings': {
    why: 'The line stands, the login does not: the modem waits for it or says that it is refused.',
    on: {
      ...allDown,
      'line-lamp': { login: 90, good: 6 },
      'wired-modem': { no: 97 },
      'wan-address': { none: 75, fine: 23 },
      'restart-modem': { not: 95 },
      'changed-last': { settings: 40, nothing: 35, 'new-unit': 15 }
    }
  },
  'modem-stuck': {
    why: 'Its lamps say all is well and nothing goes through; switched off and on it works again.',
    on: {
      ...allDown,
      'line-lamp': { good: 90, 'no-line': 6 },
      'wired-modem': { no: 96 },
      'restart-modem': { helped: 95 },
      'changed-last': { 'power-cut': 30, nothing: 50 },
      'wan-address': { none: 45, fine: 52 }
    }
  },
  'bad-wan-cable': {
    why: 'The modem is well and the router hears nothing of it; the link shows it, another cable mends it.',
    on: {
      ...allDown,
      'wan-link': { none: 90, slow: 8 },
      'swap-wan-cable': { helped: 95 },
      'wan-address': { none: 92 },
      'changed-last': { cables: 30, nothing: 45, 'new-unit': 12 }
    }
  },
  'bad-unit-cable': {
    why: 'Everything is well up to the unit; the link of its cable shows nothing or little.',
    on: {
      ...onlyHere,
      'unit-link': { none: 88, slow: 9 },
      'unit-lamp': { 'no-link': 48, 'no-internet': 30, good: 16 },
      'swap-unit-cable': { helped: 92 }
    }
  },
  'wrong-port': {
    why: 'The cable from the modem is in a LAN port: the router has no internet side, and two networks become one.',
    on: {
      ...allDown,
      others: { down: 70, fine: 25 },
      ports: { wrong: 95 },
      'wan-link': { none: 70, full: 28 },
      'dhcp-servers': { two: 45, one: 55 },
      'wan-address': { none: 92 },
      'wired-router': { no: 75, yes: 22 },
      'wifi-router': { no: 70, yes: 27 },
      'wifi-unit': { no: 70, yes: 27 },
      'ping-number': { no: 72, yes: 28 },
      'name-lookup': { no: 72, yes: 28 },
      'changed-last': { cables: 60, 'new-unit': 25 }
    }
  },
  'double-dhcp': {
    why: 'Two servers deal addresses on one network: who asks gets one of either, and half of them lead nowhere.',
    on: {
      ...onlyHere,
      others: { fine: 60, down: 25, slow: 15 },
      'dhcp-servers': { two: 97 },
      address: { 'other-range': 52, right: 46 },
      'wifi-unit': { no: 55, yes: 42 },
      'ping-number': { no: 50, yes: 50 },
      'name-lookup': { no: 50, yes: 50 },
      'client-count': { rises: 90 },
      'changed-last': { 'new-unit': 60, settings: 22 }
    }
  },
  'nat-clash': {
    why: 'The router has one range on both its sides and does not know where to send what goes out.',
    on: {
      ...allDown,
      'wan-address': { 'same-range': 95 },
      'router-lamp': { 'no-internet': 70, good: 27 },
      'changed-last': { 'new-unit': 50, settings: 28 }
    }
  },
  'address-clash': {
    why: 'Two answer at one address: what goes through that unit gets lost, the rest is well.',
    on: {
      ...onlyHere,
      'duplicate-address': { yes: 95 },
      'unit-lamp': { good: 62, 'no-internet': 34 },
      'wifi-unit': { no: 60, yes: 30, slow: 10 },
      'client-count': { rises: 90 },
      'changed-last': { settings: 58, 'new-unit': 20 }
    }
  },
  dns: {
    why: 'Numbers outside answer and names are not found; every lamp is good.',
    on: {
      others: { down: 92, fine: 5 },
      'name-lookup': { no: 97 },
      'wifi-router': { no: 92 },
      'wifi-unit': { no: 92 },
      'wired-router': { no: 92 },
      'wired-modem': { no: 55, yes: 45 }
    }
  },
  'radio-off': {
    why: 'The unit is well and sends nothing.',
    on: {
      ...onlyHere,
      'unit-lamp': { 'radio-off': 90, good: 7 },
      'router-lamp': { 'radio-off': 22, good: 74 },
      'wifi-router': { yes: 72, 'no-network': 26 },
      'wifi-unit': { 'no-network': 95 },
      'signal-room': { weak: 78, good: 22 },
      'client-count': { stays: 94 },
      'changed-last': { settings: 38, nothing: 45 }
    }
  },
  'wrong-passphrase': {
    why: 'It hears the network well and is not let in.',
    on: {
      ...neverJoined,
      'unit-lamp': { failed: 52, ready: 30, 'no-link': 16 },
      rejoin: { helped: 94 },
      'changed-last': { settings: 55, 'new-unit': 25 }
    }
  },
  'wrong-network': {
    why: 'The phone is on the old network or a neighbour’s; of ours nothing is wrong.',
    on: {
      'network-name': { other: 97 },
      address: { 'other-range': 90 },
      'client-count': { stays: 95 },
      'ping-number': { no: 60, yes: 40 },
      'name-lookup': { no: 60, yes: 40 },
      'wifi-unit': { no: 58, yes: 30, slow: 12 },
      rejoin: { helped: 90 }
    }
  },
  'too-far': {
    why: 'Beside the unit all is well, in the room the signal is weak.',
    on: {
      'signal-room': { weak: 96 },
      'wifi-unit': { yes: 92 },
      'client-count': { rises: 75, stays: 25 },
      'changed-last': { moved: 30, nothing: 52 }
    }
  },
  'backhaul-weak': {
    why: 'The unit hears the one before it weakly or not at all: near to it the signal is strong and the speed is not.',
    on: {
      ...onlyHere,
      'hop-signal': { weak: 62, none: 36 },
      'unit-lamp': { weak: 60, 'no-link': 36 },
      'wifi-unit': { slow: 60, no: 34, yes: 6 },
      'ping-number': { no: 36, yes: 64 },
      'name-lookup': { no: 36, yes: 64 },
      'client-count': { rises: 66, stays: 34 },
      'changed-last': { moved: 55, nothing: 25, 'new-unit': 14 }
    }
  },
  'channel-crowded': {
    why: 'Signal is good, speed is not, on every unit of that channel; by cable all is well.',
    on: {
      others: { slow: 82, fine: 15 },
      'channel-busy': { busy: 96 },
      'wifi-router': { slow: 85, yes: 12 },
      'wifi-unit': { slow: 88, yes: 8 }
    }
  },
  'old-firmware': {
    why: 'That version is known to be slow or to drop; all else is well.',
    on: { others: { fine: 82, slow: 15 }, firmware: { old: 97 }, 'wifi-unit': { slow: 76, yes: 12, no: 12 } }
  },
  'wrong-adapter': {
    why: 'Too little power: it starts, and falls over when the radios come on.',
    on: {
      ...onlyHere,
      'unit-lamp': { 'starts-over': 84, dark: 14 },
      'wifi-unit': { 'no-network': 90, no: 8 },
      'adapter-label': { other: 97 },
      'router-lamp': { good: 74, 'starts-over': 20 },
      'changed-last': { 'new-unit': 45, cables: 25, moved: 15 }
    }
  },
  'unit-broken': {
    why: 'Dark or starting over, with its own adapter, in another socket as well.',
    on: {
      ...onlyHere,
      'unit-lamp': { 'starts-over': 50, dark: 46 },
      'wifi-unit': { 'no-network': 92 },
      'router-lamp': { good: 74, dark: 12, 'starts-over': 12 },
      'changed-last': { 'power-cut': 35, nothing: 45 }
    }
  },
  'family-mismatch': {
    why: 'Different families do not join at all, however often they are pressed.',
    on: { ...neverJoined, family: { other: 98 } }
  },
  'pairing-missed': {
    why: 'The second press came when the window was shut: it waits to be set up.',
    on: { ...neverJoined, 'pairing-time': { late: 95 } }
  },
  'something-else': { why: 'Anything else: every answer is about as likely as any.', on: {} }
}

const answersOf = (id: ObservationId) =>
  observations.find((observation) => observation.id === id)!.answers.map((answer) => answer.id)

/** Somebody looks wrong, or it happens by chance: this share of every answer is spread evenly. So no answer rules a cause out altogether. */
const LAPSE = 0.03

/** How likely each answer is under a cause: a share for every answer, their sum one. */
export function chancesOf(cause: CauseId, id: ObservationId): Record<string, number> {
  const answers = answersOf(id)
  const even = 1 / answers.length
  if (cause === 'something-else')
    return Object.fromEntries(
      answers.map((answer) => [
        answer,
        answer === answers[0] ? 0.5 * even + 0.5 * 0.6 : 0.5 * even + (0.5 * 0.4) / (answers.length - 1)
      ])
    )
  const named: Chances = effects[cause].on[id] ?? sound[id] ?? { [answers[0]!]: SOUND_FIRST }
  const total = answers.reduce((sum, answer) => sum + (named[answer] ?? 0), 0)
  const open = answers.filter((answer) => named[answer] === undefined)
  const rest = open.length ? Math.max(0, 100 - total) / open.length : 0
  const raw = answers.map((answer) => named[answer] ?? rest)
  const sum = raw.reduce((all, value) => all + value, 0)
  return Object.fromEntries(answers.map((answer, at) => [answer, (1 - LAPSE) * (raw[at]! / sum) + LAPSE * even]))
}
