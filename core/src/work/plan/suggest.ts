import { bestPlacements, judgePlacement, type Candidate, type Placement, type Wanted } from '../../radio/placement'
import { coverage, type Grid } from '../../radio/coverage'
import { pathLoss } from '../../radio/path-loss'
import { gridOf, obstaclesOf, plannedBands, roomAt, roomFigures, type HomePlan, type NamedRoom } from './home-plan'
import type { Band } from '../../values/band'

/** What a search for places is told. */
export interface SuggestInput {
  plan: HomePlan
  band: Band
  /** Where the router stands; z above the ground floor's floor. */
  router: { x: number; y: number; z: number }
  outlets: readonly {
    id: string
    storey: string
    x: number
    y: number
    cabinet: boolean
    /** A cable leads to it from the router. */ cabled: boolean
  }[]
  troubles: readonly { storey: string; x: number; y: number }[]
  powerDbm: number
  /** The company's figures: least signal of a room and of a wireless hop, dBm, and how far from what troubles no unit is proposed, metres. */
  floors: { roomDbm: number; hopDbm: number; clearM: number }
  /** The router included. */
  mostUnits: number
  mostHops: number
  /** What readings taught of this home; the book's otherwise. */
  exponent?: number
  wallFactor?: number
}

/** Some places, in words and in figures. */
export interface SuggestedPlacement {
  units: { outlet: string; storey: string; x: number; y: number; where: string; hops: number }[]
  /** The weakest signal of every room that is to have some, in dBm, by the room's id. */
  rooms: { room: string; dbm: number }[]
  marginDb: number
  weakest: string
  holds: boolean
}

/** What technicians go by without a calculation, each with what it comes to here. */
export const schoolWords = {
  halfway: 'halfway between the router and the weakest room',
  'next-room': 'one room away from the router',
  'within-12': 'as near to the weakest room as 12 m from the router allow'
} as const
export type School = keyof typeof schoolWords

/** What a school would do, unit after unit until every room holds or no more may be added. */
export interface SchoolChoice {
  school: School
  /** Null where it finds no outlet at all. */
  placement: SuggestedPlacement | null
  /** False where a unit of it would not reach the others: then nothing of it works, whatever its rooms would get. */
  joined: boolean
}

/** What the search comes to. */
export interface Suggestion {
  proposals: SuggestedPlacement[]
  schools: SchoolChoice[]
  /** A cable to one place, and what it would save. */
  cables: { where: string; placement: SuggestedPlacement }[]
  /** How many outlets were looked at, of how many; and what no set of outlets could do better for the weakest room, in dB above the floor. */
  looked: { at: number; of: number; mostMarginDb: number }
}

const SCHOOL_M = 12
const STANDS_AT_M = 1
const CELL_M = 0.5
const MOST_CANDIDATES = 40
/** So many places are tried with a cable, and so many of them told. */
const [CABLES_TRIED, CABLES_TOLD] = [12, 2]

/**
 * Proposes outlets for further units: those in cabinets or beside trouble are left out, and of more than forty the forty
 * that serve the rooms best are looked at. Exact among those.
 */
