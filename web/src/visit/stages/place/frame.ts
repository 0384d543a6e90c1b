import type { HomePlan, NamedRoom } from '@pasado/core/work/plan/home-plan'

/** What of the plane is shown: all storeys alike, so that they lie over each other. */
export function frameOf(plan: HomePlan): { x: number; y: number; width: number; height: number } {
  if (plan.rooms.length === 0) return { x: -1, y: -1, width: 16, height: 11 }
  const room = 1
  const [left, top] = [
    Math.min(...plan.rooms.map(({ x }) => x)) - room,
    Math.min(...plan.rooms.map(({ y }) => y)) - room
  ]
  const [right, bottom] = [
    Math.max(...plan.rooms.map(({ x, widthM }) => x + widthM)) + room,
    Math.max(...plan.rooms.map(({ y, depthM }) => y + depthM)) + room
  ]
  return { x: left, y: top, width: Math.max(8, right - left), height: Math.max(6, bottom - top) }
}

/** Where the name of a room stands in it: of four places the one that is clearest of what stands there. */
export function namePlace(
  room: NamedRoom,
  marks: readonly { x: number; y: number }[]
): { dx: number; dy: number; size: number } {
  const letters = room.name.length + (room.complained ? 2 : 0)
  const size = Math.min(0.4, Math.max(0.2, (room.widthM - 0.5) / (letters * 0.55)))
  const length = letters * size * 0.55
  const [near, far] = [0.32, Math.max(0.32, room.widthM - length - 0.32)]
  const [high, low] = [Math.min(0.72, room.depthM * 0.6), room.depthM - 0.35]
  const places = [
    { dx: near, dy: high },
    { dx: near, dy: low },
    { dx: far, dy: high },
    { dx: (room.widthM - length) / 2, dy: room.depthM / 2 }
  ]
  const clear = ({ dx, dy }: { dx: number; dy: number }) =>
    Math.min(
      1.2,
      ...marks.map((mark) =>
        Math.hypot(
          mark.x - Math.min(room.x + dx + length, Math.max(room.x + dx, mark.x)),
          mark.y - (room.y + dy - size / 3)
        )
      )
    )
  return { ...places.reduce((best, place) => (clear(place) > clear(best) + 1e-9 ? place : best)), size }
}
