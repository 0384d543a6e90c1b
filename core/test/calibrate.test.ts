import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { learnFrom, type PlannedReading } from '@pasado/core/work/plan/readings'
import { calibrate, doubtAbout, predictedDbm, type ComparedReading } from '@pasado/core/radio/calibrate'

const way = fc.record({
  tenLogM: fc.double({ min: 0, max: 13, noNaN: true }),
  wallsDb: fc.double({ min: 0, max: 40, noNaN: true }),
  floorsDb: fc.double({ min: 0, max: 20, noNaN: true })
})
const read = (
  item: { tenLogM: number; wallsDb: number; floorsDb: number },
  exponent: number,
  wallFactor: number,
  noise = 0
): ComparedReading => {
  const at = { powerDbm: 20, firstMetreDb: 47, ...item }
  return { ...at, readDbm: predictedDbm(at, { exponent, wallFactor }) + noise }
}

describe('calibration', () => {
  it('without readings is the book, with its spread as the band', () => {
    expect(calibrate([])).toMatchObject({ exponent: 2, wallFactor: 1, beforeDb: 0, afterDb: 0 })
    expect(calibrate([]).bandDb).toBeCloseTo(6)
  })

  it('of readings that the book gives changes nothing and narrows the band', () => {
    fc.assert(
      fc.property(fc.array(way, { minLength: 4, maxLength: 30 }), (ways) => {
        const found = calibrate(ways.map((item) => read(item, 2, 1)))
        expect([found.exponent, found.wallFactor]).toEqual([expect.closeTo(2, 6), expect.closeTo(1, 6)])
        expect(found.bandDb).toBeLessThan(6)
      })
    )
  })

  it('finds this home from many readings, and never predicts worse than before', () => {
    fc.assert(
      fc.property(
        fc.array(way, { minLength: 3, maxLength: 60 }),
        fc.double({ min: 1.6, max: 3.5, noNaN: true }),
        fc.double({ min: 0.5, max: 1.8, noNaN: true }),
        fc.infiniteStream(fc.double({ min: -4, max: 4, noNaN: true })),
        (ways, exponent, wallFactor, noise) => {
          const readings = ways.map((item) => read(item, exponent, wallFactor, noise.next().value))
          const found = calibrate(readings)
          expect(found.afterDb).toBeLessThanOrEqual(found.beforeDb + 1e-9)
        }
      )
    )
    const grid = Array.from({ length: 60 }, (_, at) =>
      read({ tenLogM: (at % 10) * 1.2, wallsDb: Math.floor(at / 10) * 6, floorsDb: 0 }, 2.7, 0.7)
    )
    const found = calibrate(grid)
    expect([Math.abs(found.exponent - 2.7) < 0.12, Math.abs(found.wallFactor - 0.7) < 0.05]).toEqual([true, true])
  })

  it('does not depend on the order of readings', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(way, fc.integer({ min: -90, max: -30 })), { minLength: 1, maxLength: 12 }),
        (list) => {
          const readings = list.map(([item, readDbm]) => ({ ...read(item, 2, 1), readDbm }))
          const [there, back] = [calibrate(readings), calibrate([...readings].reverse())]
          for (const field of ['exponent', 'wallFactor', 'bandDb'] as const)
            expect(back[field]).toBeCloseTo(there[field], 9)
        }
      )
    )
  })

  it('a wrong reading does not vouch for itself: it is held against the others', () => {
    const planned = (compared: ComparedReading) => ({ compared, room: 'Hall', unit: 'Router' }) as PlannedReading
    const right = [2, 5, 8].map((tenLogM) => planned(read({ tenLogM, wallsDb: 10, floorsDb: 0 }, 2, 1)))
    const wrong = planned({ ...right[0]!.compared, readDbm: right[0]!.compared.readDbm - 40 })
    expect(learnFrom([wrong]).doubts[0]).toContain('weaker')
    expect(learnFrom([...right, wrong]).doubts.map((doubt) => doubt !== null)).toEqual([false, false, false, true])
  })

  it('a reading that no home gives is asked about, either way', () => {
    const plausible = read({ tenLogM: 7, wallsDb: 10, floorsDb: 0 }, 2, 1)
    expect(doubtAbout(plausible, { exponent: 2, wallFactor: 1 })).toBeNull()
    expect(doubtAbout({ ...plausible, readDbm: plausible.readDbm + 30 }, { exponent: 2, wallFactor: 1 })).toContain(
      'stronger'
    )
    expect(doubtAbout({ ...plausible, readDbm: plausible.readDbm - 30 }, { exponent: 2, wallFactor: 1 })).toContain(
      'weaker'
    )
  })
})
