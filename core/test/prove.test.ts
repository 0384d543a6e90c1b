import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Folded } from '@pasado/core/history/fold'
import { linkRate } from '@pasado/core/radio/link-rate'
import { bottleneckOf } from '@pasado/core/work/prove/bottleneck'
import { couldArrive, wayTo } from '@pasado/core/work/prove/way'
import { measurementsFromCsv } from '@pasado/core/documents/measurements-csv'
import { doubtsOf } from '@pasado/core/work/prove/doubts'
import { readResultFile, resultNames } from '@pasado/core/documents/result-file'
import { judgeRooms, measured, roomFloor, sourceOf } from '@pasado/core/work/prove/rooms'
import { summarise } from '@pasado/core/work/prove/runs'
import { medianOf } from '@pasado/core/values/median'
import { checkField } from '@pasado/core/record/facts'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, idOf, node, router, study } from '@pasado/testing/logbook'

const { policy } = firstStandard
const figure = fc.double({ min: 0, max: 5000, noNaN: true })

describe('several runs', () => {
  it('a median with its spread; one that stands apart is named and counted all the same', () => {
    expect(
      summarise([{ downMbps: 98 }, { downMbps: 102 }, { downMbps: 100 }, { downMbps: 12 }, { idleMs: 9 }], 'downMbps')
    ).toEqual({ median: 99, least: 12, most: 102, count: 4, outliers: [4] })
    expect(summarise([{ downMbps: 5 }, { downMbps: 90 }], 'downMbps')!.outliers).toEqual([])
    expect(summarise([{ upMbps: 3 }], 'downMbps')).toBeNull()
  })

  it('lies between the least and the most, does not hang on the order, and equal runs have no outlier', () => {
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 15 }), (values) => {
        const runs = values.map((downMbps) => ({ downMbps }))
        const found = summarise(runs, 'downMbps')!
        expect(found.median).toBeGreaterThanOrEqual(found.least)
        expect(found.median).toBeLessThanOrEqual(found.most)
        expect(summarise([...runs].reverse(), 'downMbps')).toMatchObject({
          median: found.median,
          least: found.least,
          most: found.most
        })
        expect(values.filter((value) => value <= found.median).length).toBeGreaterThanOrEqual(values.length / 2)
        expect(
          summarise(
            values.map(() => ({ downMbps: values[0]! })),
            'downMbps'
          )!.outliers
        ).toEqual([])
      })
    )
    expect(medianOf([3, 1, 2])).toBe(2)
  })
})

describe('what is asked before a figure is believed', () => {
  it('more than the port, megabytes for megabits, seconds for milliseconds, latencies exchanged', () => {
    expect(doubtsOf({ downMbps: 10_000 }, { mostMbps: 1000 })[0]).toMatchObject({ figure: 'downMbps', instead: 1000 })
    expect(doubtsOf({ downMbps: 37.1 }, { paidDownMbps: 300 })[0]).toMatchObject({ figure: 'downMbps', instead: 296.8 })
    expect(doubtsOf({ downMbps: 120 }, { paidDownMbps: 300, mostMbps: 1000 })).toEqual([])
    expect(doubtsOf({ idleMs: 0.012 }, {})[0]).toMatchObject({ figure: 'idleMs', instead: 12 })
    expect(doubtsOf({ idleMs: 80, loadedMs: 9 }, {})[0]).toMatchObject({ figure: 'loadedMs', instead: null })
  })

  it('what is proposed instead raises no doubt of its own', () => {
    fc.assert(
      fc.property(figure, figure, fc.constantFrom(undefined, 100, 1000), (downMbps, paid, mostMbps) => {
        for (const { instead } of doubtsOf({ downMbps }, { paidDownMbps: paid, mostMbps }))
          if (instead !== null && instead <= (mostMbps ?? Infinity))
            expect(doubtsOf({ downMbps: instead }, { mostMbps })).toEqual([])
      })
    )
  })

  it('the impossible is refused with the field’s mend', () => {
    expect(checkField('measurement', 'runs', [{ idleMs: -1 }])).toEqual({
      problem: expect.stringContaining('never negative')
    })
    expect(checkField('measurement', 'dbm', 12)).toEqual({ problem: expect.stringContaining('below zero') })
    expect(checkField('measurement', 'runs', [])).toEqual({ problem: expect.stringContaining('at least one run') })
  })
})

