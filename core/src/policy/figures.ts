import { laterFigures, type Policy } from './standard'

/** What a figure of the standard is called, with its unit and the range it may be in. */
export interface FigureWords {
  name: string
  unit: string
  least: number
  most: number
  step: number
  of: string
}

/** The figures that are numbers, in the order of the stages. */
export const figureWords = {
  leastHeightM: { name: 'Least mounted height', unit: 'm', least: 0, most: 10, step: 0.1, of: 'place-height' },
  mostHeightM: { name: 'Greatest mounted height', unit: 'm', least: 0, most: 10, step: 0.1, of: 'place-height' },
  clearM: { name: 'Distance from what troubles', unit: 'm', least: 0, most: 10, step: 0.1, of: 'place-clear' },
  outletWithinM: { name: 'Outlet within', unit: 'm', least: 0.2, most: 20, step: 0.1, of: 'place-outlet' },
  mostHops: { name: 'Most wireless hops', unit: '', least: 1, most: 8, step: 1, of: 'place-hops' },
  mostMembers: { name: 'Most mesh members', unit: '', least: 1, most: 64, step: 1, of: 'place-count' },
  mostHopM: { name: 'Longest wireless hop', unit: 'm', least: 1, most: 100, step: 0.5, of: 'place-spacing' },
  leastHopDbm: { name: 'Weakest wireless hop', unit: 'dBm', least: -95, most: -30, step: 1, of: 'place-spacing' },
  pairWindowS: {
    name: 'Between the two presses',
    unit: 's',
    least: 10,
    most: 600,
    step: 10,
    of: 'start-method-window'
  },
  leastStrength: {
    name: 'Least strength of passphrases',
    unit: 'of 4',
    least: 0,
    most: 4,
    step: 1,
    of: 'wifi-passphrase'
  },
  sourceShare: {
    name: 'Source, share of what is paid for',
    unit: '',
    least: 0,
    most: 1,
    step: 0.05,
    of: 'prove-source'
  },
  roomDbm: { name: 'Weakest signal in a room', unit: 'dBm', least: -95, most: -30, step: 1, of: 'prove-rooms' },
  roomMbps: { name: 'Slowest speed in a room', unit: 'Mbit/s', least: 0, most: 10_000, step: 10, of: 'prove-rooms' },
  roomShare: { name: 'or this share of the source', unit: '', least: 0, most: 1, step: 0.05, of: 'prove-rooms' },
  addedMs: { name: 'Most latency added', unit: 'ms', least: 0, most: 1000, step: 1, of: 'prove-rooms' },
  settleH: { name: 'A mesh settles in', unit: 'h', least: 1, most: 168, step: 1, of: 'prove-settle' },
  lateH: { name: 'Taken for, after it was handed on', unit: 'h', least: 0, most: 720, step: 1, of: 'waits-ended' },
  eraseAfterDays: { name: 'Secrets erased after', unit: 'days', least: 0, most: 3650, step: 1, of: 'hand-custody' }
} as const satisfies Partial<Record<keyof Policy, FigureWords>>
export type FigureName = keyof typeof figureWords

/** The schools, each with what it may be. */
export const schoolWords = {
  poolSchool: {
    name: 'Fixed addresses',
    options: { outside: 'outside the pool, or reserved in it', inside: 'inside the pool' }
  },
  leastSecurity: {
    name: 'Weakest security',
    options: { 'wpa2-aes': 'WPA2-AES', 'wpa2-wpa3': 'WPA2 and WPA3', wpa3: 'WPA3' }
  },
  bandNames: { name: 'Bands', options: { 'one-name': 'one name', 'one-a-band': 'one name a band' } },
  extenderNames: {
    name: 'Extenders',
    options: { same: 'the router’s name', suffix: 'the router’s name with a suffix' }
  },
  updates: { name: 'Updates', options: { automatic: 'automatic', managed: 'managed by us' } },
  channelSet: { name: 'Channels at 2.4 GHz', options: { '1-6-11': '1, 6 and 11', '1-5-9-13': '1, 5, 9 and 13' } }
} as const
export type SchoolName = keyof typeof schoolWords

/** The value of a figure in a standard, as it is where a version does not name it. */
export function figureOf(policy: Policy, name: FigureName): number {
  return policy[name] ?? (laterFigures as Partial<Record<FigureName, number>>)[name] ?? 0
}
