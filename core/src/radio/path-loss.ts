import { z } from 'zod'

const point2 = z.strictObject({ x: z.number(), y: z.number() })
const point3 = z.strictObject({ x: z.number(), y: z.number(), z: z.number() })
const loss = z.number().min(0, 'must be 0 or more')

const WALL_FROM_M = 0
const WALL_TO_M = 2.6

const wall = z
  .strictObject({ from: point2, to: point2, zFrom: z.number().optional(), zTo: z.number().optional(), lossDb: loss })
  .refine(({ zFrom = WALL_FROM_M, zTo = WALL_TO_M }) => zTo >= zFrom, {
    path: ['zTo'],
    message: 'must be at or above zFrom'
  })

/** Input of `path-loss`; metres. */
export const pathLossInput = z.strictObject({
  frequencyMHz: z.number().positive('must be above 0'),
  from: point3,
  to: point3,
  exponent: z.number().positive('must be above 0').optional(),
  walls: z.array(wall).optional(),
  floors: z.array(z.strictObject({ z: z.number(), lossDb: loss })).optional()
})
export type PathLossInput = z.infer<typeof pathLossInput>
type Wall = NonNullable<PathLossInput['walls']>[number]

export const pathLossOutput = z.strictObject({
  distanceM: z.number(),
  distanceDb: z.number(),
  wallsDb: z.number(),
  wallsCrossed: z.number(),
  floorsDb: z.number(),
  floorsCrossed: z.number(),
  totalDb: z.number()
})
export type PathLoss = z.infer<typeof pathLossOutput>

const LIGHT_M_S = 299_792_458
/** Plan and height are judged to this, in metres; lines whose angle has a sine of at most this are parallel. */
const JUDGED_TO = 1e-9

/**
 * Multi-wall model in the manner of COST 231: loss by distance, by each wall crossed and by the floors between.
 * @param link checked by `pathLossInput`
 */
export function pathLoss({ frequencyMHz, from, to, exponent = 2, walls = [], floors = [] }: PathLossInput): PathLoss {
  const distanceM = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z)
  const distanceDb = distanceLoss(frequencyMHz, distanceM, exponent)
  const crossed = walls.filter((candidate) => crossesWall(candidate, from, to))
  const wallsDb = crossed.reduce((sum, value) => sum + value.lossDb, 0)
  const between = floors.filter(({ z: height }) => isAbove(from.z, height) !== isAbove(to.z, height))
  const floorsDb = floorLoss(between.map(({ lossDb }) => lossDb))
  return {
    distanceM,
    distanceDb,
    wallsDb,
    wallsCrossed: crossed.length,
    floorsDb,
    floorsCrossed: between.length,
    totalDb: distanceDb + wallsDb + floorsDb
  }
}

/** Loss by distance alone, in decibels. */
export function distanceLoss(frequencyMHz: number, distanceM: number, exponent: number): number {
  return (
    20 * Math.log10((4 * Math.PI * frequencyMHz * 1e6) / LIGHT_M_S) + 10 * exponent * Math.log10(Math.max(distanceM, 1))
  )
}

const isAbove = (z0: number, height: number) => z0 - height > JUDGED_TO

/** Loss of several floors: less than their sum (COST 231). */
export function floorLoss(losses: readonly number[]): number {
  const many = losses.length
  if (many === 0) return 0
  const mean = losses.reduce((sum, value) => sum + value, 0) / many
  return mean * many ** ((many + 2) / (many + 1) - 0.46)
}

/** Whether the segment between two points crosses a wall, in plan and in height; touching an end counts. */
export function crossesWall(wall: Wall, from: PathLossInput['from'], to: PathLossInput['to']): boolean {
  const link = { x: to.x - from.x, y: to.y - from.y }
  const along = { x: wall.to.x - wall.from.x, y: wall.to.y - wall.from.y }
  const linkM = Math.hypot(link.x, link.y)
  const wallM = Math.hypot(along.x, along.y)
  if (linkM <= JUDGED_TO || wallM <= JUDGED_TO) return false
  const unit = { x: link.x / linkM, y: link.y / linkM }
  const side = { x: along.x / wallM, y: along.y / wallM }
  const sine = unit.x * side.y - unit.y * side.x
  if (Math.abs(sine) <= JUDGED_TO) return false
  const gap = { x: wall.from.x - from.x, y: wall.from.y - from.y }
  const onLinkM = (gap.x * side.y - gap.y * side.x) / sine
  const onWallM = (gap.x * unit.y - gap.y * unit.x) / sine
  if (onLinkM < -JUDGED_TO || onLinkM > linkM + JUDGED_TO || onWallM < -JUDGED_TO || onWallM > wallM + JUDGED_TO)
    return false
  const share = Math.min(1, Math.max(0, onLinkM / linkM))
  const height = from.z + share * (to.z - from.z)
  const { zFrom = WALL_FROM_M, zTo = WALL_TO_M } = wall
  return height >= zFrom - JUDGED_TO && height <= zTo + JUDGED_TO
}
