import { bestPlacements, judgePlacement, type Candidate, type Placement, type Wanted } from '../radio/placement'
import { coverage, type Grid } from '../radio/coverage'
import { pathLoss } from '../radio/path-loss'
import { gridOf, obstaclesOf, plannedBands, ROOM_FLOOR_DBM, roomAt, roomFigures, type Band, type HomePlan } from './home-plan'

/** What a search for places is told. */
export interface SuggestInput {
  plan: HomePlan
  band: Band
  /** Where the router stands; z above the ground floor's floor. */
  router: { x: number; y: number; z: number }
  outlets: readonly { id: string; storey: string; x: number; y: number; kind: 'mains' | 'line' | 'network'; cabinet: boolean }[]
  troubles: readonly { storey: string; x: number; y: number }[]
  powerDbm: number
  /** The router included. */
  mostUnits: number
  mostHops: number
}

/** Some places, in words and in figures. */
export interface SuggestedPlacement {
  units: { outlet: string; storey: string; x: number; y: number; where: string; hops: number }[]
  marginDb: number
  weakest: string
  holds: boolean
}

/** What technicians go by without a calculation, each with what it comes to here. */
export const schoolWords = { halfway: 'halfway between the router and the weakest room', 'next-room': 'one room away from the router', 'within-12': 'as near to the weakest room as 12 m from the router allow' } as const
export type School = keyof typeof schoolWords

/** Proposals, and what each school would do with one unit; null where it finds no outlet. */
export interface Suggestion {
  proposals: SuggestedPlacement[]
  schools: { school: School; placement: SuggestedPlacement | null }[]
}

const SCHOOL_M = 12
const BACKHAUL_FLOOR_DBM = -67
const STANDS_AT_M = 1
/** Nearer than this to a source of trouble no unit is proposed, metres. */
const CLEAR_M = 1
const CELL_M = 0.5
const MOST_CANDIDATES = 40

/**
 * Proposes outlets for further units: those in cabinets or beside trouble are left out, and of more than forty the forty
 * that serve the rooms best are looked at.
 */
export function suggestPlaces({ plan, band, router, outlets, troubles, powerDbm, mostUnits, mostHops }: SuggestInput): Suggestion {
  const { walls, floors } = obstaclesOf(plan, band)
  const frequencyMHz = plannedBands[band].middleMHz
  const grids = new Map(plan.storeys.flatMap(({ id }): [string, Grid][] => { const grid = gridOf(plan, id, CELL_M); return grid ? [[id, grid]] : [] }))
  const wanted = plan.rooms.filter(({ listed }) => listed)
  const floorOf = new Map(plan.storeys.map(({ id, floorM }) => [id, floorM]))
  const clear = outlets.filter(({ cabinet, storey, x, y }) => !cabinet && floorOf.has(storey) && !troubles.some((one) => one.storey === storey && Math.hypot(one.x - x, one.y - y) < CLEAR_M))
  const give = (at: { x: number; y: number; z: number }): number[] => {
    const signals = new Map([...grids].map(([storey, grid]) => [storey, coverage({ ...at, frequencyMHz, powerDbm }, grid, walls, floors)]))
    return wanted.map((room) => { const grid = grids.get(room.storey); return grid ? (roomFigures(room, grid, signals.get(room.storey)!, ROOM_FLOOR_DBM)?.worst ?? -120) : -120 })
  }
  const places = clear.map((outlet) => { const z = floorOf.get(outlet.storey)! + STANDS_AT_M; return { outlet, at: { x: outlet.x, y: outlet.y, z }, rooms: give({ x: outlet.x, y: outlet.y, z }) } })
    .sort((a, b) => mean(b.rooms) - mean(a.rooms)).slice(0, MOST_CANDIDATES)
  const all = [{ at: router, rooms: give(router) }, ...places]
  const candidates = all.map(({ at, rooms }, index): Candidate => ({
    id: String(index), rooms,
    links: all.map(({ at: other }) => powerDbm - pathLoss({ frequencyMHz, from: at, to: other, walls, floors }).totalDb),
    cabled: index > 0 && places[index - 1]!.outlet.kind === 'network'
  }))
  const limits: Wanted = { router: 0, roomFloorDbm: ROOM_FLOOR_DBM, backhaulFloorDbm: BACKHAUL_FLOOR_DBM, mostUnits, mostHops }
  const inWords = (found: Placement): SuggestedPlacement => {
    const weakestAt = found.rooms.indexOf(Math.min(...found.rooms))
    return {
      units: found.candidates.flatMap((index, at) => {
        if (index === 0) return []
        const { outlet } = places[index - 1]!
        return [{ outlet: outlet.id, storey: outlet.storey, x: outlet.x, y: outlet.y, hops: found.hops[at]!, where: `${roomAt(plan, outlet)?.name ?? 'outside every room'}${outlet.kind === 'network' ? ', at the network socket' : ''}` }]
      }),
      marginDb: found.marginDb, weakest: wanted[weakestAt]?.name ?? '', holds: found.holds
    }
  }
  const weakest = wanted[all[0]!.rooms.indexOf(Math.min(...all[0]!.rooms))]
  const target = weakest && { storey: weakest.storey, x: weakest.x + weakest.widthM / 2, y: weakest.y + weakest.depthM / 2, z: (floorOf.get(weakest.storey) ?? 0) + STANDS_AT_M }
  const schools = (Object.keys(schoolWords) as School[]).map((school) => {
    const at = target ? schoolChoice(school, places.map((one) => one.at), router, target, (point) => roomAtHeight(plan, point)) : null
    const placement = at === null ? null : judgePlacement(candidates, [0, at + 1], { ...limits, mostHops: 1 })
    return { school, placement: placement && inWords(placement) }
  })
  return { proposals: bestPlacements(candidates, limits).map(inWords), schools }
}

type Point = { x: number; y: number; z: number }
const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z)

/** Which outlet a school would take, by its place in the list; null where none is to its liking. */
function schoolChoice(school: School, outlets: readonly Point[], router: Point, target: Point, roomOf: (point: Point) => string | null): number | null {
  const middle = { x: (router.x + target.x) / 2, y: (router.y + target.y) / 2, z: (router.z + target.z) / 2 }
  const here = roomOf(router)
  const liked = outlets.map((outlet, at) => ({ outlet, at })).filter(({ outlet }) => (school === 'next-room' ? roomOf(outlet) !== here : school === 'within-12' ? far(outlet, router) <= SCHOOL_M : true))
  const measure = (outlet: Point) => (school === 'halfway' ? far(outlet, middle) : school === 'next-room' ? far(outlet, router) : far(outlet, target))
  return liked.sort((a, b) => measure(a.outlet) - measure(b.outlet))[0]?.at ?? null
}

/** The room that a point above the ground lies in. */
function roomAtHeight(plan: HomePlan, { x, y, z }: Point): string | null {
  const storey = plan.storeys.findLast(({ floorM }) => floorM <= z)
  return (storey && roomAt(plan, { storey: storey.id, x, y })?.name) ?? null
}

const mean = (values: readonly number[]) => values.reduce((total, value) => total + Math.max(value, -90), 0) / Math.max(1, values.length)
