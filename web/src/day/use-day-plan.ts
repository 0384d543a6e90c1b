import type { AnswerOf } from '@pasado/core/api/all'
import { useSame } from '../app/use-same'
import { isSameDay, startOfDay } from 'date-fns'
import { useMemo, useState } from 'react'
import { MOST_STOPS, soonestOrder, splitDay, suggestDay, type DaySuggestion } from '@pasado/core/work/day/day-order'
import { inPlannedOrder, planDay, wallMinute, type DayPlan, type Stop, type Ways } from '@pasado/core/work/day/day-plan'
import { nextCall, type NextCall } from '@pasado/core/work/day/next-call'
import { useMinute } from '../app/use-minute'
import { ask, failureWords } from '../app/api'
import type { ListedVisit } from '@pasado/core/api/day'
import { useReading } from '../app/read'

type Given = AnswerOf<'GET /day/plan'>

/** A place as travel times know it. */
const placesOf = (stop: Stop | null): string[] =>
  stop === null ? ['depot'] : [`home ${stop.place}`, `town ${stop.town}`]

/** Travel times looked up from the nearest to the widest: home to home, home to town, town to town. */
function waysFrom({ travel, windows }: Pick<Given, 'travel' | 'windows'>): Ways {
  const known = new Map(travel.map(({ a, b, minutes }) => [`${a}|${b}`, minutes]))
  const between = (a: string, b: string) => known.get(a < b ? `${a}|${b}` : `${b}|${a}`)
  return {
    minutes: (from, to) => {
      if (from && to && from.place === to.place) return 0
      for (const a of placesOf(from))
        for (const b of placesOf(to)) {
          const found = between(a, b)
          if (found !== undefined) return found
        }
      return null
    },
    windows: (town) => windows.filter((window) => window.town === town)
  }
}

export interface DayPlanned {
  stops: Stop[]
  ways: Ways
  plan: DayPlan
  suggestion: DaySuggestion | null
  /** False where in no order every home is reached within its hours. */ doable: boolean
  /** Whom to call, as the day slips. */ call: NextCall | null
  phones: ReadonlyMap<string, string>
  load: string[]
  /** What is to be at hand at some visit of the day, each once. */ atHand: string[]
}

/** The plan of one technician's visits on a day, and a way to type how far it is. */
export function useDayPlan(
  visits: readonly ListedVisit[],
  day: Date,
  leaveMin: number
): {
  planned: DayPlanned | null
  problem: string | null
  setTravel: (from: Stop | null, to: Stop | null, minutes: number | null) => Promise<void>
} {
  const [refused, setRefused] = useState<string | null>(null)
  const key = visits.map(({ id, seq }) => `${id} ${seq}`).join(',')
  const {
    value: given,
    problem: unread,
    again
  } = useReading(
    ['GET /day/plan', key],
    () => ask('GET /day/plan', { query: { visits: visits.map(({ id }) => id).join(',') } }),
    { otherwise: 'The day could not be planned.', keep: true }
  )
  const midnight = startOfDay(day).getTime()
  const now = useMinute()
  // What of the visits counts is in their key.
  const booked = useSame(visits, key)
  const planned = useMemo(() => {
    if (!given) return null
    const estimates = new Map(given.estimates.map((estimate) => [estimate.visit, estimate]))
    const stops = inPlannedOrder(
      booked.map(({ id, home, town, plannedAt }): Stop => ({
        id,
        place: home,
        town,
        plannedMin: plannedAt ? wallMinute(new Date(plannedAt), new Date(midnight)) : null,
        likelyMin: estimates.get(id)?.likelyMin ?? 0,
        cautiousMin: estimates.get(id)?.cautiousMin ?? 0
      }))
    )
    const ways = waysFrom(given)
    // What was to begin by now goes on from now; nothing is planned into the past.
    const nowMin = isSameDay(now, new Date(midnight)) ? wallMinute(now, now) : null
    const plan = planDay(stops, ways, leaveMin, null, nowMin)
    const { rest, from, leaveMin: goesOn } = splitDay(stops, ways, leaveMin, nowMin)
    return {
      stops,
      ways,
      plan,
      call: nextCall(stops, plan),
      phones: new Map(given.phones.map(({ visit, phone }) => [visit, phone])),
      suggestion: suggestDay(rest, ways, goesOn, from),
      doable: stops.length > MOST_STOPS || soonestOrder(stops, ways, leaveMin) !== null,
      load: booked.flatMap(({ id }) => estimates.get(id)?.load ?? []),
      atHand: [...new Set(booked.flatMap(({ id }) => estimates.get(id)?.atHand ?? []))]
    }
  }, [given, booked, midnight, leaveMin, now])
  const setTravel = async (from: Stop | null, to: Stop | null, minutes: number | null) => {
    // Typed once for the towns, it is known for every home in them; within a town it is from home to home.
    const [a, b] =
      from && to && from.town === to.town
        ? [placesOf(from)[0]!, placesOf(to)[0]!]
        : [placesOf(from).at(-1)!, placesOf(to).at(-1)!]
    try {
      await ask('POST /ways/travel', { body: { a, b, minutes } })
      setRefused(null)
      await again()
    } catch (error) {
      setRefused(failureWords(error, 'It could not be saved; try again.'))
    }
  }
  return { planned, problem: refused ?? unread, setTravel }
}
