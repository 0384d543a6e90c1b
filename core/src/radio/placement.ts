/** Where a unit could stand, and what it would give from there. */
export interface Candidate {
  id: string
  /** The weakest signal in each wanted room, in dBm. */
  rooms: readonly number[]
  /** The signal at each other candidate, in dBm, in their order. */
  links: readonly number[]
  /** True where a cable leads from the router to here. */
  cabled: boolean
}

/** What is asked of a placement. */
export interface Wanted {
  /** The candidate where the router stands. */
  router: number
  roomFloorDbm: number
  backhaulFloorDbm: number
  mostUnits: number
  mostHops: number
}

/** Some places for units, the router's first, and what they give. */
export interface Placement {
  candidates: number[]
  /** For each wanted room the weakest signal, from whichever unit gives it most. */
  rooms: number[]
  /** Wireless hops of each unit from the router; 0 for those on a cable. */
  hops: number[]
  /** How far the weakest room is above the floor, in dB; below 0 where one stays under it. */
  marginDb: number
  holds: boolean
}

const BEST = 3

/**
 * The fewest units that bring every room above the floor, each within reach of the router over hops that hold, and among
 * those the placements with the widest margin. Exact: every set of places is looked at, sets that cannot be joined left out early.
 * @returns the best three that hold; where none does, the three that come nearest with all units
 */
export function bestPlacements(candidates: readonly Candidate[], wanted: Wanted): Placement[] {
  const { router, mostUnits } = wanted
  let nearest: Placement[] = []
  for (let size = 1; size <= mostUnits; size++) {
    const found: Placement[] = []
    const choose = (chosen: number[], from: number): void => {
      if (chosen.length === size) {
        const placement = judgePlacement(candidates, chosen, wanted)
        if (placement) keepBest(found, placement)
        return
      }
      for (let next = from; next <= candidates.length - (size - chosen.length); next++)
        if (next !== router) choose([...chosen, next], next + 1)
    }
    choose([router], 0)
    const holding = found.filter(({ holds }) => holds)
    if (holding.length) return holding
    if (found.length) nearest = found
  }
  return nearest
}

function keepBest(found: Placement[], placement: Placement): void {
  found.push(placement)
  found.sort((a, b) => b.marginDb - a.marginDb || sum(a.hops) - sum(b.hops))
  if (found.length > BEST) found.pop()
}

const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0)

/** What some places give together; null where one of them cannot be joined to the router. */
export function judgePlacement(
  candidates: readonly Candidate[],
  chosen: readonly number[],
  wanted: Wanted
): Placement | null {
  const hops = hopsFrom(candidates, chosen, wanted)
  if (!hops) return null
  const rooms = candidates[chosen[0]!]!.rooms.map((_, room) =>
    Math.max(...chosen.map((at) => candidates[at]!.rooms[room]!))
  )
  const marginDb = rooms.length ? Math.min(...rooms) - wanted.roomFloorDbm : 0
  return { candidates: [...chosen], rooms, hops, marginDb, holds: marginDb >= 0 }
}

/** Wireless hops of each from the router, the fewest; null where one is out of reach or too many hops away. */
function hopsFrom(
  candidates: readonly Candidate[],
  chosen: readonly number[],
  { router, backhaulFloorDbm, mostHops }: Wanted
): number[] | null {
  const hops = chosen.map((at) => (at === router || candidates[at]!.cabled ? 0 : Infinity))
  for (let hop = 0; hop < mostHops; hop++) {
    chosen.forEach((to, at) => {
      if (hops[at] !== Infinity) return
      if (chosen.some((from, other) => hops[other] === hop && candidates[from]!.links[to]! >= backhaulFloorDbm))
        hops[at] = hop + 1
    })
  }
  return hops.every(Number.isFinite) ? hops : null
}
