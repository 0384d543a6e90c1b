import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  choicesFor,
  costOf,
  planChannels,
  weightOf,
  type ChannelChoice,
  type ChannelQuestion,
  type Neighbour,
  type PlannedRadio
} from '@pasado/core/radio/channel-plan'
import { countryChoices, permissionOf } from '@pasado/core/radio/permissions'
import {
  channelProblem,
  foundOn,
  partsOf,
  permittedBy,
  radarMinutes,
  unknownCountry
} from '@pasado/core/radio/permitted'

const band = fc.constantFrom('2.4' as const, '5' as const)
const radio: fc.Arbitrary<PlannedRadio> = fc.record({
  id: fc.string({ minLength: 1, maxLength: 3 }),
  band,
  widthsMHz: fc.constantFrom([20] as const, [20, 40] as const, [20, 40, 80] as const)
})
const neighbour: fc.Arbitrary<Neighbour> = band.chain((item) =>
  fc.record({
    band: fc.constant(item),
    channel: item === '2.4' ? fc.integer({ min: 1, max: 13 }) : fc.constantFrom(36, 44, 52, 100, 116),
    widthMHz: fc.constant(20 as const),
    dbm: fc.integer({ min: -100, max: -40 }),
    busy: fc.double({ min: 0, max: 1, noNaN: true })
  })
)
const questions = fc
  .record({
    radios: fc.array(radio, { minLength: 1, maxLength: 3 }),
    neighbours: fc.array(neighbour, { maxLength: 8 }),
    heard: fc.array(fc.integer({ min: -100, max: -40 }), { minLength: 9, maxLength: 9 }),
    radar: fc.boolean()
  })
  .map(({ heard, ...rest }): ChannelQuestion => ({
    ...rest,
    country: 'XS',
    hears: (a, b) => heard[Math.min(a, b) * 3 + Math.max(a, b)]!
  }))

/** Every plan there is, the plain way. */
function bruteForce(question: ChannelQuestion): number {
  const options = question.radios.map((plannedRadio) => choicesFor(question, plannedRadio))
  let best = Infinity
  const go = (chosen: ChannelChoice[]): void => {
    if (chosen.length === options.length) {
      best = Math.min(best, costOf(question, chosen).cost)
      return
    }
    for (const channelChoice of options[chosen.length]!) go([...chosen, channelChoice])
  }
  go([])
  return best
}

describe('the plan of channels', () => {
  it('is the one that going through all of them finds, proven', () => {
    fc.assert(
      fc.property(questions, (question) => {
        const plan = planChannels(question)
        expect(plan.proven).toBe(true)
        expect(plan.cost).toBeCloseTo(bruteForce(question), 9)
        expect(plan.bound).toBe(plan.cost)
      }),
      { numRuns: 60 }
    )
  })

  it('never takes what the country does not permit, and at 2.4 GHz only the set that does not overlap', () => {
    fc.assert(
      fc.property(questions, fc.constantFrom('XS', 'US', 'JP', 'CA', 'GB', 'AU'), (question, country) => {
        planChannels({ ...question, country }).choices.forEach(({ channel, widthMHz }, at) => {
          expect(channelProblem(country, question.radios[at]!.band, channel, widthMHz)).toBeNull()
          if (question.radios[at]!.band === '2.4') expect([[1, 6, 11].includes(channel), widthMHz]).toEqual([true, 20])
          if (!question.radar) expect(radarMinutes(country, question.radios[at]!.band, channel, widthMHz)).toBe(0)
        })
      }),
      { numRuns: 60 }
    )
  })

  it('one more neighbour never makes a plan cheaper', () => {
    fc.assert(
      fc.property(questions, neighbour, (question, more) => {
        expect(planChannels({ ...question, neighbours: [...question.neighbours, more] }).cost).toBeGreaterThanOrEqual(
          planChannels(question).cost - 1e-9
        )
      }),
      { numRuns: 40 }
    )
  })

  const far = () => -100
  it('three that hear each other at 2.4 GHz take 1, 6 and 11; members of a group share', () => {
    const three = ['a', 'b', 'c'].map((id): PlannedRadio => ({ id, band: '2.4', widthsMHz: [20] }))
    expect(
      planChannels({ country: 'XS', radios: three, neighbours: [], hears: () => -50 })
        .choices.map(({ channel }) => channel)
        .sort((a, b) => a - b)
    ).toEqual([1, 6, 11])
    const mesh = three.map((plannedRadio): PlannedRadio => ({
      ...plannedRadio,
      band: '5',
      widthsMHz: [80],
      group: 'mesh'
    }))
    expect(
      new Set(
        planChannels({ country: 'XS', radios: mesh, neighbours: [], hears: () => -50 }).choices.map(
          ({ channel }) => channel
        )
      ).size
    ).toBe(1)
  })

  it('is wide where the air is empty, and narrower where it is full', () => {
    const plannedRadio: PlannedRadio = { id: 'a', band: '5', widthsMHz: [20, 40, 80] }
    expect(
      planChannels({ country: 'XS', radios: [plannedRadio], neighbours: [], hears: far }).choices[0]!.widthMHz
    ).toBe(80)
    const full = permissionOf('XS')!
      .channels['5'].filter((channel) => channel !== 36 && channel !== 40)
      .map((channel): Neighbour => ({ band: '5', channel, widthMHz: 20, dbm: -50, busy: 0.9 }))
    expect(planChannels({ radios: [plannedRadio], neighbours: full, hears: far, country: 'XS' }).choices[0]).toEqual({
      channel: 36,
      widthMHz: 40
    })
  })

  it('takes as long as it is allowed, and then says how far it may be off', () => {
    const many = Array.from({ length: 9 }, (_, at): PlannedRadio => ({
      id: String(at),
      band: '5',
      widthsMHz: [20, 40, 80, 160]
    }))
    const crowd = Array.from({ length: 60 }, (_, at): Neighbour => ({
      band: '5',
      channel: [36, 44, 52, 60, 100, 108, 116, 124, 132][at % 9]!,
      widthMHz: 20,
      dbm: -60 - (at % 30),
      busy: 0.2 + (at % 5) / 10
    }))
    const plan = planChannels({
      radios: many,
      neighbours: crowd,
      hears: (a, b) => -55 - ((a * 7 + b * 7) % 30),
      country: 'XS'
    })
    expect(plan.bound).toBeLessThanOrEqual(plan.cost)
    if (!plan.proven) expect(plan.bound).toBeGreaterThan(0)
  })
})

