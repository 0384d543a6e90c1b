/** A visit of a day: where, when it is planned, and how long it takes; minutes of the local day. */
export interface Stop {
  id: string
  place: string
  /** The island or town, by which ferries and travel times are known where the home's own are not. */
  town: string
  /** When it is planned, minutes after midnight; null where it is not. */
  plannedMin: number | null
  /** Half of such visits are over after so long, and nine in ten after so long. */
  likelyMin: number
  cautiousMin: number
}

/** A time of the day in which a town can be reached and left again. */
export interface Window {
  fromMin: number
  toMin: number
}

/** What is known of the ways: minutes between two places, null where nobody typed them; windows of towns that have some. */
export interface Ways {
  minutes: (from: Stop | null, to: Stop | null) => number | null
  windows: (town: string) => readonly Window[]
}

export type DayProblemKind = 'late' | 'perhaps-late' | 'unreachable' | 'stranded' | 'no-time'

/** One stop of a day as it would go. */
export interface PlannedStop {
  id: string
  travelMin: number | null
  /** When one is there, begins, and is through: likely, and if it takes long. */
  arriveMin: number
  startMin: number
  endMin: number
  cautiousEndMin: number
  /** When one is there where the visits before take long. */ cautiousArriveMin: number
  /** Whether it was to begin by now: what it takes is what is left of it, from now on. */ isBegun: boolean
  problems: { kind: DayProblemKind; message: string }[]
}

/** A day in one order. */
export interface DayPlan {
  stops: PlannedStop[]
  /** Back where it began, likely. */ endMin: number
  travelMin: number
  possible: boolean
  /** Ways that nobody typed: their minutes are in none of the figures, so nothing is sooner than it says and all may be later. */ unknownWays: number
}

/** The minute of the day that a clock on the wall shows at a moment, counted from the midnight before `day`: on the days when clocks change it is not what has gone by since. */
export function wallMinute(moment: Date, day: Date): number {
  const days = Math.round(
    (Date.UTC(moment.getFullYear(), moment.getMonth(), moment.getDate()) -
      Date.UTC(day.getFullYear(), day.getMonth(), day.getDate())) /
      86_400_000
  )
  return days * 1440 + moment.getHours() * 60 + moment.getMinutes()
}

/** The moment at which a clock on the wall shows a minute of a day; of an hour that is left out, the one after. */
export function atWallMinute(day: Date, minute: number): Date {
  return new Date(day.getFullYear(), day.getMonth(), day.getDate(), 0, minute)
}

/** Minutes after midnight as a clock tells them; past midnight with how many days later. */
export function clock(minutes: number): string {
  const whole = Math.round(minutes)
  const days = Math.floor(whole / 1440)
  const rest = whole - days * 1440
  return `${String(Math.floor(rest / 60)).padStart(2, '0')}:${String(rest % 60).padStart(2, '0')}${days > 0 ? ` +${days}` : ''}`
}

const windowWords = (windows: readonly Window[]) =>
  windows.map(({ fromMin, toMin }) => `${clock(fromMin)} to ${clock(toMin)}`).join(' and ')

/** The earliest start from a minute on at which the work fits into a window; null where none does. */
export function startWithin(windows: readonly Window[], fromMin: number, workMin: number): number | null {
  if (windows.length === 0) return fromMin
  const fitting = windows
    .map((window) => Math.max(window.fromMin, fromMin))
    .filter((start, at) => start + workMin <= windows[at]!.toMin)
  return fitting.length ? Math.min(...fitting) : null
}

/** Whether a stop was to begin by now. */
export const isBegunBy = ({ plannedMin }: Stop, nowMin: number | null): boolean =>
  nowMin !== null && plannedMin !== null && plannedMin <= nowMin

/** Stops in the order they are planned; those without a time last, as they were given. */
export function inPlannedOrder(stops: readonly Stop[]): Stop[] {
  return stops
    .map((stop, at) => ({ stop, at }))
    .sort((a, b) => (a.stop.plannedMin ?? Infinity) - (b.stop.plannedMin ?? Infinity) || a.at - b.at)
    .map(({ stop }) => stop)
}

