import type { NamedRoom } from '@pasado/core/work/plan/home-plan'
import type { PlanWall } from '@pasado/core/work/plan/walls'

/** Coordinates are kept to a decimetre. */
export const tenth = (value: number): number => Math.round(value * 10) / 10
const NEAR_M = 0.35

/** A coordinate drawn to the nearest edge of a room, or else to a decimetre. */
export function snapped(value: number, edges: readonly number[]): number {
  const nearest = edges.reduce(
    (best, edge) => (Math.abs(edge - value) < Math.abs(best - value) ? edge : best),
    Infinity
  )
  return Math.abs(nearest - value) <= NEAR_M ? nearest : tenth(value)
}

/** The edges of rooms that another may share, across and down. */
export function edgesOf(rooms: readonly NamedRoom[]): { across: number[]; down: number[] } {
  return {
    across: rooms.flatMap(({ x, widthM }) => [x, x + widthM]),
    down: rooms.flatMap(({ y, depthM }) => [y, y + depthM])
  }
}

/** Where a room that was moved comes to lie: its edges drawn to those of the others. */
export function movedTo(
  room: { x: number; y: number; widthM: number; depthM: number },
  others: readonly NamedRoom[]
): { x: number; y: number } {
  const { across, down } = edgesOf(others)
  const along = (start: number, length: number, edges: readonly number[]) => {
    const atStart = snapped(start, edges)
    if (edges.includes(atStart)) return atStart
    const atEnd = snapped(start + length, edges)
    return edges.includes(atEnd) ? tenth(atEnd - length) : atStart
  }
  return { x: along(room.x, room.widthM, across), y: along(room.y, room.depthM, down) }
}

/** How wide openings are until somebody says, metres. */
export const openingWidthM = { door: 0.9, window: 1.2, open: 1.2 } as const

/** The stretch of an opening in a wall, about a point and no longer than the wall. */
export function openingIn(
  wall: PlanWall,
  about: { x: number; y: number },
  widthM: number
): { x1: number; y1: number; x2: number; y2: number } {
  const upright = Math.abs(wall.x1 - wall.x2) < 0.02
  const [from, to] = upright
    ? [Math.min(wall.y1, wall.y2), Math.max(wall.y1, wall.y2)]
    : [Math.min(wall.x1, wall.x2), Math.max(wall.x1, wall.x2)]
  const width = Math.min(widthM, to - from)
  const start = tenth(Math.min(to - width, Math.max(from, (upright ? about.y : about.x) - width / 2)))
  const end = Math.min(to, tenth(start + width))
  return upright ? { x1: wall.x1, y1: start, x2: wall.x1, y2: end } : { x1: start, y1: wall.y1, x2: end, y2: wall.y1 }
}

/** The wall of a storey nearest to a point, if one is within reach of it. */
export function wallNear(walls: readonly PlanWall[], at: { x: number; y: number }, withinM = 0.7): PlanWall | null {
  const off = ({ x1, y1, x2, y2 }: PlanWall) =>
    Math.hypot(
      at.x - Math.min(Math.max(x1, x2), Math.max(Math.min(x1, x2), at.x)),
      at.y - Math.min(Math.max(y1, y2), Math.max(Math.min(y1, y2), at.y))
    )
  const nearest = walls.filter(({ opening }) => opening === null).sort((a, b) => off(a) - off(b))[0]
  return nearest && off(nearest) <= withinM ? nearest : null
}
