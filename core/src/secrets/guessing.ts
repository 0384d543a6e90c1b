/** Ways to guess a passphrase, with the guesses a second that each is taken to make; estimates of this project, and shown as such. */
export const attacks = [
  { id: 'page', label: 'typing into a login page that does not lock', perSecond: 10 },
  { id: 'card', label: 'from a recorded WPA2 join, on one graphics card', perSecond: 2e6 },
  { id: 'hall', label: 'the same, on a rented hall of a thousand cards', perSecond: 2e9 }
] as const

/** How long one way takes on average. */
export interface GuessTime {
  id: (typeof attacks)[number]['id']
  label: string
  perSecond: number
  /** Until half of all guesses are made, seconds. */
  seconds: number
  duration: string
}

/** The time to guess what takes 2^bits guesses, by each way: on average half of them are needed. */
export function guessTimes(bits: number): GuessTime[] {
  return attacks.map(({ id, label, perSecond }) => {
    const seconds = 2 ** Math.max(0, bits - 1) / perSecond
    return { id, label, perSecond, seconds, duration: timeInWords(seconds) }
  })
}

const MINUTE = 60
const HOUR = 60 * MINUTE
const DAY = 24 * HOUR
const YEAR = 365.25 * DAY

/** A time as people say it: at once, minutes, days, years. */
export function timeInWords(seconds: number): string {
  if (seconds < 1) return 'at once'
  for (const [unit, single, many, upTo] of [
    [1, 'second', 'seconds', MINUTE],
    [MINUTE, 'minute', 'minutes', HOUR],
    [HOUR, 'hour', 'hours', 2 * DAY],
    [DAY, 'day', 'days', YEAR],
    [YEAR, 'year', 'years', 1000 * YEAR]
  ] as const) {
    if (seconds < upTo) {
      const count = Math.max(1, Math.round(seconds / unit))
      return `${count} ${count === 1 ? single : many}`
    }
  }
  if (seconds < 1e6 * YEAR) return `${Math.round(seconds / YEAR / 1000)} thousand years`
  return 'more than a million years'
}