describe('what a country permits', () => {
  it.each([
    ['XS', '2.4', 14, 20, 'channel 14 is not permitted in Skerrow Isles'],
    ['JP', '2.4', 14, 20, 'channel 14 is not permitted'],
    [
      'CA',
      '5',
      116,
      40,
      'channel 120 is not permitted in Canada (RSS-247 and RSS-248; issue 2, issue 1): take one of 36 to 64, 100 to 116, 132 to 144, 149 to 165'
    ],
    ['AU', '5', 124, 20, 'channel 124 is not permitted'],
    ['GB', '5', 149, 80, null],
    ['GB', '6', 97, 20, 'channel 97 is not permitted'],
    ['US', '6', 97, 20, null],
    ['US', '2.4', 12, 20, 'channel 12 is not permitted'],
    ['XS', '5', 149, 80, 'channel 149 is not permitted'],
    ['US', '5', 149, 80, null],
    ['XS', '5', 132, 160, 'there is no channel 132'],
    ['XS', '5', 36, 160, null],
    ['XS', '5', 37, 20, 'there is no channel 37']
  ] as const)('%s, %s GHz, channel %i, %i MHz', (country, item, channel, width, problem) => {
    const found = channelProblem(country, item, channel, width)
    if (problem === null) expect(found).toBeNull()
    else expect(found).toContain(problem)
  })

  it('a wide channel watches for radar where any part of it has to', () => {
    expect([
      radarMinutes('XS', '5', 36, 80),
      radarMinutes('XS', '5', 36, 160),
      radarMinutes('XS', '5', 100, 20),
      radarMinutes('XS', '2.4', 6, 20)
    ]).toEqual([0, 1, 1, 0])
    expect(partsOf('5', 44, 80)).toEqual([36, 40, 44, 48])
    expect([weightOf(-60), weightOf(-82), weightOf(-95), weightOf(-120)]).toEqual([1, 1, 0, 0])
  })

  it('where weather radar is, the wait is of ten minutes, and the plan reckons with it', () => {
    expect([
      radarMinutes('XS', '5', 116, 20),
      radarMinutes('XS', '5', 116, 40),
      radarMinutes('US', '5', 124, 20)
    ]).toEqual([1, 10, 1])
    const cost = (channel: number) =>
      costOf({ country: 'XS', radios: [{ id: 'a', band: '5', widthsMHz: [20] }], neighbours: [], hears: () => -100 }, [
        { channel, widthMHz: 20 }
      ]).cost
    expect([36, 100, 124].map((channel) => cost(channel).toFixed(2))).toEqual(['0.00', '0.03', '0.06'])
  })

  it('a country that is not known is told as that, and no channel is planned in it', () => {
    const radios: PlannedRadio[] = [{ id: 'a', band: '5', widthsMHz: [20] }]
    for (const country of [undefined, 'CN', 'ZZ']) {
      expect(unknownCountry(country)?.mend).toMatch(/country/)
      expect(permittedBy(country)).toBeNull()
      expect(channelProblem(country, '5', 165, 20)).toBeNull()
      expect(channelProblem(country, '5', 37, 20)).toContain('there is no channel 37')
      expect(choicesFor({ country }, radios[0]!)).toEqual([])
      expect(() => planChannels({ country, radios, neighbours: [], hears: () => -100 })).toThrow(RangeError)
      expect(foundOn(country, '5')).toContain(177)
    }
  })

  it('each that is known names its rules and their edition, and permits only channels that there are', () => {
    for (const { value } of countryChoices().slice(0, -1)) {
      const { channels, radar, weather, source, edition } = permissionOf(value)!
      expect([source, edition].every((words) => words.length > 3)).toBe(true)
      for (const item of ['2.4', '5', '6'] as const)
        for (const channel of channels[item]) expect(partsOf(item, channel, 20)).toEqual([channel])
      for (const channel of radar) expect(channels['5']).toContain(channel)
      for (const channel of weather) expect(radar.has(channel)).toBe(true)
    }
  })
})
