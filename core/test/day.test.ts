import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soonestOrder, splitDay, suggestDay } from '@pasado/core/work/day/day-order'
import {
  atWallMinute,
  clock,
  inPlannedOrder,
  planDay,
  startWithin,
  wallMinute,
  type Stop,
  type Ways,
  type Window
} from '@pasado/core/work/day/day-plan'
import { callWords, nextCall } from '@pasado/core/work/day/next-call'

const stop = (
  id: string,
  town: string,
  plannedMin: number | null,
  likelyMin = 60,
  cautiousMin = likelyMin * 1.5
): Stop => ({ id, place: id, town, plannedMin, likelyMin, cautiousMin })
const at = (hours: number, minutes = 0) => hours * 60 + minutes
const ways = (minutes: number | null, windows: Record<string, Window[]> = {}): Ways => ({
  minutes: (from, to) => (from === to ? 0 : minutes),
  windows: (town) => windows[town] ?? []
})
const kinds = (plan: ReturnType<typeof planDay>) => plan.stops.map(({ problems }) => problems.map(({ kind }) => kind))

describe('a day as it is planned', () => {
  it('goes from stop to stop, and waits for the time that was agreed', () => {
    const plan = planDay([stop('a', 'Great', at(9)), stop('b', 'Great', at(11))], ways(20), at(8))
    expect(plan.stops.map(({ arriveMin, startMin, endMin }) => [arriveMin, startMin, endMin].map(clock))).toEqual([
      ['08:20', '09:00', '10:00'],
      ['10:20', '11:00', '12:00']
    ])
    expect([clock(plan.endMin), plan.travelMin]).toEqual(['12:20', 60])
    expect(kinds(plan)).toEqual([[], []])
  })

  it('tells who is late, and who may be', () => {
    const plan = planDay(
      [stop('a', 'Great', at(9), 60, 100), stop('b', 'Great', at(10, 30)), stop('c', 'Great', at(11, 30))],
      ways(20),
      at(8)
    )
    expect(kinds(plan)).toEqual([[], ['perhaps-late'], ['late']])
    expect(plan.stops[1]!.problems[0]!.message).toContain('11:00, 30 min late')
    expect(plan.stops[2]!.problems[0]!.message).toContain('11:50, 20 min late')
  })

  it('ferries: begun when the island is reached, warned where the last way back may be missed, and said where the work does not fit', () => {
    const windows = {
      Ness: [
        { fromMin: at(8), toMin: at(12) },
        { fromMin: at(14), toMin: at(18) }
      ]
    }
    const early = planDay([stop('a', 'Ness', at(12, 30))], ways(0, windows), at(8))
    expect([kinds(early), clock(early.stops[0]!.startMin)]).toEqual([[['unreachable']], '14:00'])
    expect(early.stops[0]!.problems[0]!.message).toContain('08:00 to 12:00 and 14:00 to 18:00')
    expect(kinds(planDay([stop('a', 'Ness', at(10, 50), 60, 90)], ways(0, windows), at(8)))).toEqual([['stranded']])
    const never = planDay([stop('a', 'Ness', at(17, 30))], ways(0, windows), at(8))
    expect([kinds(never), never.possible]).toEqual([[['no-time']], false])
  })

  it('a way that nobody typed is told as not known and counts nothing', () => {
    expect(planDay([stop('a', 'Great', null)], ways(null), at(8)).stops[0]).toMatchObject({
      travelMin: null,
      arriveMin: at(8)
    })
    expect(
      inPlannedOrder([stop('x', 'G', null), stop('y', 'G', at(9)), stop('z', 'G', at(8))]).map(({ id }) => id)
    ).toEqual(['z', 'y', 'x'])
    expect([clock(0), clock(1500), startWithin([], 5, 10)]).toEqual(['00:00', '01:00 +1', 5])
  })
})

