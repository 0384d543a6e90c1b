import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  bestPlacements,
  judgePlacement,
  type Candidate,
  type Placement,
  type Wanted
} from '@pasado/core/radio/placement'
import {
  gridOf,
  obstaclesOf,
  roomAt,
  planOf,
  plannedBands,
  bandLoss,
  roomFigures,
  strongest,
  type HomePlan
} from '@pasado/core/work/plan/home-plan'
import { placedUnits } from '@pasado/core/work/plan/placed'
import { suggestPlaces, type SuggestInput } from '@pasado/core/work/plan/suggest'
import { coverage } from '@pasado/core/radio/coverage'
import { wallLoss } from '@pasado/core/radio/wall-loss'
import { signalAt } from '@pasado/core/work/plan/readings'
import { catalogue, complete, idOf, node, router } from '@pasado/testing/logbook'

const wanted: Wanted = { router: 0, roomFloorDbm: -67, backhaulFloorDbm: -67, mostUnits: 4, mostHops: 2 }

const dbm = fc.integer({ min: -90, max: -40 })
/** Candidates with links that are the same both ways. */
const candidates = fc.integer({ min: 1, max: 7 }).chain((count) =>
  fc
    .record({
      rooms: fc.array(fc.tuple(dbm, dbm, dbm), { minLength: count, maxLength: count }),
      links: fc.array(dbm, { minLength: count * count, maxLength: count * count }),
      cabled: fc.array(fc.boolean(), { minLength: count, maxLength: count })
    })
    .map(({ rooms, links, cabled }): Candidate[] =>
      rooms.map((room, at) => ({
        id: String(at),
        rooms: room,
        cabled: cabled[at]!,
        links: rooms.map((_, to) => links[Math.min(at, to) * count + Math.max(at, to)]!)
      }))
    )
)

/** Every set of places, the plain way. */
function everyPlacement(list: readonly Candidate[]): Placement[] {
  const found: Placement[] = []
  for (let set = 0; set < 2 ** list.length; set++) {
    if (!(set & 1)) continue
    const chosen = list.flatMap((_, at) => (set & (1 << at) ? [at] : []))
    if (chosen.length > wanted.mostUnits) continue
    const placement = judgePlacement(list, chosen, wanted)
    if (placement) found.push(placement)
  }
  return found
}

describe('the best places', () => {
  it('are those that going through every set finds', () => {
    fc.assert(
      fc.property(candidates, (list) => {
        const all = everyPlacement(list)
        const holding = all.filter(({ holds }) => holds)
        const best = bestPlacements(list, wanted)
        expect(best.length).toBeGreaterThan(0)
        if (holding.length) {
          const fewest = Math.min(...holding.map(({ candidates: chosen }) => chosen.length))
          const margin = Math.max(
            ...holding.filter(({ candidates: chosen }) => chosen.length === fewest).map(({ marginDb }) => marginDb)
          )
          expect([best[0]!.candidates.length, best[0]!.marginDb, best[0]!.holds]).toEqual([fewest, margin, true])
        } else expect(best.every(({ holds }) => !holds)).toBe(true)
        for (let at = 1; at < best.length; at++) expect(best[at]!.marginDb).toBeLessThanOrEqual(best[at - 1]!.marginDb)
      }),
      { numRuns: 200 }
    )
  })

  it('no hop is weaker than its floor, nor further than the limit; a cable is no hop', () => {
    const line: Candidate[] = [0, 1, 2, 3].map((at) => ({
      id: String(at),
      rooms: [at === 3 ? -50 : -90],
      cabled: false,
      links: [0, 1, 2, 3].map((to) => (Math.abs(at - to) <= 1 ? -60 : -80))
    }))
    expect(judgePlacement(line, [0, 1, 2], wanted)!.hops).toEqual([0, 1, 2])
    expect(judgePlacement(line, [0, 1, 2, 3], wanted)).toBeNull()
    expect(
      judgePlacement(
        line.map((candidate, at) => ({ ...candidate, cabled: at === 3 })),
        [0, 3],
        wanted
      )
    ).toMatchObject({ hops: [0, 0], holds: true })
  })
})

