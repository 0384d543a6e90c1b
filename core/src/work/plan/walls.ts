import type { Material } from '../../radio/wall-loss'

/** A rectangle of a storey, metres. */
export interface PlanRoom {
  id: string
  storey: string
  x: number
  y: number
  widthM: number
  depthM: number
  building: string
}

/** A stretch of wall along one axis, of one thing. */
export interface PlanWall {
  storey: string
  x1: number
  y1: number
  x2: number
  y2: number
  /** With a room on one side only, or rooms of two buildings. */
  outer: boolean
  material: Material
  thicknessMm: number
  opening: 'door' | 'window' | 'open' | null
}

/** A stretch that is of something else than the other walls, or an opening in one. */
export interface PlanStretch {
  storey: string
  x1: number
  y1: number
  x2: number
  y2: number
}

export interface WallDefaults {
  outer: { material: Material; thicknessMm: number }
  inner: { material: Material; thicknessMm: number }
}

/** What walls are of until somebody says. */
export const firstWalls: WallDefaults = {
  outer: { material: 'brick', thicknessMm: 240 },
  inner: { material: 'plasterboard', thicknessMm: 100 }
}

/** What openings are of, for the way of signal. */
const openingOf = {
  door: { material: 'wood', thicknessMm: 40 },
  window: { material: 'glass', thicknessMm: 8 }
} as const

/** Edges nearer to each other than this are one wall. */
const SAME_M = 0.02

interface Edge {
  at: number
  from: number
  to: number
  side: -1 | 1
  building: string
}
interface Span {
  from: number
  to: number
  material: Material
  thicknessMm: number
  opening: PlanWall['opening']
}

/**
 * The walls of one storey: every edge of a room, shared ones once, cut where what stands beside them or what they are of
 * changes.
 */
export function wallsOf(
  rooms: readonly PlanRoom[],
  defaults: WallDefaults,
  own: readonly (PlanStretch & { material: Material; thicknessMm: number })[] = [],
  openings: readonly (PlanStretch & { kind: 'door' | 'window' | 'open' })[] = []
): PlanWall[] {
  const walls: PlanWall[] = []
  for (const storey of new Set(rooms.map((room) => room.storey))) {
    const here = rooms.filter((room) => room.storey === storey)
    for (const upright of [true, false]) {
      const edges = here.flatMap((room): Edge[] => {
        const [low, high, from, length] = upright
          ? [room.x, room.x + room.widthM, room.y, room.depthM]
          : [room.y, room.y + room.depthM, room.x, room.widthM]
        return [
          { at: low, from, to: from + length, side: 1, building: room.building },
          { at: high, from, to: from + length, side: -1, building: room.building }
        ]
      })
      const spansAt = (at: number): Span[] => [
        ...own
          .filter((candidate) => candidate.storey === storey && lies(candidate, upright, at))
          .map((stretch) => ({
            ...reach(stretch, upright),
            material: stretch.material,
            thicknessMm: stretch.thicknessMm,
            opening: null
          })),
        ...openings
          .filter((opening) => opening.storey === storey && lies(opening, upright, at))
          .map((opening) => ({
            ...reach(opening, upright),
            material: opening.kind === 'open' ? ('glass' as const) : openingOf[opening.kind].material,
            thicknessMm: opening.kind === 'open' ? 0 : openingOf[opening.kind].thicknessMm,
            opening: opening.kind
          }))
      ]
      for (const line of linesOf(edges))
        walls.push(...wallsOnLine(line, upright, storey, defaults, spansAt(line[0]!.at)))
    }
  }
  return walls
}

const lies = (stretch: PlanStretch, upright: boolean, at: number) =>
  upright
    ? Math.abs(stretch.x1 - at) <= SAME_M && Math.abs(stretch.x2 - at) <= SAME_M
    : Math.abs(stretch.y1 - at) <= SAME_M && Math.abs(stretch.y2 - at) <= SAME_M
const reach = (stretch: PlanStretch, upright: boolean) =>
  upright
    ? { from: Math.min(stretch.y1, stretch.y2), to: Math.max(stretch.y1, stretch.y2) }
    : { from: Math.min(stretch.x1, stretch.x2), to: Math.max(stretch.x1, stretch.x2) }

