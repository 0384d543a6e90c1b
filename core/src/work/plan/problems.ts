import { standing, type VisitRecord } from '../../record/record'
import { roomAt, type HomePlan } from './home-plan'
import { overlaps } from './walls'

const outletWords = { mains: 'mains outlet', line: 'outlet of the line', network: 'network socket' } as const

/** Nearer to a room than this, what stands outside it is taken to stand in its wall, metres. */
const IN_WALL_M = 0.3

/** What of a plan cannot be, in words with the mend: rooms over each other, things outside every room, stretches of no wall. */
export function planProblems(record: VisitRecord, plan: HomePlan): string[] {
  const problems = overlaps(plan.rooms).map(
    ([a, b]) => `${a.name} and ${b.name} lie over each other: move one, or make it smaller.`
  )
  const storeyName = new Map(plan.storeys.map(({ id, name }) => [id, name]))
  const outside = (at: { storey: string; x: number; y: number }) =>
    !roomAt(plan, at) &&
    ![
      [IN_WALL_M, 0],
      [-IN_WALL_M, 0],
      [0, IN_WALL_M],
      [0, -IN_WALL_M]
    ].some(([dx, dy]) => roomAt(plan, { storey: at.storey, x: at.x + dx!, y: at.y + dy! }))
  for (const {
    facts: { storey, x, y, kind }
  } of standing(record.outlets ?? {})) {
    if (storey === undefined || x === undefined || y === undefined) continue
    if (outside({ storey, x, y }))
      problems.push(
        `A ${outletWords[kind ?? 'mains']} on ${storeyName.get(storey) ?? 'a storey that is gone'} stands outside every room: move it, or draw the room.`
      )
  }
  const onWall = ({ storey, x1, y1, x2, y2 }: { storey: string; x1: number; y1: number; x2: number; y2: number }) =>
    plan.walls.some((wall) => {
      if (wall.storey !== storey) return false
      const upright = Math.abs(wall.x1 - wall.x2) < 0.02
      return upright
        ? Math.abs(x1 - wall.x1) < 0.03 &&
            Math.abs(x2 - wall.x1) < 0.03 &&
            Math.max(y1, y2) > Math.min(wall.y1, wall.y2) &&
            Math.min(y1, y2) < Math.max(wall.y1, wall.y2)
        : Math.abs(y1 - wall.y1) < 0.03 &&
            Math.abs(y2 - wall.y1) < 0.03 &&
            Math.max(x1, x2) > Math.min(wall.x1, wall.x2) &&
            Math.min(x1, x2) < Math.max(wall.x1, wall.x2)
    })
  const stretches = [
    ...standing(record.walls ?? {}).map(({ facts }) => ({ facts, words: 'A stretch of wall' })),
    ...standing(record.openings ?? {})
      .filter(({ facts }) => facts.kind !== 'stairs')
      .map(({ facts }) => ({ facts, words: `A ${facts.kind === 'open' ? 'gap' : (facts.kind ?? 'door')}` }))
  ]
  for (const {
    facts: { storey, x1, y1, x2, y2 },
    words
  } of stretches) {
    if (
      storey === undefined ||
      x1 === undefined ||
      y1 === undefined ||
      x2 === undefined ||
      y2 === undefined ||
      !storeyName.has(storey)
    )
      continue
    if (!onWall({ storey, x1, y1, x2, y2 }))
      problems.push(
        `${words} on ${storeyName.get(storey)} lies on no wall since a room was moved: take it out, or put it back.`
      )
  }
  return problems
}