describe('lists and result files', () => {
  const rooms = (name: string) => (name.toLowerCase() === 'study' ? study : null)
  it('lines of one room and band are its runs; the source by its name; what is wrong is told by line', () => {
    const { measurements, problems } = measurementsFromCsv(
      'room;band_ghz;signal_dbm;down_mbps;idle_ms\nStudy;5;-58,5;210;12\nstudy;5,0;;190;14\nsource;;;302;9\nLoft;5;-60;1;1\nStudy;7;-60;1;1\nStudy;5;-60;fast;1\nStudy;5;-60;10;-4',
      rooms
    )
    expect(measurements).toEqual([
      {
        room: study,
        band: '5',
        dbm: -58.5,
        runs: [
          { downMbps: 210, idleMs: 12 },
          { downMbps: 190, idleMs: 14 }
        ]
      },
      { room: null, band: null, dbm: null, runs: [{ downMbps: 302, idleMs: 9 }] }
    ])
    expect(problems.map(({ line, problem }) => `${line} ${problem}`)).toEqual([
      '5 there is no room “Loft” on the list: add it, or mend the name',
      '6 band_ghz must be 2.4, 5 or 6',
      '7 down_mbps: fast is no number',
      expect.stringContaining('8 idle_ms must be 0 or more')
    ])
    expect(measurementsFromCsv('a,b\n1,2', rooms).problems[0]!.problem).toContain('column room is missing')
  })

  it('a result under any of the names that are known, in bits, octets or megabits', () => {
    expect(
      readResultFile(
        '{"download":{"bits_per_second":123456789},"upload":{"bytes-per-second":1000000},"latency":{"idle_ms":8.5},"server":"x"}'
      )
    ).toEqual({ run: { downMbps: 123.457, upMbps: 8, idleMs: 8.5 } })
    for (const { figure, times, names } of resultNames)
      for (const name of names)
        expect(readResultFile(`${name}=50`)).toEqual({ run: { [figure]: Math.round(50 * times * 1000) / 1000 } })
    expect(readResultFile('{"download":{"mbps":"quick"}}')).toEqual({ problem: expect.stringContaining('no number') })
    expect(readResultFile('{"hello":1}')).toEqual({ problem: expect.stringContaining('none of the names') })
    expect(readResultFile('{"latency":{"idle_ms":-3}}')).toEqual({ problem: expect.stringContaining('never negative') })
    expect(readResultFile('{')).toHaveProperty('problem')
  })
})

describe('rooms', () => {
  it('the floor is the standard’s figure, or the share of the source where that is less', () => {
    expect(roomFloor(policy, sourceOf(complete().folded(), catalogue))).toMatchObject({ mbps: 100, dbm: -67 })
    const slow = complete()
      .write('measurement.set', {
        id: idOf('src'),
        set: { runs: [{ downMbps: 50 }, { downMbps: 60 }, { downMbps: 40 }] }
      })
      .folded()
    expect(roomFloor(policy, sourceOf(slow, catalogue))).toMatchObject({
      mbps: 40,
      reason: '80 % of the 50 Mbit/s that the source gives'
    })
  })

  it('says what falls short, the latency added, and goes stale with what the unit hangs on', () => {
    const log = complete()
    expect(judgeRooms(log.folded(), catalogue, policy)[0]).toMatchObject({
      outcome: 'holds',
      addedMs: 5,
      message: '-58 dBm, 210 Mbit/s down, 5 ms added.'
    })
    log.write('unit.event', { unit: router, what: 'moved' })
    expect(judgeRooms(log.folded(), catalogue, policy)[0]).toMatchObject({
      outcome: 'unproven',
      message: 'Hall router was moved since. Measure it again.'
    })
  })

  it('a better figure never makes a room that holds break', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -95, max: -30 }),
        figure,
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.nat(10),
        fc.nat(50),
        fc.nat(5),
        (dbm, downMbps, idleMs, up, faster, sooner) => {
          const judge = (set: Record<string, unknown>) =>
            judgeRooms(
              complete()
                .write('measurement.set', { id: idOf('mst'), set })
                .folded(),
              catalogue,
              policy
            )[0]!.outcome
          if (judge({ dbm, runs: [{ downMbps, idleMs }] }) === 'holds')
            expect(
              judge({
                dbm: Math.min(-20, dbm + up),
                runs: [{ downMbps: downMbps + faster, idleMs: Math.max(0, idleMs - sooner) }]
              })
            ).toBe('holds')
        }
      ),
      { numRuns: 60 }
    )
  })
})

