import type { Band } from '../../values/band'
import { medianOf } from '../../values/median'
import { Kept } from '../../record/kept'
import { standing, thingsOf, type VisitRecord } from '../../record/record'
import type { Grid } from '../../radio/coverage'
import type { PathLossInput } from '../../radio/path-loss'
import { wallLoss, type Material } from '../../radio/wall-loss'
import { firstWalls, wallsOf, type PlanRoom, type PlanStretch, type PlanWall, type WallDefaults } from './walls'

/** Bands as they are planned: the middle and what wall losses are averaged over, in MHz. */
export const plannedBands = {
  '2.4': { middleMHz: 2442, overMHz: 83 },
  '5': { middleMHz: 5500, overMHz: 700 },
  '6': { middleMHz: 6535, overMHz: 1180 }
} as const

/** How high above their floor the devices are held, metres. */
export const HELD_AT_M = 1

/** A storey with its heights, metres above the ground floor's floor. */
export interface PlanStorey {
  id: string
  name: string
  floorM: number
  heightM: number
  ceiling: { material: Material; thicknessMm: number }
}

export interface NamedRoom extends PlanRoom {
  name: string
  listed: boolean
  complained: boolean
}

/** A home as far as signal is concerned. */
export interface HomePlan {
  storeys: PlanStorey[]
  rooms: NamedRoom[]
  walls: PlanWall[]
  /** From corner to corner: no hindrance to signal, but a way for a cable. */
  stairs: PlanStretch[]
}

const firstCeiling = { material: 'wood', thicknessMm: 200 } as const

/** What of a record is drawn. */
type DrawnRecord = Pick<VisitRecord, 'storeys' | 'rooms' | 'walls' | 'openings' | 'brief'>

const drawn = new Kept<object, HomePlan>()

/**
 * The plan in a record: what is drawn and whole; a room without a size or a storey is left out. Made once for as long as nothing of
 * it changes, as many rules ask for it after every entry.
 */
export function planOf(record: DrawnRecord): HomePlan {
  const { storeys, rooms, walls, openings, brief } = record
  return storeys ? drawn.get(storeys, [rooms, walls, openings, brief.facts], () => drawPlan(record)) : drawPlan(record)
}

function drawPlan(record: DrawnRecord): HomePlan {
  const storeys = standing(thingsOf(record, 'storey'))
    .map(({ id, facts }): PlanStorey => ({
      id,
      name: facts.name ?? 'Storey',
      floorM: facts.floorM ?? 0,
      heightM: facts.heightM ?? 2.5,
      ceiling: {
        material: facts.ceilingMaterial ?? firstCeiling.material,
        thicknessMm: facts.ceilingMm ?? firstCeiling.thicknessMm
      }
    }))
    .sort((a, b) => a.floorM - b.floorM)
  const known = new Set(storeys.map(({ id }) => id))
  const rooms = standing(thingsOf(record, 'room')).flatMap(({ id, facts }): NamedRoom[] => {
    const { name, storey, x, y, widthM, depthM, building, listed, complained } = facts
    if (
      storey === undefined ||
      !known.has(storey) ||
      x === undefined ||
      y === undefined ||
      widthM === undefined ||
      depthM === undefined
    )
      return []
    return [
      {
        id,
        name: name ?? 'Room',
        storey,
        x,
        y,
        widthM,
        depthM,
        building: building ?? '',
        listed: listed !== false,
        complained: complained === true
      }
    ]
  })
  const { outerMaterial, outerMm, innerMaterial, innerMm } = record.brief.facts
  const defaults: WallDefaults = {
    outer: {
      material: outerMaterial ?? firstWalls.outer.material,
      thicknessMm: outerMm ?? firstWalls.outer.thicknessMm
    },
    inner: {
      material: innerMaterial ?? firstWalls.inner.material,
      thicknessMm: innerMm ?? firstWalls.inner.thicknessMm
    }
  }
  const whole = <T extends object>(facts: Partial<T>, ...fields: (keyof T)[]): facts is T =>
    fields.every((field) => facts[field] !== undefined)
  const own = standing(thingsOf(record, 'wall')).flatMap(({ facts }) =>
    whole(facts, 'storey', 'x1', 'y1', 'x2', 'y2', 'material', 'thicknessMm') ? [facts as Required<typeof facts>] : []
  )
  const openings = standing(thingsOf(record, 'opening')).flatMap(({ facts }) =>
    whole(facts, 'storey', 'x1', 'y1', 'x2', 'y2', 'kind') ? [facts as Required<typeof facts>] : []
  )
  return {
    storeys,
    rooms,
    stairs: openings.filter(({ kind }) => kind === 'stairs'),
    walls: wallsOf(
      rooms,
      defaults,
      own,
      openings.flatMap(({ kind, ...opening }) => (kind === 'stairs' ? [] : [{ ...opening, kind }]))
    )
  }
}

const lossOf = new Map<string, number>()

/** What a wall or ceiling takes from a band, in dB: the mean over the band, met straight on. */
export function bandLoss(material: Material, thicknessMm: number, band: Band): number {
  if (thicknessMm === 0) return 0
  const key = `${material} ${thicknessMm} ${band}`
  const known = lossOf.get(key)
  if (known !== undefined) return known
  const { middleMHz, overMHz } = plannedBands[band]
  const { lossDb } = wallLoss({ material, thicknessMm, frequencyMHz: middleMHz, averageOverMHz: overMHz })
  lossOf.set(key, lossDb)
  return lossDb
}

