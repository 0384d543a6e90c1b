import type { CauseId } from './causes'
import type { ObservationId } from './observations'

/** Chances of answers, in hundredths; what is left over is spread over the answers that are not named. */
export type Chances = Record<string, number>

/** What follows for the whole home where the internet does not come in. */
const allDown = {
  others: { down: 92, fine: 5 },
  'router-lamp': { 'no-internet': 82, good: 14 },
  'unit-lamp': { 'no-internet': 72, good: 22 },
  'wired-router': { no: 98 },
  'wifi-router': { no: 94 },
  'wifi-unit': { no: 93 },
  'ping-number': { no: 99.5 },
  'name-lookup': { no: 98 }
} as const
/** And where only one unit does not bring it. */
const onlyHere = {
  'wifi-unit': { no: 66, slow: 14, yes: 12, 'no-network': 8 },
  'ping-number': { no: 70, yes: 30 },
  'name-lookup': { no: 70, yes: 30 },
  others: { fine: 94 },
  'client-count': { stays: 60, rises: 40 }
} as const
/** What the router itself gets is little: all of the home is slow. */
const slowAtRouter = {
  others: { slow: 92, fine: 5 },
  'wired-router': { slow: 94 },
  'wifi-router': { slow: 90, yes: 6 },
  'wifi-unit': { slow: 90, yes: 6 }
} as const
/** A unit that was never joined: its own setup network, or none. */
const neverJoined = {
  ...onlyHere,
  'unit-lamp': { ready: 66, failed: 24, 'no-link': 7 },
  'wifi-unit': { 'no-network': 62, no: 34 },
  'client-count': { stays: 92 },
  'changed-last': { 'new-unit': 62, nothing: 16, settings: 10 }
} as const

/** A way in which a cause shows itself: of its cases this share. */
export interface Way {
  share: number
  on: Partial<Record<ObservationId, Chances>>
}

/** What a cause does to what is observed, with the reasoning; where it shows itself in other ways as well, those too. */
export interface Effect {
  why: string
  on: Way['on']
  or?: readonly Way[]
}

/**
 * What each cause does to what is observed, with the reasoning for each line. What is not named is as in a sound home. The figures are
 * this project's estimates, to be reviewed line by line; they are shares, not measurements.
 */
export const effects: Record<CauseId, Effect> = {
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
    },
    // Four wires of eight: it carries a tenth, and every lamp is good.
    or: [
      {
        share: 0.3,
        on: { ...slowAtRouter, 'wan-link': { slow: 95 }, 'swap-wan-cable': { helped: 95 } }
      }
    ]
  },
  'bad-unit-cable': {
    why: 'Everything is well up to the unit; the link of its cable shows nothing or little.',
    on: {
      ...onlyHere,
      'unit-link': { none: 92, slow: 4 },
      'unit-lamp': { 'no-link': 48, 'no-internet': 30, good: 16 },
      address: { right: 50, none: 46 },
      // Where it is in the wall, another lead to the socket changes nothing.
      'swap-unit-cable': { helped: 75, not: 25 }
    },
    or: [
      {
        share: 0.3,
        on: {
          others: { fine: 94 },
          'unit-link': { slow: 95 },
          'wifi-unit': { slow: 88, yes: 8 },
          'swap-unit-cable': { helped: 80, not: 20 }
        }
      }
    ]
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
    },
    // An access point on a cable in its internet port: a network of its own behind the home's.
    or: [
      {
        share: 0.3,
        on: {
          ...onlyHere,
          ports: { wrong: 95 },
          address: { 'other-range': 70, right: 22, none: 8 },
          'unit-lamp': { good: 50, 'no-internet': 44 },
          'changed-last': { 'new-unit': 50, cables: 35 }
        }
      }
    ]
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
      'other-device': { fine: 85, same: 15 },
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
      'hop-signal': { weak: 95 },
      'unit-lamp': { weak: 72, good: 22 },
      'wifi-unit': { slow: 88, yes: 6 },
      'ping-number': { yes: 94 },
      'name-lookup': { yes: 94 },
      'client-count': { rises: 90 },
      'changed-last': { moved: 50, nothing: 30, 'new-unit': 14 }
    },
    or: [
      {
        share: 0.36,
        on: {
          ...onlyHere,
          'hop-signal': { none: 95 },
          'unit-lamp': { 'no-link': 92 },
          'wifi-unit': { no: 92 },
          'ping-number': { no: 94 },
          'name-lookup': { no: 94 },
          'changed-last': { moved: 60, nothing: 22, 'new-unit': 14 }
        }
      }
    ]
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
  'own-device': {
    why: 'With any other device all is well in the same place; with theirs it is bad wherever they go.',
    on: {
      'other-device': { fine: 95 },
      'ping-number': { yes: 62, no: 38 },
      'name-lookup': { yes: 62, no: 38 },
      address: { right: 72, 'other-range': 16, none: 12 },
      rejoin: { not: 75, helped: 25 },
      'changed-last': { nothing: 60, 'new-unit': 5, settings: 20 }
    }
  },
  'powerline-weak': {
    why: 'The adapters tell the rate themselves: a strip, a charger or another phase between them takes it.',
    on: {
      others: { fine: 94 },
      'powerline-rate': { poor: 66, none: 32 },
      'unit-lamp': { weak: 45, 'no-link': 32, good: 20 },
      'wifi-unit': { slow: 60, no: 32, yes: 6 },
      'ping-number': { yes: 66, no: 34 },
      'name-lookup': { yes: 66, no: 34 },
      'client-count': { rises: 85 },
      'changed-last': { nothing: 45, moved: 30, 'new-unit': 18 }
    }
  },
  'repeater-half': {
    why: 'Every packet goes through the same air twice: strong signal, quiet channel, half of the speed.',
    on: {
      others: { fine: 94 },
      'shared-radio': { shared: 96 },
      'hop-signal': { good: 90, weak: 9 },
      'wifi-unit': { slow: 88, yes: 8 },
      'changed-last': { nothing: 55, 'new-unit': 32 }
    }
  },
  'line-slow': {
    why: 'Straight at the modem it is as slow as everywhere, and no cable or channel changes it.',
    on: {
      ...slowAtRouter,
      'wired-modem': { slow: 94 },
      'provider-status': { none: 75, outage: 25 }
    }
  },
  'something-else': {
    why: 'Nothing that was seen points anywhere: what a cause of the list would show is not there.',
    // It is not seen while somebody looks, or only by whoever complains.
    on: {},
    or: [
      // All of the home is slow, and nothing of the list makes it so.
      { share: 0.2, on: { ...slowAtRouter, 'wired-modem': { slow: 40, yes: 55 } } },
      // Nothing works anywhere, with every lamp as it should be.
      {
        share: 0.15,
        on: {
          others: { down: 88, slow: 8 },
          'wired-router': { no: 85, slow: 8 },
          'wifi-router': { no: 85, slow: 8 },
          'wifi-unit': { no: 85, slow: 8 },
          'wired-modem': { no: 45, yes: 50 },
          'ping-number': { no: 75, yes: 25 },
          'name-lookup': { no: 80, yes: 20 }
        }
      },
      // Only here, or only this device, is not let through.
      {
        share: 0.2,
        on: {
          'wifi-unit': { no: 45, slow: 15, yes: 40 },
          'ping-number': { no: 80, yes: 20 },
          'name-lookup': { no: 80, yes: 20 },
          'client-count': { stays: 45, rises: 55 },
          address: { right: 62, none: 25, 'other-range': 13 },
          'other-device': { fine: 45, same: 55 }
        }
      }
    ]
  }
}