/** The way to the room that was measured last. */
const way = (folded: Folded) =>
  bottleneckOf(
    folded,
    catalogue,
    measured(folded, catalogue, ({ at }) => at === 'room')[0]!,
    sourceOf(folded, catalogue),
    -67
  )!

/** A cable from the router to the node. */
const cabled = (log: ReturnType<typeof complete>, set: Record<string, unknown> = {}) =>
  log.write('cable.set', {
    id: idOf('down'),
    set: {
      a: { thing: 'unit', id: router, port: 'lan-1' },
      b: { thing: 'unit', id: node, port: 'lan-1' },
      kind: 'network',
      category: 'cat5e',
      ...set
    }
  })

describe('the bottleneck', () => {
  it('is the slowest link of the way, and a speed far below it is a finding of its own', () => {
    const log = cabled(complete(), { linkMbps: 100 })
    const of = (set: Record<string, unknown>) => {
      log.write('measurement.set', { id: idOf('mst'), set })
      return way(log.folded())
    }
    expect(of({ dbm: -50, runs: [{ downMbps: 92 }] })).toMatchObject({
      expectedMbps: 94,
      finding: null,
      links: [{ kind: 'cable' }, { kind: 'line' }, { kind: 'air' }]
    })
    expect(of({ dbm: -50, runs: [{ downMbps: 30 }] }).finding).toContain('not a matter of reach')
    expect(of({ dbm: -84, runs: [{ downMbps: 8 }] }).links[0]!.kind).toBe('air')
    expect(of({ dbm: -84, runs: [{ downMbps: 8 }] }).finding).toBeNull()
  })

  it('says nothing of the reach, nor what is to be done, where the hop, the unit or the signal is not known', () => {
    const told = (set: Record<string, unknown>, change: (log: ReturnType<typeof complete>) => unknown = () => 0) => {
      const log = complete().write('measurement.set', { id: idOf('mst'), set })
      change(log)
      return way(log.folded())
    }
    const slow = { dbm: -58, runs: [{ downMbps: 48 }] }
    for (const bottleneck of [
      told(slow),
      told({ ...slow, unit: null }),
      told({ ...slow, unit: router, dbm: null }),
      told(slow, (log) => log.write('unit.set', { id: node, set: { role: 'powerline-adapter' } })),
      told({ ...slow, unit: node }, (log) => log.write('thing.removed', { thing: 'unit', id: router }))
    ]) {
      expect(bottleneck.unknown.length).toBeGreaterThan(0)
      expect(bottleneck.finding).toBeNull()
    }
    expect(told({ ...slow, unit: router })).toMatchObject({
      unknown: [],
      finding: expect.stringContaining('not a matter of reach') as string
    })
  })

  /** The study measured on the node over the air, with the signal of its hop as its page tells it. */
  const overTheAir = (set: Record<string, unknown> = {}, hopDbm: number | null = -55) =>
    complete()
      .write('unit.set', { id: node, set: { cabled: null, hopDbm } })
      .write('measurement.set', {
        id: idOf('mst'),
        set: { unit: node, band: '5', dbm: -50, runs: [{ downMbps: 90 }], ...set }
      })
  const mbpsOf = (log: ReturnType<typeof complete>, kind: string) =>
    way(log.folded()).links.find((link) => link.kind === kind)!.mbps

  it('a radio that carries the hop and the device gives each half; a device on another band leaves the hop its radio', () => {
    const ofTwoBands = (set: Record<string, unknown> = {}) =>
      overTheAir(set).write('unit.set', { id: node, set: { model: 'fenmarrow-lattice-3', hopDbm: -55 } })
    const [shared, apart, ofItsOwn] = [ofTwoBands(), ofTwoBands({ band: '2.4' }), overTheAir()].map((log) =>
      mbpsOf(log, 'backhaul')
    )
    expect(apart! / shared!).toBeCloseTo(2, 9)
    expect(ofItsOwn).toBe(apart)
    expect(mbpsOf(overTheAir(), 'air') / mbpsOf(ofTwoBands(), 'air')).toBeCloseTo(2, 9)
    expect(way(overTheAir().folded()).way.map(({ kind }) => kind)).toEqual(['line', 'backhaul', 'air'])
    expect(way(overTheAir().folded()).links.every(({ because }) => because.length > 10)).toBe(true)
    // 2 × 2 at 80 MHz and -55 dBm is MCS 8: 0.6 of 720.6 Mbit/s.
    expect(apart).toBeCloseTo(0.6 * linkRate({ rssiDbm: -55, widthMHz: 80, streams: 2 }).phyMbps, 6)
  })

  it('the signal of a hop that nobody read is asked for; a reading of before a move tells nothing', () => {
    const asked = way(overTheAir({}, null).folded()).unknown
    expect(asked).toMatchObject([{ field: { unit: node, field: 'hopDbm' } }])
    expect(asked[0]!.read).toContain('page')
    for (const moved of [node, router]) {
      const log = overTheAir().write('unit.event', { unit: moved, what: 'moved' })
      expect(way(log.folded()).unknown).toMatchObject([{ field: { field: 'hopDbm' } }])
      log.write('unit.set', { id: node, set: { hopDbm: -60 } })
      expect(way(log.folded()).unknown).toEqual([])
    }
  })

  it('over the mains the rate that the adapter tells counts, and is asked for where nobody read it', () => {
    const mains = (mainsMbps: number | null) =>
      overTheAir().write('unit.set', { id: node, set: { role: 'powerline-adapter', mainsMbps } })
    expect(way(mains(null).folded()).unknown).toMatchObject([{ field: { unit: node, field: 'mainsMbps' } }])
    expect(mbpsOf(mains(200), 'mains')).toBe(80)
    expect(way(mains(60).folded())).toMatchObject({ expectedMbps: 24, finding: null })
  })

  it('a cable carries what both its ports can, and just under 100 through one that was not read is told', () => {
    const to = (down: number, set: Record<string, unknown> = {}) =>
      cabled(overTheAir({ runs: [{ downMbps: down }] }), set)
    expect(mbpsOf(to(94), 'cable')).toBe(940)
    expect(way(to(94).folded()).finding).toContain('just what a link of 100 carries')
    expect(way(to(94, { linkMbps: 1000 }).folded()).finding).not.toContain('link of 100')
    expect(mbpsOf(to(94, { linkMbps: 100 }), 'cable')).toBe(94)
  })

  it('units are asked about only where the way could have carried what it would be', () => {
    const paid = { paidDownMbps: 400 }
    const at = (dbm: number | undefined) =>
      couldArrive(wayTo(overTheAir().folded(), catalogue, { unit: router, band: '5', dbm }))
    expect(at(undefined)).toBeNull()
    expect(doubtsOf({ downMbps: 48 }, { ...paid, carriesMbps: at(-45)! })).toHaveLength(1)
    expect(doubtsOf({ downMbps: 48 }, { ...paid, carriesMbps: at(-80)! })).toEqual([])
  })

  it('the company says from which signal on it is no matter of reach', () => {
    const log = overTheAir({ unit: router, runs: [{ downMbps: 20 }], dbm: -65 })
    const told = (reachesDbm: number) => {
      const folded = log.folded()
      const [at] = measured(folded, catalogue, (facts) => facts.at === 'room')
      return bottleneckOf(folded, catalogue, at!, sourceOf(folded, catalogue), reachesDbm)!.finding
    }
    expect(told(-67)).toContain('not a matter of reach')
    expect(told(-60)).not.toContain('not a matter of reach')
  })

  it('a measurement that names no unit is out of date once any of them was moved', () => {
    const log = () =>
      complete()
        .write('thing.removed', { thing: 'measurement', id: idOf('mst') })
        .write('measurement.set', {
          id: idOf('none'),
          set: { at: 'room', room: study, band: '5', dbm: -58, runs: [{ downMbps: 210, idleMs: 14 }], by: 'phone' }
        })
    const stale = (item: ReturnType<typeof complete>) => judgeRooms(item.folded(), catalogue, policy)[0]!.outcome
    expect([
      stale(log()),
      stale(log().write('unit.event', { unit: node, what: 'moved' })),
      stale(log().write('unit.event', { unit: router, what: 'reset' }))
    ]).toEqual(['holds', 'unproven', 'unproven'])
  })
})
