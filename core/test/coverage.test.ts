import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coverage, type Grid, type Sender } from '@pasado/core/radio/coverage'
import { pathLoss, type PathLossInput } from '@pasado/core/radio/path-loss'
import { firstWalls, overlaps, wallsOf, type PlanRoom } from '@pasado/core/work/plan/walls'

type Wall = NonNullable<PathLossInput['walls']>[number]

/** Coordinates in tenths touch each other and the cells where walls do: the hard cases. */
const tenth = fc.integer({ min: -20, max: 80 }).map((value) => value / 10)
const any = fc.double({ min: -2, max: 8, noNaN: true })
const place = fc.oneof(tenth, any)
const height = fc.constantFrom(0, 0.5, 1, 1.2, 2.6, 2.9, 3.9)
const wall: fc.Arbitrary<Wall> = fc
  .record({
    from: fc.record({ x: place, y: place }),
    to: fc.record({ x: place, y: place }),
    zFrom: fc.constantFrom(0, 2.9),
    lossDb: fc.integer({ min: 1, max: 20 })
  })
  .map((item) => ({ ...item, zTo: item.zFrom + 2.6 }))
const grid: Grid = { x: 0.125, y: 0.125, columns: 24, rows: 18, cellM: 0.25, z: 1 }

function plain(
  sender: Sender,
  at: Grid,
  walls: Wall[],
  floors: { z: number; lossDb: number }[],
  exponent: number
): number[] {
  return Array.from({ length: at.columns * at.rows }, (_, cell) => {
    const to = { x: at.x + (cell % at.columns) * at.cellM, y: at.y + Math.floor(cell / at.columns) * at.cellM, z: at.z }
    return (
      sender.powerDbm -
      pathLoss({ frequencyMHz: sender.frequencyMHz, from: sender, to, exponent, walls, floors }).totalDb
    )
  })
}

describe('coverage', () => {
  it('is that of the plain function in every cell, whatever stands in the way', () => {
    fc.assert(
      fc.property(
        fc.array(wall, { maxLength: 8 }),
        place,
        place,
        height,
        height,
        fc.constantFrom(2, 2.8),
        (walls, x, y, z, gridZ, exponent) => {
          const sender = { x, y, z, frequencyMHz: 5500, powerDbm: 23 }
          const at = { ...grid, z: gridZ }
          const floors = [{ z: 2.8, lossDb: 12 }]
          const fast = coverage(sender, at, walls, floors, exponent)
          plain(sender, at, walls, floors, exponent).forEach((value, cell) =>
            expect(Math.abs(fast[cell]! - value), `cell ${cell}`).toBeLessThan(0.01)
          )
        }
      ),
      { numRuns: 300 }
    )
  })

  it('a sender in the line of a wall, or on a corner of the grid, is no exception', () => {
    const walls = [
      { from: { x: 1, y: -1 }, to: { x: 1, y: 5 }, lossDb: 9 },
      { from: { x: 0.125, y: 2.125 }, to: { x: 4.125, y: 2.125 }, lossDb: 5 }
    ]
    for (const [x, y] of [
      [1, 0],
      [1, 2.125],
      [0.125, 0.125],
      [2.125, 2.125]
    ] as const) {
      const sender = { x, y, z: 1, frequencyMHz: 2440, powerDbm: 20 }
      const fast = coverage(sender, grid, walls, [])
      plain(sender, grid, walls, [], 2).forEach((value, cell) =>
        expect(Math.abs(fast[cell]! - value), `${x}/${y} cell ${cell}`).toBeLessThan(0.01)
      )
    }
  })

  it('one more wall never gives more signal', () => {
    fc.assert(
      fc.property(fc.array(wall, { maxLength: 6 }), wall, place, place, (walls, more, x, y) => {
        const sender = { x, y, z: 1, frequencyMHz: 5500, powerDbm: 23 }
        const [before, after] = [coverage(sender, grid, walls, []), coverage(sender, grid, [...walls, more], [])]
        after.forEach((value, cell) => expect(value).toBeLessThanOrEqual(before[cell]! + 1e-3))
      }),
      { numRuns: 60 }
    )
  })
})