export function suggestPlaces({
  plan,
  band,
  router,
  outlets,
  troubles,
  powerDbm,
  floors: least,
  mostUnits,
  mostHops,
  exponent = 2,
  wallFactor = 1
}: SuggestInput): Suggestion {
  const { walls, floors } = obstaclesOf(plan, band, wallFactor)
  const frequencyMHz = plannedBands[band].middleMHz
  const grids = new Map(
    plan.storeys.flatMap(({ id }): [string, Grid][] => {
      const grid = gridOf(plan, id, CELL_M)
      return grid ? [[id, grid]] : []
    })
  )
  const wanted = plan.rooms.filter(({ listed }) => listed)
  const floorOf = new Map(plan.storeys.map(({ id, floorM }) => [id, floorM]))
  const clear = outlets.filter(
    ({ cabinet, storey, x, y }) =>
      !cabinet &&
      floorOf.has(storey) &&
      !troubles.some((trouble) => trouble.storey === storey && Math.hypot(trouble.x - x, trouble.y - y) < least.clearM)
  )
  const give = (at: Point): number[] => {
    const signals = new Map(
      [...grids].map(([storey, grid]) => [
        storey,
        coverage({ ...at, frequencyMHz, powerDbm }, grid, walls, floors, exponent)
      ])
    )
    return wanted.map((room) => {
      const grid = grids.get(room.storey)
      return grid
        ? (roomFigures(room, grid, signals.get(room.storey)!, least.roomDbm)?.worst ?? NOTHING_DBM)
        : NOTHING_DBM
    })
  }
  const reached = clear.map((outlet) => {
    const at = { x: outlet.x, y: outlet.y, z: floorOf.get(outlet.storey)! + STANDS_AT_M }
    return { outlet, at, rooms: give(at) }
  })
  const places = [...reached].sort((a, b) => mean(b.rooms) - mean(a.rooms)).slice(0, MOST_CANDIDATES)
  const all = [{ at: router, rooms: give(router) }, ...places]
  const candidates = all.map(({ at, rooms }, index): Candidate => ({
    id: String(index),
    rooms,
    cabled: index > 0 && places[index - 1]!.outlet.cabled,
    links: all.map(
      ({ at: other }) => powerDbm - pathLoss({ frequencyMHz, from: at, to: other, exponent, walls, floors }).totalDb
    )
  }))
  const limits: Wanted = {
    router: 0,
    roomFloorDbm: least.roomDbm,
    backhaulFloorDbm: least.hopDbm,
    mostUnits,
    mostHops
  }
  const nameOf = ({ outlet }: (typeof places)[number]) =>
    `${roomAt(plan, outlet)?.name ?? 'outside every room'}${outlet.cabled ? ', by cable' : ''}`
  const inWords = (found: Placement): SuggestedPlacement => ({
    units: found.candidates.flatMap((index, at) => {
      if (index === 0) return []
      const place = places[index - 1]!
      return [
        {
          outlet: place.outlet.id,
          storey: place.outlet.storey,
          x: place.outlet.x,
          y: place.outlet.y,
          hops: found.hops[at]!,
          where: nameOf(place)
        }
      ]
    }),
    rooms: wanted.map(({ id }, room) => ({ room: id, dbm: found.rooms[room]! })),
    marginDb: found.marginDb,
    weakest: wanted[weakestOf(found.rooms)]?.name ?? '',
    holds: found.holds
  })
  const best = bestPlacements(candidates, limits)

  const middleOf = (room: NamedRoom): Point => ({
    x: room.x + room.widthM / 2,
    y: room.y + room.depthM / 2,
    z: (floorOf.get(room.storey) ?? 0) + STANDS_AT_M
  })
  const schools = (Object.keys(schoolWords) as School[]).map((school): SchoolChoice => {
    const chosen = [0]
    const rooms = () => wanted.map((_, room) => Math.max(...chosen.map((at) => candidates[at]!.rooms[room]!)))
    while (chosen.length < mostUnits && rooms().some((dbm) => dbm < least.roomDbm)) {
      const target = middleOf(wanted[weakestOf(rooms())]!)
      const from = chosen.map((at) => all[at]!.at).sort((a, b) => far(a, target) - far(b, target))[0]!
      const at = schoolChoice(
        school,
        places.map((place, index) => (chosen.includes(index + 1) ? null : place.at)),
        from,
        target,
        (point) => roomAtHeight(plan, point)
      )
      if (at === null) break
      chosen.push(at + 1)
    }
    // The school does not ask whether the units reach each other: that is told beside what it gives.
    const found =
      chosen.length === 1
        ? null
        : judgePlacement(candidates, chosen, { ...limits, backhaulFloorDbm: -Infinity, mostHops: mostUnits })
    return { school, placement: found && inWords(found), joined: judgePlacement(candidates, chosen, limits) !== null }
  })

  const now = best[0]
  const cables =
    wanted.length === 0
      ? []
      : places
          .map((place, index) => ({ place, index }))
          .filter(({ place }) => !place.outlet.cabled)
          .sort(
            (a, b) =>
              Number(best.some(({ candidates: chosen }) => chosen.includes(b.index + 1))) -
              Number(best.some(({ candidates: chosen }) => chosen.includes(a.index + 1)))
          )
          .slice(0, CABLES_TRIED)
          .flatMap(({ place, index }) => {
            const most = now?.holds ? now.candidates.length - 1 : mostUnits
            if (most < 2) return []
            const found = bestPlacements(
              candidates.map((candidate, at) => (at === index + 1 ? { ...candidate, cabled: true } : candidate)),
              { ...limits, mostUnits: most }
            )[0]
            return found?.holds && found.candidates.includes(index + 1)
              ? [{ where: roomAt(plan, place.outlet)?.name ?? 'outside every room', placement: inWords(found) }]
              : []
          })
          .sort(
            (a, b) => a.placement.units.length - b.placement.units.length || b.placement.marginDb - a.placement.marginDb
          )
          .filter((candidate, at, list) => list.findIndex(({ where }) => where === candidate.where) === at)
          .slice(0, CABLES_TOLD)

  const mostRooms = wanted.map((_, room) => Math.max(all[0]!.rooms[room]!, ...reached.map(({ rooms }) => rooms[room]!)))
  return {
    proposals: best.map(inWords),
    schools,
    cables,
    looked: {
      at: places.length,
      of: reached.length,
      mostMarginDb: wanted.length ? Math.min(...mostRooms) - least.roomDbm : 0
    }
  }
}