/** Edges that are one line, gathered. */
function linesOf(edges: readonly Edge[]): Edge[][] {
  const lines: Edge[][] = []
  for (const edge of [...edges].sort((a, b) => a.at - b.at)) {
    const last = lines.at(-1)
    if (last && edge.at - last[0]!.at <= SAME_M) last.push(edge)
    else lines.push([edge])
  }
  return lines
}

function wallsOnLine(
  line: readonly Edge[],
  upright: boolean,
  storey: string,
  defaults: WallDefaults,
  spans: readonly Span[]
): PlanWall[] {
  const cuts = [
    ...new Set([...line.flatMap(({ from, to }) => [from, to]), ...spans.flatMap(({ from, to }) => [from, to])])
  ].sort((a, b) => a - b)
  const walls: PlanWall[] = []
  const at = line[0]!.at
  for (let index = 1; index < cuts.length; index++) {
    const [from, to] = [cuts[index - 1]!, cuts[index]!]
    if (to - from <= SAME_M / 2) continue
    const middle = (from + to) / 2
    const beside = line.filter((edge) => edge.from < middle && edge.to > middle)
    if (beside.length === 0) continue
    const outer = !beside.some((a) => beside.some((b) => a.side !== b.side && a.building === b.building))
    const span = spans
      .filter((candidate) => candidate.from < middle && candidate.to > middle)
      .sort((a, b) => Number(b.opening !== null) - Number(a.opening !== null))[0]
    const of = span ?? { ...(outer ? defaults.outer : defaults.inner), opening: null }
    const last = walls.at(-1)
    const joined =
      last &&
      last.outer === outer &&
      last.material === of.material &&
      last.thicknessMm === of.thicknessMm &&
      last.opening === of.opening &&
      Math.abs((upright ? last.y2 : last.x2) - from) <= SAME_M
    if (joined) Object.assign(last, upright ? { y2: to } : { x2: to })
    else
      walls.push({
        storey,
        ...(upright ? { x1: at, y1: from, x2: at, y2: to } : { x1: from, y1: at, x2: to, y2: at }),
        outer,
        material: of.material,
        thicknessMm: of.thicknessMm,
        opening: of.opening
      })
  }
  return walls
}

/** How thick a wall is drawn, in metres of the plan: told apart, and never so thick that it hides a room. */
export function drawnWallM({ opening, thicknessMm }: Pick<PlanWall, 'opening' | 'thicknessMm'>): number {
  return opening ? 0.05 : Math.min(0.3, Math.max(0.07, thicknessMm / 1600))
}

/** The corners at which walls across and along meet, each a square as wide as the thicker of them is drawn. */
export function cornersOf(walls: readonly PlanWall[]): { x: number; y: number; widthM: number }[] {
  const ends = new Map<string, { x: number; y: number; upright: number; across: number }>()
  for (const wall of walls) {
    if (wall.opening) continue
    for (const [x, y] of [
      [wall.x1, wall.y1],
      [wall.x2, wall.y2]
    ] as const) {
      const key = `${x.toFixed(1)} ${y.toFixed(1)}`
      const end = ends.get(key) ?? { x, y, upright: 0, across: 0 }
      const kind = Math.abs(wall.x1 - wall.x2) <= SAME_M ? 'upright' : 'across'
      ends.set(key, { ...end, [kind]: Math.max(end[kind], drawnWallM(wall)) })
    }
  }
  return [...ends.values()]
    .filter(({ upright, across }) => upright > 0 && across > 0)
    .map(({ x, y, upright, across }) => ({ x, y, widthM: Math.max(upright, across) }))
}

/** Pairs of rooms of one storey that lie over each other by more than a wall. */
export function overlaps<R extends PlanRoom>(rooms: readonly R[]): [R, R][] {
  const found: [R, R][] = []
  rooms.forEach((a, at) => {
    for (const b of rooms.slice(at + 1)) {
      if (a.storey !== b.storey) continue
      const width = Math.min(a.x + a.widthM, b.x + b.widthM) - Math.max(a.x, b.x)
      const depth = Math.min(a.y + a.depthM, b.y + b.depthM) - Math.max(a.y, b.y)
      if (width > 0.1 && depth > 0.1) found.push([a, b])
    }
  })
  return found
}
