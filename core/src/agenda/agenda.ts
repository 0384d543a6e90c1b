import { leastEnd } from '../work/run/best-order'
import { planVisit, type VisitPlan } from '../work/run/visit-plan'
import { handsOnMin, type Work } from './work'

/** All work of a visit, planned: every view of it names these two figures, and begins with the same work. */
export interface Agenda extends Omit<VisitPlan, 'tasks'> {
  /** In the order in which they begin. */
  works: readonly Work[]
  /** Minutes of hands that are left, at the usual durations. */
  handsOnMin: number
  /** By how many minutes the order may be longer than the best one; 0 where it is proven. */
  offMin: number
}

/** Works proven to be in the best order are at most so many; a longer list is compared with the bound. */
const PROVEN_TO = 14

/** Plans the work of a visit: its order, the two figures, and what hands should do now. */
export function planWorks(works: readonly Work[]): Agenda {
  const { tasks: _, ...plan } = planVisit(works)
  const numbers = new Map(works.map(({ id }, at) => [id, at]))
  const least = leastEnd(
    works.map(({ handsOn, wait, after }) => ({
      handsOnMin: handsOn.usual,
      waitMin: wait?.usual ?? 0,
      after: after.map((id) => numbers.get(id)!)
    }))
  )
  return {
    ...plan,
    works: [...works].sort((a, b) => plan.start[a.id]! - plan.start[b.id]! || numbers.get(a.id)! - numbers.get(b.id)!),
    handsOnMin: handsOnMin(works),
    offMin: works.length <= PROVEN_TO ? 0 : Math.max(0, plan.makespanMin - least)
  }
}

/** The work to take up now: the first of the plan that hands can begin; null where there is nothing to do but wait, or nothing at all. */
export const nextOf = ({ works, next }: Agenda): Work | null => works.find(({ id }) => id === next) ?? null
