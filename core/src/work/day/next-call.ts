import { clock, type DayPlan, type Stop } from './day-plan'

/** The customer to call as the day slips: who is next of those that will be waited for, and when one will be there. */
export interface NextCall {
  id: string
  plannedMin: number
  /** When one will likely be there, and at the latest in nine of ten; minutes of the day, in steps that people say. */
  arriveMin: number
  latestMin: number
}

/** Nobody is called for less than so many minutes. */
const WORTH_A_CALL = 10
/** People say a time in steps of so many minutes. */
const STEP = 5

const said = (minutes: number) => Math.ceil(minutes / STEP) * STEP

/** Whom to call: the first customer of the rest of the day who would wait; null where nobody would. */
export function nextCall(stops: readonly Stop[], plan: DayPlan): NextCall | null {
  for (const { id, isBegun, arriveMin, startMin, cautiousArriveMin } of plan.stops) {
    const planned = stops.find((stop) => stop.id === id)?.plannedMin ?? null
    if (isBegun || planned === null) continue
    // Where the home is reached later only, one is there then.
    const there = Math.max(arriveMin, startMin)
    if (there - planned < WORTH_A_CALL) continue
    return { id, plannedMin: planned, arriveMin: said(there), latestMin: said(Math.max(there, cautiousArriveMin)) }
  }
  return null
}

/** What is said on the telephone. */
export function callWords({ plannedMin, arriveMin, latestMin }: NextCall, technician: string): string {
  const latest = latestMin > arriveMin ? `, at the latest about ${clock(latestMin)}` : ''
  return `This is ${technician}, your technician. I was to be with you at ${clock(plannedMin)}. The visit before takes longer: I will likely be there at ${clock(arriveMin)}${latest}. Does that still suit you?`
}