describe('the walls of a plan', () => {
  const room = (id: string, x: number, y: number, widthM: number, depthM: number, building = ''): PlanRoom => ({
    id,
    storey: 'g',
    x,
    y,
    widthM,
    depthM,
    building
  })

  it('are the edges of its rooms, shared ones once and inner', () => {
    const walls = wallsOf([room('a', 0, 0, 4, 3), room('b', 4, 0, 3, 3)], firstWalls)
    expect(walls.filter(({ outer }) => !outer)).toEqual([
      {
        storey: 'g',
        x1: 4,
        y1: 0,
        x2: 4,
        y2: 3,
        outer: false,
        material: 'plasterboard',
        thicknessMm: 100,
        opening: null
      }
    ])
    const length = walls
      .filter(({ outer }) => outer)
      .reduce((sum, value) => sum + Math.hypot(value.x2 - value.x1, value.y2 - value.y1), 0)
    expect(length).toBeCloseTo(20)
  })

  it('a shared wall is inner only as far as it is shared, and outer between two buildings', () => {
    const walls = wallsOf([room('a', 0, 0, 4, 5), room('b', 4, 1, 3, 2)], firstWalls).filter(
      ({ x1, x2 }) => x1 === 4 && x2 === 4
    )
    expect(walls.map(({ y1, y2, outer }) => [y1, y2, outer])).toEqual([
      [0, 1, true],
      [1, 3, false],
      [3, 5, true]
    ])
    expect(
      wallsOf([room('a', 0, 0, 4, 3), room('b', 4, 0, 3, 3, 'barn')], firstWalls).every(({ outer }) => outer)
    ).toBe(true)
  })

  it('a stretch of its own and a door in it take their place', () => {
    const walls = wallsOf(
      [room('a', 0, 0, 4, 4)],
      firstWalls,
      [{ storey: 'g', x1: 0, y1: 0, x2: 0, y2: 4, material: 'granite', thicknessMm: 600 }],
      [{ storey: 'g', kind: 'door', x1: 0, y1: 1, x2: 0, y2: 2 }]
    ).filter(({ x1, x2 }) => x1 === 0 && x2 === 0)
    expect(walls.map(({ y1, y2, material, opening }) => [y1, y2, material, opening])).toEqual([
      [0, 1, 'granite', null],
      [1, 2, 'wood', 'door'],
      [2, 4, 'granite', null]
    ])
  })

  it('together are as long as all edges, whatever the rooms', () => {
    const rooms = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 8 }),
        y: fc.integer({ min: 0, max: 8 }),
        widthM: fc.integer({ min: 1, max: 4 }),
        depthM: fc.integer({ min: 1, max: 4 })
      }),
      { minLength: 1, maxLength: 6 }
    )
    fc.assert(
      fc.property(rooms, (list) => {
        const walls = wallsOf(
          list.map((item, at) => room(String(at), item.x, item.y, item.widthM, item.depthM)),
          firstWalls
        )
        // Every unit length of every edge is a wall, once.
        const pieces = new Set(
          list.flatMap(({ x, y, widthM, depthM }) => [
            ...Array.from({ length: widthM }, (_, at) => [`h${x + at},${y}`, `h${x + at},${y + depthM}`]).flat(),
            ...Array.from({ length: depthM }, (_, at) => [`v${x},${y + at}`, `v${x + widthM},${y + at}`]).flat()
          ])
        )
        expect(walls.reduce((sum, value) => sum + Math.hypot(value.x2 - value.x1, value.y2 - value.y1), 0)).toBeCloseTo(
          pieces.size
        )
      })
    )
  })

  it('rooms that lie over each other are told', () => {
    expect(
      overlaps([room('a', 0, 0, 4, 4), room('b', 3, 3, 4, 4), room('c', 4, 0, 2, 3)]).map(([a, b]) => a.id + b.id)
    ).toEqual(['ab'])
  })
})
