import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type NamedRoom } from '@pasado/core/work/plan/home-plan'
import { edgesOf, movedTo, snapped, tenth } from './snap'

describe('edges of rooms', () => {
  const rooms = fc
    .array(
      fc.record({
        x: fc.integer({ min: 0, max: 200 }),
        y: fc.integer({ min: 0, max: 200 }),
        widthM: fc.integer({ min: 5, max: 80 }),
        depthM: fc.integer({ min: 5, max: 80 })
      }),
      { minLength: 1, maxLength: 5 }
    )
    .map((list) =>
      list.map((item, at): NamedRoom => ({
        id: String(at),
        name: '',
        storey: 'g',
        x: item.x / 10,
        y: item.y / 10,
        widthM: item.widthM / 10,
        depthM: item.depthM / 10,
        building: '',
        listed: true,
        complained: false
      }))
    )

  it('draw what comes near to them, and nothing else', () => {
    fc.assert(
      fc.property(rooms, fc.double({ min: -5, max: 35, noNaN: true }), (list, value) => {
        const { across } = edgesOf(list)
        const drawnTo = snapped(value, across)
        const nearest = Math.min(...across.map((edge) => Math.abs(edge - value)))
        if (nearest < 0.34) expect(across).toContain(drawnTo)
        else if (nearest > 0.36) expect(drawnTo).toBe(tenth(value))
        expect(Math.abs(drawnTo - value)).toBeLessThanOrEqual(0.36)
      })
    )
  })

  it('a room moved near another comes to lie against it, and keeps its size', () => {
    fc.assert(
      fc.property(
        rooms,
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (list, x, y) => {
          const to = movedTo({ x, y, widthM: 3, depthM: 2 }, list)
          expect([Math.abs(to.x - x) <= 0.46, Math.abs(to.y - y) <= 0.46]).toEqual([true, true])
        }
      )
    )
  })
})
