import type { Wait } from '../../record/record'

/** How long something takes, in minutes: at least, usually, at most. */
export interface Span {
  least: number
  usual: number
  most: number
}

export const hands = (least: number, usual: number, most: number): Span => ({ least, usual, most })

/** What is left of a wait that runs. A clock that was set back makes it no longer than it is. */
export function leftOf({ at, usualMin, mostMin }: Wait, nowMs: number): Span {
  const gone = Math.max(0, (nowMs - Date.parse(at)) / 60_000)
  const usual = Math.max(0, usualMin - gone)
  return hands(0, usual, Math.max(usual, mostMin - gone))
}