describe('the order that is home soonest', () => {
  const random = fc
    .record({
      stops: fc.array(
        fc.record({
          town: fc.constantFrom('Great', 'Little', 'Ness'),
          likelyMin: fc.integer({ min: 10, max: 150 }),
          plannedMin: fc.option(fc.integer({ min: 400, max: 1100 }))
        }),
        { minLength: 1, maxLength: 5 }
      ),
      ways: fc.array(fc.integer({ min: 0, max: 90 }), { minLength: 36, maxLength: 36 }),
      little: fc.constantFrom<Window[]>(
        [],
        [{ fromMin: 480, toMin: 720 }],
        [
          { fromMin: 450, toMin: 600 },
          { fromMin: 800, toMin: 1200 }
        ]
      )
    })
    .map((item) => {
      const stops = item.stops.map(({ town, likelyMin, plannedMin }, index) => ({
        ...stop(String(index), town, plannedMin ?? null, likelyMin)
      }))
      const index = (s: Stop | null) => (s === null ? 5 : Number(s.id))
      return {
        stops,
        ways: {
          minutes: (from: Stop | null, to: Stop | null) => item.ways[index(from) * 6 + index(to)]!,
          windows: (town: string) => (town === 'Little' ? item.little : [])
        } satisfies Ways
      }
    })
  const orders = <T>(list: readonly T[]): T[][] =>
    list.length <= 1
      ? [[...list]]
      : list.flatMap((item, place) => orders(list.filter((_, other) => other !== place)).map((rest) => [item, ...rest]))
  const free = (list: readonly Stop[]) => list.map((item) => ({ ...item, plannedMin: null }))

  it('is what trying every order finds; where none is possible, none is given', () => {
    fc.assert(
      fc.property(random, ({ stops, ways: known }) => {
        const found = soonestOrder(stops, known, 480)
        const possible = orders(stops)
          .map((order) => planDay(free(order), known, 480))
          .filter((plan) => plan.possible)
        if (possible.length === 0) expect(found).toBeNull()
        else expect(planDay(free(found!), known, 480).endMin).toBe(Math.min(...possible.map(({ endMin }) => endMin)))
      }),
      { numRuns: 200 }
    )
  })

  it('a suggestion keeps to every window, leaves no stop out, and is only made where it mends or saves', () => {
    fc.assert(
      fc.property(random, ({ stops, ways: known }) => {
        const found = suggestDay(stops, known, 480)
        if (!found) return
        expect(found.order.map(({ id }) => id).sort()).toEqual(stops.map(({ id }) => id).sort())
        expect(
          found.plan.stops.every(({ problems }) =>
            problems.every(({ kind }) => kind === 'perhaps-late' || kind === 'stranded')
          )
        ).toBe(true)
        const now = planDay(inPlannedOrder(stops), known, 480)
        expect(found.savesMin >= 10 || now.stops.some(({ problems }) => problems.length > 0)).toBe(true)
      }),
      { numRuns: 200 }
    )
  })

  it('takes the island first where its ferry ends at noon', () => {
    const windows = { Ness: [{ fromMin: at(8), toMin: at(12) }] }
    const stops = [stop('great', 'Great', at(9)), stop('ness', 'Ness', at(11, 30))]
    expect(planDay(stops, ways(30, windows), at(8)).possible).toBe(false)
    const found = suggestDay(stops, ways(30, windows), at(8))!
    expect(found.order.map(({ id, plannedMin }) => [id, clock(plannedMin!)])).toEqual([
      ['ness', '08:30'],
      ['great', '10:00']
    ])
  })

  it('more stops than can be proven give no order', () => {
    expect(
      soonestOrder(
        Array.from({ length: 13 }, (_, index) => stop(String(index), 'G', null)),
        ways(5),
        480
      )
    ).toBeNull()
    expect(soonestOrder([], ways(5), 480)).toEqual([])
  })
})

