import { runPlan, type RunPlan } from './plan'
import { seededRandom } from '../../values/random'
import { alone, orderGiven, schedule, type Hands, type Task } from './schedule'
import type { Span } from './span'
import type { VisitTask } from './visit-tasks'

/** What of a task its plan is made of. */
export type PlannedTask = Pick<VisitTask, 'id' | 'handsOn' | 'wait' | 'after'>

/** When each task of a visit begins in the order that ends soonest, with how long that is likely to take. */
export interface VisitPlan extends RunPlan {
  /** Half of all visits like this end by here, and nine in ten; minutes from now. */
  likelyMin: number
  cautiousMin: number
  /** What hands should do now; null where there is nothing to do but wait, or nothing at all. */
  next: string | null
}

const RUNS = 400

/** A duration between least and most with the usual as its peak (triangular distribution, by its inverse). */
export function drawnFrom({ least, usual, most }: Span, chance: number): number {
  if (most <= least) return least
  const peak = (usual - least) / (most - least)
  return chance < peak
    ? least + Math.sqrt(chance * (most - least) * (usual - least))
    : most - Math.sqrt((1 - chance) * (most - least) * (most - usual))
}

/**
 * Plans what is left of a visit: the best order at usual durations, then 400 visits in that order with durations drawn between
 * their least and most; the seed makes them the same each time.
 */
export function planVisit(tasks: readonly PlannedTask[], hands: Hands = alone, seed = 1): VisitPlan {
  const plan = runPlan(
    {
      tasks: tasks.map(({ id, handsOn, wait, after }) => ({
        id,
        handsOnMin: handsOn.usual,
        waitMin: wait?.usual ?? 0,
        after
      }))
    },
    hands
  )
  const numbers = new Map(tasks.map(({ id }, at) => [id, at]))
  const after = tasks.map((task) => task.after.map((id) => numbers.get(id)!))
  const order = tasks.map((_, at) => at).sort((a, b) => plan.start[tasks[a]!.id]! - plan.start[tasks[b]!.id]! || a - b)
  // Tasks of one start may stand before what they come after; the order is kept where it can be.
  const taken = orderGiven(
    order.map((at) => ({ handsOnMin: 0, waitMin: 0, after: after[at]!.map((before) => order.indexOf(before)) }))
  ).map((at) => order[at]!)
  const random = seededRandom(seed)
  const ends: number[] = []
  for (let run = 0; run < RUNS; run++) {
    const drawn = tasks.map(({ handsOn, wait }, at): Task => ({
      handsOnMin: drawnFrom(handsOn, random()),
      waitMin: wait ? drawnFrom(wait, random()) : 0,
      after: after[at]!
    }))
    const starts = schedule(drawn, taken, hands)
    ends.push(Math.max(0, ...drawn.map((task, at) => starts[at]! + task.handsOnMin + task.waitMin)))
  }
  ends.sort((a, b) => a - b)
  const at = (share: number) => (tasks.length ? ends[Math.min(RUNS - 1, Math.floor(RUNS * share))]! : 0)
  const next = tasks
    .filter(({ handsOn, after: before }) => handsOn.usual > 0 && before.length === 0)
    .sort((a, b) => plan.start[a.id]! - plan.start[b.id]!)[0]
  return { ...plan, likelyMin: at(0.5), cautiousMin: at(0.9), next: next?.id ?? null }
}
