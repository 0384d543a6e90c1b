import { gridOf, obstaclesOf, plannedBands, type HomePlan, type NamedRoom } from '@pasado/core/work/plan/home-plan'
import type { Band } from '@pasado/core/values/band'
import { firstWalls, wallsOf } from '@pasado/core/work/plan/walls'
import { coverage } from '@pasado/core/radio/coverage'
import { pathLoss } from '@pasado/core/radio/path-loss'
import { bestPlacements, type Candidate } from '@pasado/core/radio/placement'
import { medianMs, report } from './timing'

/** Three storeys of 150 m² in rooms of 2.5 by 2.5 m: some sixty walls on each. */
function largeHome(): HomePlan {
  const storeys = [0, 1, 2].map((level) => ({
    id: String(level),
    name: `Storey ${level}`,
    floorM: level * 2.8,
    heightM: 2.5,
    ceiling: { material: 'concrete' as const, thicknessMm: 200 }
  }))
  const rooms = storeys.flatMap(({ id }) =>
    Array.from({ length: 24 }, (_, at): NamedRoom => ({
      id: `${id} ${at}`,
      name: `Room ${at}`,
      storey: id,
      x: (at % 6) * 2.5,
      y: Math.floor(at / 6) * 2.5,
      widthM: 2.5,
      depthM: 2.5,
      building: '',
      listed: true,
      complained: false
    }))
  )
  // Walls of neighbouring rooms that are of one thing are one; here each is for itself, as where doors part them.
  const walls = rooms
    .flatMap((room) => wallsOf([room], firstWalls))
    .filter(
      (wall, at, all) =>
        all.findIndex(
          (candidate) =>
            candidate.storey === wall.storey &&
            candidate.x1 === wall.x1 &&
            candidate.y1 === wall.y1 &&
            candidate.x2 === wall.x2 &&
            candidate.y2 === wall.y2
        ) === at
    )
  return { storeys, rooms, walls, stairs: [] }
}

/** Coverage against the plain function for every cell and unit, and the search for places. */
export async function benchRadio(): Promise<void> {
  const plan = largeHome()
  const senders = [
    [1, 1, 1],
    [13, 8, 1],
    [5, 5, 3.8],
    [10, 2, 6.6]
  ].map(([x, y, z]) => ({ x: x!, y: y!, z: z!, powerDbm: 23 }))
  const bands: Band[] = ['2.4', '5']
  const grids = plan.storeys.map(({ id }) => gridOf(plan, id, 0.25)!)
  const each = (
    work: (
      sender: { x: number; y: number; z: number; powerDbm: number; frequencyMHz: number },
      at: (typeof grids)[number],
      band: Band
    ) => void
  ) => {
    for (const band of bands)
      for (const sender of senders)
        for (const grid of grids) work({ ...sender, frequencyMHz: plannedBands[band].middleMHz }, grid, band)
  }
  const obstacles = new Map(bands.map((band) => [band, obstaclesOf(plan, band)]))
  let most = 0
  const fast = await medianMs(7, () =>
    each((sender, grid, band) => coverage(sender, grid, obstacles.get(band)!.walls, obstacles.get(band)!.floors))
  )
  const began = performance.now()
  each((sender, grid, band) => {
    const { walls, floors } = obstacles.get(band)!
    const signal = coverage(sender, grid, walls, floors)
    for (let at = 0; at < signal.length; at++) {
      const to = {
        x: grid.x + (at % grid.columns) * grid.cellM,
        y: grid.y + Math.floor(at / grid.columns) * grid.cellM,
        z: grid.z
      }
      most = Math.max(
        most,
        Math.abs(
          signal[at]! -
            (sender.powerDbm - pathLoss({ frequencyMHz: sender.frequencyMHz, from: sender, to, walls, floors }).totalDb)
        )
      )
    }
  })
  const plain = performance.now() - began - fast
  report(
    `coverage, three storeys, ${plan.walls.length} walls, 4 units, both bands (baseline: path-loss for every cell, ${plain.toFixed(0)} ms)`,
    `${fast.toFixed(0)} ms, ${(plain / fast).toFixed(0)} times faster, at most ${most.toFixed(4)} dB apart`
  )
  let seed = 7
  const random = () => {
    seed = (seed * 1103515245 + 12345) % 2147483648
    return seed / 2147483648
  }
  // Nothing holds, so that every set of places up to four has to be looked at.
  const candidates = Array.from({ length: 41 }, (_, id): Candidate => ({
    id: String(id),
    rooms: Array.from({ length: 12 }, () => -95 + random() * 40),
    links: Array.from({ length: 41 }, () => -85 + random() * 40),
    cabled: false
  }))
  const search = await medianMs(3, () =>
    bestPlacements(candidates, { router: 0, roomFloorDbm: -40, backhaulFloorDbm: -67, mostUnits: 4, mostHops: 2 })
  )
  report(
    'search over 40 candidates for up to 4 units, the router one of them',
    `${(search / 1000).toFixed(2)} s, every set looked at`
  )
}