describe('what is not known, and what is over', () => {
  const three = [stop('a', 'Great', at(16)), stop('b', 'Great', at(9)), stop('c', 'Great', at(13))]

  it('no order is proposed over a way that nobody typed, nor against a day that has one', () => {
    const known: Ways = ways(10)
    expect(suggestDay(three, known, at(8))).not.toBeNull()
    for (const missing of [
      ['a', 'b'],
      ['b', 'c'],
      ['a', null],
      ['b', null]
    ] as const) {
      const gap: Ways = {
        ...known,
        minutes: (from, to) =>
          (missing as readonly (string | null)[]).includes(from?.id ?? null) &&
          (missing as readonly (string | null)[]).includes(to?.id ?? null)
            ? null
            : 10
      }
      const found = suggestDay(three, gap, at(8))
      if (found) expect(found.plan.unknownWays).toBe(0)
    }
    expect(suggestDay(three, ways(null), at(8))).toBeNull()
    expect(planDay(three, ways(null), at(8)).unknownWays).toBe(4)
    // That a day cannot be done even if unknown ways took no time is told all the same.
    expect(soonestOrder(three, ways(null), at(8))).not.toBeNull()
    expect(soonestOrder(three, ways(null), at(8), null, Infinity)).toBeNull()
  })

  it('what was to begin by now is no longer moved, and nothing is planned into the past', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 8, max: 20 }), { minLength: 2, maxLength: 6 }),
        fc.integer({ min: at(6), max: at(22) }),
        (hours, now) => {
          const stops = hours.map((hour, index) => stop(String(index), 'Great', at(hour)))
          const { begun, rest, from, leaveMin } = splitDay(stops, ways(10), at(8), now)
          expect([...begun, ...rest].map(({ id }) => id).sort()).toEqual(stops.map(({ id }) => id).sort())
          for (const stop of begun) expect(stop.plannedMin!).toBeLessThanOrEqual(now)
          const found = suggestDay(rest, ways(10), leaveMin, from)
          for (const stop of found?.order ?? []) expect(stop.plannedMin!).toBeGreaterThanOrEqual(now)
        }
      )
    )
    expect(splitDay(three, ways(10), at(8), null)).toMatchObject({ begun: [], from: null, leaveMin: at(8) })
  })

  it('minutes are those of the clock on the wall, on the days when clocks change as well', () => {
    // The zone of the tests is the machine's; Date tells the wall's clock in any.
    for (const day of [new Date(2026, 2, 29), new Date(2026, 9, 25), new Date(2026, 6, 1)]) {
      for (const hour of [4, 9, 15, 23]) {
        const moment = new Date(day.getFullYear(), day.getMonth(), day.getDate(), hour, 30)
        expect([wallMinute(moment, day), atWallMinute(day, at(hour, 30)).getTime()]).toEqual([
          at(hour, 30),
          moment.getTime()
        ])
      }
      expect(wallMinute(new Date(day.getFullYear(), day.getMonth(), day.getDate() + 1, 1), day)).toBe(1440 + 60)
    }
  })
})

describe('a day that slips', () => {
  const three = [
    stop('a', 'Great', at(9, 30), 60, 80),
    stop('b', 'Great', at(11, 30), 60, 70),
    stop('c', 'Great', at(15), 30, 40)
  ]
  const by = (now: number | null) => planDay(three, ways(20), at(8), null, now)

  it('goes on from now with what is left of the visit that was to begin: who would wait ten minutes is called, with the sentence', () => {
    expect(nextCall(three, by(null))).toBeNull()
    expect(nextCall(three, by(at(9, 45)))).toBeNull()
    // At a quarter past eleven an hour is left of the first: 12:15, and the way.
    const slipped = by(at(11, 15))
    expect(slipped.stops.map(({ isBegun, endMin }) => [isBegun, endMin])).toEqual([
      [true, at(12, 15)],
      [false, at(13, 35)],
      [false, at(15, 30)]
    ])
    const call = nextCall(three, slipped)!
    expect(call).toEqual({ id: 'b', plannedMin: at(11, 30), arriveMin: at(12, 35), latestMin: at(12, 55) })
    expect(callWords(call, 'Isolde Marram')).toBe(
      'This is Isolde Marram, your technician. I was to be with you at 11:30. The visit before takes longer: I will likely be there at 12:35, at the latest about 12:55. Does that still suit you?'
    )
  })

  it('calls nobody who was to be visited by now, nor one without a time', () => {
    const [first, second] = three
    const list = [first!, second!, stop('d', 'Great', null)]
    expect(nextCall(list, planDay(list, ways(20), at(8), null, at(11, 40)))).toBeNull()
  })
})
