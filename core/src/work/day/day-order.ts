import { inPlannedOrder, isBegunBy, planDay, startWithin, type DayPlan, type Stop, type Ways } from './day-plan'

/** Above so many stops in a day the order is no longer proven. */
export const MOST_STOPS = 12

/**
 * The order of a day's stops that is back home soonest, at likely durations and within the hours in which each home can be reached.
 * Planned times are let go: customers have to be asked. Proven for up to 12 stops, by dynamic programming over the sets of stops done
 * (Held and Karp's way for the travelling salesman, with windows: to be done sooner with the same stops is never worse, as one may wait).
 * @param from where one sets out; null for the depot
 * @param unknown what a way is taken for that nobody typed: nothing, so that what is impossible even then is so; or never gone
 * @returns null where no order reaches every home within its hours, or there are more stops
 */
export function soonestOrder(
  stops: readonly Stop[],
  ways: Ways,
  leaveMin: number,
  from: Stop | null = null,
  unknown: number = 0
): Stop[] | null {
  const count = stops.length
  if (count === 0) return []
  if (count > MOST_STOPS) return null
  const travel = (origin: number | null, to: number | null) =>
    ways.minutes(origin === null ? from : stops[origin]!, to === null ? null : stops[to]!) ?? unknown
  const size = 1 << count
  const ends = new Float64Array(size * count).fill(Infinity)
  const cameFrom = new Int8Array(size * count).fill(-1)
  const arrive = (done: number, last: number | null, to: number, at: number) => {
    const start = startWithin(ways.windows(stops[to]!.town), at + travel(last, to), stops[to]!.likelyMin)
    if (start === null || start === Infinity) return
    const cell = (done | (1 << to)) * count + to
    const end = start + stops[to]!.likelyMin
    if (end < ends[cell]!) {
      ends[cell] = end
      cameFrom[cell] = last ?? -1
    }
  }
  for (let to = 0; to < count; to++) arrive(0, null, to, leaveMin)
  for (let done = 1; done < size; done++) {
    for (let last = 0; last < count; last++) {
      const at = ends[done * count + last]!
      if (at === Infinity) continue
      for (let to = 0; to < count; to++) if (!(done & (1 << to))) arrive(done, last, to, at)
    }
  }
  let best = -1
  for (let last = 0; last < count; last++) {
    const back = (value: number) => ends[(size - 1) * count + value]! + travel(value, null)
    if (back(last) < Infinity && (best < 0 || back(last) < back(best))) best = last
  }
  if (best < 0) return null
  const order: Stop[] = []
  for (let done = size - 1, at = best; at >= 0;) {
    order.unshift(stops[at]!)
    const before = cameFrom[done * count + at]!
    done &= ~(1 << at)
    at = before
  }
  return order
}

/** A suggestion for a day: another order with its times, and what it saves. */
export interface DaySuggestion {
  order: Stop[]
  plan: DayPlan
  savesMin: number
}

const ROUND_MIN = 5
const WORTH_MIN = 10

/**
 * A better order for a day, where there is one that is worth asking customers for: one that mends what cannot be as it is planned, or is
 * home ten minutes sooner. Its times are whole five minutes. None is proposed over a way that nobody typed, nor against a day that has
 * one: what it would save is not known.
 * @param leaveMin when one sets out, and from where: what lies before it is done or begun, and no longer to be moved
 */
export function suggestDay(
  stops: readonly Stop[],
  ways: Ways,
  leaveMin: number,
  from: Stop | null = null
): DaySuggestion | null {
  if (stops.length < 2) return null
  const now = planDay(inPlannedOrder(stops), ways, leaveMin, from)
  const order = now.unknownWays > 0 ? null : soonestOrder(stops, ways, leaveMin, from, Infinity)
  if (!order) return null
  const free = order.map((stop): Stop => ({ ...stop, plannedMin: null }))
  // Each begins at a whole five minutes, if that still fits; so the times can be told on the telephone.
  const timed: Stop[] = []
  for (const stop of free) {
    const { startMin } = planDay([...timed, stop], ways, leaveMin, from).stops.at(-1)!
    const rounded = Math.ceil(startMin / ROUND_MIN) * ROUND_MIN
    timed.push({
      ...stop,
      plannedMin: startWithin(ways.windows(stop.town), rounded, stop.likelyMin) === rounded ? rounded : startMin
    })
  }
  const plan = planDay(timed, ways, leaveMin, from)
  const savesMin = now.endMin - plan.endMin
  const hard = (plan: DayPlan) =>
    plan.stops
      .flatMap(({ problems }) => problems)
      .filter(({ kind }) => kind === 'late' || kind === 'no-time' || kind === 'unreachable').length
  const sameOrder = order.every(({ id }, at) => id === now.stops[at]!.id)
  return plan.possible && (hard(plan) < hard(now) || (!sameOrder && savesMin >= WORTH_MIN))
    ? { order: timed, plan, savesMin }
    : null
}

/** A day as it stands at a minute of it: what was to begin by then, which stays as it is, and from where and when the rest goes on. */
export function splitDay(
  stops: readonly Stop[],
  ways: Ways,
  leaveMin: number,
  nowMin: number | null
): { begun: Stop[]; rest: Stop[]; from: Stop | null; leaveMin: number } {
  const planned = inPlannedOrder(stops)
  const begun = planned.filter((stop) => isBegunBy(stop, nowMin))
  const rest = planned.filter((stop) => !begun.includes(stop))
  const from = begun.at(-1) ?? null
  const through = from ? planDay(begun, ways, leaveMin, null, nowMin).stops.at(-1)!.endMin : leaveMin
  return { begun, rest, from, leaveMin: Math.max(through, nowMin ?? 0) }
}