describe('a plan', () => {
  const storey = {
    id: 'g',
    name: 'Ground floor',
    floorM: 0,
    heightM: 2.5,
    ceiling: { material: 'wood' as const, thicknessMm: 200 }
  }
  const room = (name: string, x: number, widthM: number, y = 0, depthM = 4) => ({
    id: name,
    name,
    storey: 'g',
    x,
    y,
    widthM,
    depthM,
    building: '',
    listed: true,
    complained: false
  })
  const granite = (x: number, y1 = -1, y2 = 5) => ({
    storey: 'g',
    x1: x,
    y1,
    x2: x,
    y2,
    outer: false,
    material: 'granite' as const,
    thicknessMm: 600,
    opening: null
  })
  const plan: HomePlan = {
    storeys: [storey],
    rooms: [room('Hall', 0, 5), room('Study', 5, 5), room('Far room', 10, 5)],
    walls: [granite(5), granite(10)],
    stairs: []
  }
  const input: SuggestInput = {
    plan,
    band: '5',
    router: { x: 1, y: 2, z: 1 },
    powerDbm: 20,
    floors: { roomDbm: -67, hopDbm: -67, clearM: 1 },
    mostUnits: 4,
    mostHops: 2,
    troubles: [{ storey: 'g', x: 6, y: 1 }],
    outlets: [
      { id: 'study', storey: 'g', x: 7, y: 2, cabled: false, cabinet: false },
      { id: 'tank', storey: 'g', x: 6.2, y: 1.2, cabled: false, cabinet: false },
      { id: 'cupboard', storey: 'g', x: 8, y: 3, cabled: false, cabinet: true },
      { id: 'far', storey: 'g', x: 12, y: 2, cabled: true, cabinet: false }
    ]
  }

  it('band losses are the band’s mean of the wall’s', () => {
    expect(bandLoss('granite', 600, '5')).toBeCloseTo(
      wallLoss({
        material: 'granite',
        thicknessMm: 600,
        frequencyMHz: plannedBands['5'].middleMHz,
        averageOverMHz: plannedBands['5'].overMHz
      }).lossDb,
      6
    )
    expect(bandLoss('brick', 0, '5')).toBe(0)
  })

  it('outlets beside trouble and in cabinets are never proposed, and every proposal is what it says', () => {
    const { proposals: found } = suggestPlaces(input)
    expect(found.length).toBeGreaterThan(0)
    const ids = new Set(found.flatMap(({ units }) => units.map(({ outlet }) => outlet)))
    expect([ids.has('tank'), ids.has('cupboard')]).toEqual([false, false])
    const [first] = found
    const { walls, floors } = obstaclesOf(plan, '5')
    const grid = gridOf(plan, 'g', 0.5)!
    const senders = [input.router, ...first!.units.map(({ x, y }) => ({ x, y, z: 1 }))].map((at) =>
      coverage({ ...at, frequencyMHz: plannedBands['5'].middleMHz, powerDbm: 20 }, grid, walls, floors)
    )
    const worst = Math.min(
      ...plan.rooms.map((item) => Math.max(...senders.map((signal) => roomFigures(item, grid, signal, -67)!.worst)))
    )
    expect(first!.marginDb).toBeCloseTo(worst + 67, 4)
  })

  it('is never worse than a unit half way, where half way there is an outlet', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 14 }), fc.integer({ min: 5, max: 14 }), (a, b) => {
        const outlets = [a, b].map((x, at) => ({
          id: String(at),
          storey: 'g',
          x: x + 0.5,
          y: 2,
          cabled: false,
          cabinet: false
        }))
        const both = suggestPlaces({ ...input, troubles: [], outlets, mostUnits: 2 }).proposals[0]
        for (const outlet of outlets) {
          const alone = suggestPlaces({ ...input, troubles: [], outlets: [outlet], mostUnits: 2 }).proposals[0]
          if (alone && both)
            expect(Number(both.holds) * 1000 + both.marginDb).toBeGreaterThanOrEqual(
              Number(alone.holds) * 1000 + alone.marginDb - 1e-6
            )
        }
      }),
      { numRuns: 20 }
    )
  })

  it('is never worse than any school with as many units, and says what each school comes to', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 2, max: 14 }), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 1, max: 14 }),
        (places, x) => {
          const outlets = places.map((at, index) => ({
            id: String(index),
            storey: 'g',
            x: at + 0.3,
            y: 1 + (index % 3),
            cabled: false,
            cabinet: false
          }))
          const { proposals, schools } = suggestPlaces({
            ...input,
            router: { x: x + 0.1, y: 2, z: 1 },
            troubles: [],
            outlets,
            mostUnits: 2
          })
          expect(schools.map(({ school }) => school)).toEqual(['halfway', 'next-room', 'within-12'])
          for (const { placement, joined } of schools) {
            if (!placement || !joined) continue
            const best = proposals[0]!
            expect(best.holds || !placement.holds).toBe(true)
            if (best.units.length === placement.units.length)
              expect(best.marginDb).toBeGreaterThanOrEqual(placement.marginDb - 1e-6)
          }
        }
      ),
      { numRuns: 40 }
    )
  })

  it('is read from the record; what is not whole is left out', () => {
    const ground = idOf('ground')
    const log = complete()
      .write('storey.set', { id: ground, set: { name: 'Ground' } })
      .write('room.set', { id: idOf('a'), set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 4, depthM: 3 } })
      .write('room.set', { id: idOf('b'), set: { name: 'No size', storey: ground, x: 0, y: 0 } })
      .write('room.set', {
        id: idOf('c'),
        set: { name: 'Nowhere', storey: idOf('gone'), x: 0, y: 0, widthM: 1, depthM: 1 }
      })
      .write('brief.set', { set: { outerMaterial: 'granite', outerMm: 600 } })
    const found = planOf(log.record())
    expect([
      found.rooms.map(({ name }) => name),
      found.walls.length,
      new Set(found.walls.map(({ material }) => material))
    ]).toEqual([['Hall'], 4, new Set(['granite'])])
    expect(roomAt(found, { storey: ground, x: 1, y: 1 })?.name).toBe('Hall')
    expect(roomAt(found, { storey: ground, x: 9, y: 1 })).toBeUndefined()
  })

  it('a point’s signal is served by the strongest, and its working adds up', () => {
    const ground = idOf('ground')
    const record = complete()
      .write('storey.set', { id: ground, set: { name: 'Ground' } })
      .write('room.set', { id: idOf('a'), set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 4, depthM: 3 } })
      .write('room.set', { id: idOf('b'), set: { name: 'Study', storey: ground, x: 4, y: 0, widthM: 4, depthM: 3 } })
      .write('unit.set', { id: router, set: { storey: ground, x: 1, y: 1 } })
      .write('unit.set', { id: node, set: { storey: ground, x: 7, y: 2 } })
      .record()
    const drawn = planOf(record)
    const found = signalAt(
      drawn,
      placedUnits(record, drawn),
      catalogue,
      '5',
      { storey: ground, x: 6.5, y: 1.5 },
      { exponent: 2, wallFactor: 1 }
    )!
    expect([found.unit, found.wallsCrossed]).toEqual(['Study node', 0])
    const across = signalAt(
      drawn,
      placedUnits(record, drawn).slice(0, 1),
      catalogue,
      '5',
      { storey: ground, x: 6.5, y: 1.5 },
      { exponent: 2, wallFactor: 2 }
    )!
    expect(across.wallsCrossed).toBe(1)
    expect(across.dbm).toBeCloseTo(across.powerDbm - across.distanceDb - across.wallsDb - across.floorsDb, 9)
    expect(
      signalAt(drawn, [], catalogue, '5', { storey: ground, x: 1, y: 1 }, { exponent: 2, wallFactor: 1 })
    ).toBeNull()
  })

  it('each cell is served by the strongest', () => {
    const { signal, by } = strongest([new Float32Array([-50, -70]), new Float32Array([-60, -40])])
    expect([[...signal], [...by]]).toEqual([
      [-50, -40],
      [0, 1]
    ])
  })
})