/**
 * How a day goes in the order given: nobody begins before the planned time, nor outside the hours in which the home can be reached.
 * @param leaveMin when one sets out
 * @param from where; null for the depot
 * @param nowMin where the day is today, what time it is: what was to begin by now and is still open goes on from now
 */
export function planDay(
  stops: readonly Stop[],
  ways: Ways,
  leaveMin: number,
  from: Stop | null = null,
  nowMin: number | null = null
): DayPlan {
  let [now, cautious, before, travelled, unknownWays]: [number, number, Stop | null, number, number] = [
    leaveMin,
    leaveMin,
    from,
    0,
    0
  ]
  const planned: PlannedStop[] = []
  for (const stop of stops) {
    const travelMin = ways.minutes(before, stop)
    const arriveMin = now + (travelMin ?? 0)
    const cautiousArrive = cautious + (travelMin ?? 0)
    const windows = ways.windows(stop.town)
    const wanted = Math.max(arriveMin, stop.plannedMin ?? 0)
    const fits = startWithin(windows, wanted, stop.likelyMin)
    const startMin = fits ?? wanted
    const isBegun = isBegunBy(stop, nowMin)
    const goesOn = isBegun ? nowMin! : 0
    const endMin = Math.max(startMin, goesOn) + stop.likelyMin
    const cautiousEndMin = Math.max(startMin, cautiousArrive, stop.plannedMin ?? 0, goesOn) + stop.cautiousMin
    planned.push({
      id: stop.id,
      travelMin,
      arriveMin,
      startMin,
      endMin,
      cautiousEndMin,
      cautiousArriveMin: cautiousArrive,
      isBegun,
      problems: problemsOf(stop, {
        arriveMin,
        cautiousArrive,
        startMin,
        fits: fits !== null,
        cautiousEndMin,
        windows,
        first: before === from
      })
    })
    travelled += travelMin ?? 0
    if (travelMin === null) unknownWays++
    now = endMin
    cautious = cautiousEndMin
    before = stop
  }
  const back = stops.length ? ways.minutes(before, null) : 0
  if (back === null) unknownWays++
  const home = back ?? 0
  return {
    stops: planned,
    endMin: now + home,
    travelMin: travelled + home,
    unknownWays,
    possible: planned.every(({ problems }) => problems.every(({ kind }) => kind !== 'no-time'))
  }
}

interface Going {
  arriveMin: number
  cautiousArrive: number
  startMin: number
  fits: boolean
  cautiousEndMin: number
  windows: readonly Window[]
  first: boolean
}

function problemsOf(
  stop: Stop,
  { arriveMin, cautiousArrive, startMin, fits, cautiousEndMin, windows, first }: Going
): PlannedStop['problems'] {
  const found: PlannedStop['problems'] = []
  const { plannedMin, town } = stop
  const late = plannedMin === null ? 0 : Math.round(arriveMin - plannedMin)
  const perhaps = plannedMin === null ? 0 : Math.round(cautiousArrive - plannedMin)
  if (late > 0)
    found.push({
      kind: 'late',
      message: `${first ? 'By the way alone you' : 'After the visit before and the way you'} arrive at ${clock(arriveMin)}, ${late} min late.`
    })
  else if (perhaps > 0)
    found.push({
      kind: 'perhaps-late',
      message: `If the visit before takes long, one is there at ${clock(cautiousArrive)}, ${perhaps} min late.`
    })
  if (windows.length === 0) return found
  if (!fits)
    found.push({
      kind: 'no-time',
      message: `${town} is reached ${windowWords(windows)} only: from ${clock(Math.max(arriveMin, plannedMin ?? 0))} on the work does not fit in.`
    })
  else if (plannedMin !== null && startMin > Math.max(plannedMin, arriveMin))
    found.push({
      kind: 'unreachable',
      message: `${town} is reached ${windowWords(windows)}: one can begin at ${clock(startMin)}, not at ${clock(plannedMin)}.`
    })
  const inside = windows.find(({ fromMin, toMin }) => startMin >= fromMin && startMin <= toMin)
  if (fits && inside && cautiousEndMin > inside.toMin)
    found.push({
      kind: 'stranded',
      message: `If it takes long, it ends at ${clock(cautiousEndMin)}, after the last way back at ${clock(inside.toMin)}.`
    })
  return found
}
