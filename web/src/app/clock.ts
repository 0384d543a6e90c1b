import { create } from 'zustand'

/** From how many seconds on a clock is called wrong: what is answered carries whole seconds, and is some on its way. */
const TOLERATED_MS = 120_000

/** How far this device's clock is ahead of the server's, in milliseconds; null where it is right as far as is known. */
export const useClock = create<{ aheadMs: number | null }>(() => ({ aheadMs: null }))

/** Holds this device's clock against the moment at which the server answered. */
export function holdClockAgainst(date: string | null, now = Date.now()): void {
  const there = date === null ? NaN : Date.parse(date)
  if (Number.isNaN(there)) return
  const aheadMs = Math.abs(now - there) > TOLERATED_MS ? now - there : null
  const known = useClock.getState().aheadMs
  if ((known === null) !== (aheadMs === null) || Math.abs((known ?? 0) - (aheadMs ?? 0)) > TOLERATED_MS)
    useClock.setState({ aheadMs })
}

function countOf(minutes: number): [number, string] {
  if (minutes < 120) return [minutes, 'minute']
  return minutes < 48 * 60 ? [Math.round(minutes / 60), 'hour'] : [Math.round(minutes / 1440), 'day']
}

/** How far a clock is off, as people say it. */
export function offWords(aheadMs: number): string {
  const minutes = Math.round(Math.abs(aheadMs) / 60_000)
  const [count, unit] = countOf(minutes)
  return `${count} ${unit}${count === 1 ? '' : 's'} ${aheadMs > 0 ? 'fast' : 'slow'}`
}
