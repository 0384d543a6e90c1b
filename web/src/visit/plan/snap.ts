import type { NamedRoom } from '@pasado/core/plan/home-plan'

/** Coordinates are kept to a decimetre. */
export const tenth = (value: number): number => Math.round(value * 10) / 10
const NEAR_M = 0.35

/** A coordinate drawn to the nearest edge of a room, or else to a decimetre. */
export function snapped(value: number, edges: readonly number[]): number {
  const nearest = edges.reduce((best, edge) => (Math.abs(edge - value) < Math.abs(best - value) ? edge : best), Infinity)
  return Math.abs(nearest - value) <= NEAR_M ? nearest : tenth(value)
}

/** The edges of rooms that another may share, across and down. */
export function edgesOf(rooms: readonly NamedRoom[]): { across: number[]; down: number[] } {
  return { across: rooms.flatMap(({ x, widthM }) => [x, x + widthM]), down: rooms.flatMap(({ y, depthM }) => [y, y + depthM]) }
}

/** Where a room that was moved comes to lie: its edges drawn to those of the others. */
export function movedTo(room: { x: number; y: number; widthM: number; depthM: number }, others: readonly NamedRoom[]): { x: number; y: number } {
  const { across, down } = edgesOf(others)
  const along = (start: number, length: number, edges: readonly number[]) => {
    const atStart = snapped(start, edges)
    if (edges.includes(atStart)) return atStart
    const atEnd = snapped(start + length, edges)
    return edges.includes(atEnd) ? tenth(atEnd - length) : atStart
  }
  return { x: along(room.x, room.widthM, across), y: along(room.y, room.depthM, down) }
}