/** Where a room has no cell at all. */
const NOTHING_DBM = -120

/**
 * The network sockets that a cable joins to the router: those whose cables lead, over other sockets, to one that is within
 * reach of it.
 */
export function cabledSockets(
  outlets: readonly { id: string; storey: string; x: number; y: number; cableTo?: string | undefined }[],
  router: { storey: string; x: number; y: number }
): Set<string> {
  const joined = new Set(
    outlets
      .filter(
        (outlet) =>
          outlet.storey === router.storey && Math.hypot(outlet.x - router.x, outlet.y - router.y) <= ROUTER_REACH_M
      )
      .map(({ id }) => id)
  )
  for (let before = -1; before < joined.size;) {
    before = joined.size
    for (const { id, cableTo } of outlets) {
      if (cableTo === undefined) continue
      if (joined.has(id)) joined.add(cableTo)
      if (joined.has(cableTo)) joined.add(id)
    }
  }
  return new Set(
    outlets
      .filter(
        ({ id, cableTo }) =>
          joined.has(id) && (cableTo !== undefined || outlets.some((outlet) => outlet.cableTo === id))
      )
      .map(({ id }) => id)
  )
}

/** A patch cable from the router to a socket is at most this long, metres. */
const ROUTER_REACH_M = 5

const weakestOf = (rooms: readonly number[]) => rooms.indexOf(Math.min(...rooms))

type Point = { x: number; y: number; z: number }
const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z)

/** Which outlet a school would take, by its place in the list; null where none is to its liking. */
function schoolChoice(
  school: School,
  outlets: readonly (Point | null)[],
  router: Point,
  target: Point,
  roomOf: (point: Point) => string | null
): number | null {
  const middle = { x: (router.x + target.x) / 2, y: (router.y + target.y) / 2, z: (router.z + target.z) / 2 }
  const here = roomOf(router)
  const liked = outlets
    .flatMap((outlet, at) => (outlet ? [{ outlet, at }] : []))
    .filter(({ outlet }) => {
      if (school === 'next-room') return roomOf(outlet) !== here
      return school === 'within-12' ? far(outlet, router) <= SCHOOL_M : true
    })
  const measure = (outlet: Point) => {
    if (school === 'halfway') return far(outlet, middle)
    return school === 'next-room' ? far(outlet, router) : far(outlet, target)
  }
  return liked.sort((a, b) => measure(a.outlet) - measure(b.outlet))[0]?.at ?? null
}

/** The room that a point above the ground lies in. */
function roomAtHeight(plan: HomePlan, { x, y, z }: Point): string | null {
  const storey = plan.storeys.findLast(({ floorM }) => floorM <= z)
  return (storey && roomAt(plan, { storey: storey.id, x, y })?.name) ?? null
}

const mean = (values: readonly number[]) =>
  values.reduce((total, value) => total + Math.max(value, -90), 0) / Math.max(1, values.length)
