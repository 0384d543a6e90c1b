import { describe, expect, it } from 'vitest'
import { measurementOf, MOST_RUNS, type Spot } from '@pasado/core/work/prove/same-measurement'
import { catalogue, complete, idOf, node, router, study, type Log } from '@pasado/testing/logbook'

const spot: Spot = { at: 'room', room: study, unit: node, band: '5', how: 'typed' }
const nowOf = (log: Log) => Date.parse(log.entries.at(-1)!.at) + 60_000
const goesTo = (log: Log, of: Spot = spot, runs = 1, now = nowOf(log)) =>
  measurementOf(log.folded(), catalogue, of, runs, now)?.id ?? null

describe('a further run', () => {
  it('belongs to the measurement of its spot while nothing came between', () =>
    expect(goesTo(complete())).toBe(idOf('mst')))

  it.each(['moved', 'reset', 'updated'] as const)(
    'is a new measurement where the unit, or what it hangs on, was %s since',
    (what) => {
      expect(goesTo(complete().write('unit.event', { unit: node, what }))).toBeNull()
      expect(goesTo(complete().write('unit.event', { unit: router, what }))).toBeNull()
    }
  )

  it('that names no unit is a new one where any was moved since', () => {
    const log = () =>
      complete().write('measurement.set', {
        id: idOf('any'),
        set: { at: 'room', room: study, band: '5', how: 'list', runs: [{ downMbps: 90 }] }
      })
    const any: Spot = { at: 'room', room: study, unit: undefined, band: '5', how: 'list' }
    expect(goesTo(log(), any)).toBe(idOf('any'))
    expect(goesTo(log().write('unit.event', { unit: node, what: 'moved' }), any)).toBeNull()
  })

  it('is a new one elsewhere, on another band, read another way, after half an hour, and where there are runs enough', () => {
    const log = complete()
    expect(
      [{ band: '2.4' as const }, { unit: router }, { how: 'list' as const }, { at: 'port' as const }].map((other) =>
        goesTo(log, { ...spot, ...other })
      )
    ).toEqual([null, null, null, null])
    expect(goesTo(log, spot, 1, nowOf(log) + 3_600_000)).toBeNull()
    expect([goesTo(log, spot, MOST_RUNS - 1), goesTo(log, spot, MOST_RUNS)]).toEqual([idOf('mst'), null])
  })
})