/**
 * Walls and floors of a plan, as the path of a signal meets them.
 * @param wallFactor what this home's walls take, beside the table's
 */
export function obstaclesOf(plan: HomePlan, band: Band, wallFactor = 1): Obstacles {
  const key = `${band} ${wallFactor}`
  const ofPlan = obstacles.get(plan) ?? new Map<string, Obstacles>()
  if (!obstacles.has(plan)) obstacles.set(plan, ofPlan)
  const known = ofPlan.get(key) ?? standInTheWay(plan, band, wallFactor)
  // While a factor is being fitted every step asks for another one: those are not worth keeping.
  if (ofPlan.size < MOST_KEPT) ofPlan.set(key, known)
  return known
}

interface Obstacles {
  walls: NonNullable<PathLossInput['walls']>
  floors: NonNullable<PathLossInput['floors']>
}
const obstacles = new WeakMap<HomePlan, Map<string, Obstacles>>()
const MOST_KEPT = 8

function standInTheWay(plan: HomePlan, band: Band, wallFactor: number): Obstacles {
  const storeyOf = new Map(plan.storeys.map((storey) => [storey.id, storey]))
  return {
    walls: plan.walls
      .filter(({ thicknessMm }) => thicknessMm > 0)
      .map((wall) => {
        const { floorM, heightM } = storeyOf.get(wall.storey)!
        return {
          from: { x: wall.x1, y: wall.y1 },
          to: { x: wall.x2, y: wall.y2 },
          zFrom: floorM,
          zTo: floorM + heightM,
          lossDb: wallFactor * bandLoss(wall.material, wall.thicknessMm, band)
        }
      }),
    // The uppermost ceiling has nothing over it.
    floors: plan.storeys.slice(0, -1).map(({ floorM, heightM, ceiling }) => ({
      z: floorM + heightM,
      lossDb: bandLoss(ceiling.material, ceiling.thicknessMm, band)
    }))
  }
}

/** The cells of a storey: every room of it, and a little round them. */
export function gridOf(plan: HomePlan, storey: string, cellM: number): Grid | null {
  const rooms = plan.rooms.filter((room) => room.storey === storey)
  const on = plan.storeys.find(({ id }) => id === storey)
  if (!on || rooms.length === 0) return null
  const [left, top] = [Math.min(...rooms.map(({ x }) => x)), Math.min(...rooms.map(({ y }) => y))]
  const [right, bottom] = [
    Math.max(...rooms.map(({ x, widthM }) => x + widthM)),
    Math.max(...rooms.map(({ y, depthM }) => y + depthM))
  ]
  return {
    x: left + cellM / 2,
    y: top + cellM / 2,
    columns: Math.max(1, Math.round((right - left) / cellM)),
    rows: Math.max(1, Math.round((bottom - top) / cellM)),
    cellM,
    z: on.floorM + HELD_AT_M
  }
}

/** Which unit serves each cell, and with what signal: the strongest. */
export function strongest(signals: readonly Float32Array[]): { signal: Float32Array; by: Int16Array } {
  const cells = signals[0]?.length ?? 0
  const signal = new Float32Array(cells).fill(-Infinity)
  const by = new Int16Array(cells).fill(-1)
  signals.forEach((values, index) => {
    for (let at = 0; at < cells; at++)
      if (values[at]! > signal[at]!) {
        signal[at] = values[at]!
        by[at] = index
      }
  })
  return { signal, by }
}

/** The room that a point of a storey lies in; undefined where it lies in none. */
export function roomAt(plan: HomePlan, at: { storey: string; x: number; y: number }): NamedRoom | undefined {
  return plan.rooms.find(
    (room) =>
      room.storey === at.storey &&
      at.x >= room.x &&
      at.x <= room.x + room.widthM &&
      at.y >= room.y &&
      at.y <= room.y + room.depthM
  )
}

/** How a room fares, in dBm, and the share of it at or above a floor. */
export interface RoomFigures {
  worst: number
  median: number
  share: number
}

/** The cells of a grid whose middles lie in a room, as places in its rows one after another. */
function cellsOf(room: PlanRoom, grid: Grid): number[] {
  const cells: number[] = []
  for (let row = 0; row < grid.rows; row++) {
    const y = grid.y + row * grid.cellM
    if (y < room.y || y > room.y + room.depthM) continue
    for (let column = 0; column < grid.columns; column++) {
      const x = grid.x + column * grid.cellM
      if (x >= room.x && x <= room.x + room.widthM) cells.push(row * grid.columns + column)
    }
  }
  return cells
}

/** Which sender serves most of a room, by its place among the senders; -1 where none does. */
export function servedBy(room: PlanRoom, grid: Grid, by: Int16Array): number {
  const cells = new Map<number, number>()
  for (const cell of cellsOf(room, grid)) cells.set(by[cell]!, (cells.get(by[cell]!) ?? 0) + 1)
  return [...cells].sort((a, b) => b[1] - a[1])[0]?.[0] ?? -1
}

/** Figures of a room from the signal of its storey; null where no cell's middle lies in it. */
export function roomFigures(room: PlanRoom, grid: Grid, signal: Float32Array, floorDbm: number): RoomFigures | null {
  const values = cellsOf(room, grid).map((cell) => signal[cell]!)
  if (values.length === 0) return null
  values.sort((a, b) => a - b)
  return {
    worst: values[0]!,
    median: medianOf(values),
    share: values.filter((value) => value >= floorDbm).length / values.length
  }
}
