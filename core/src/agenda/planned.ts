import type { VisitPlan } from '../work/run/visit-plan'
import type { Work } from './work'

/** The order of the work of a visit, with the two figures that every view names: hands-on minutes, and when it can be over. */
export interface AgendaPlan extends VisitPlan {
  /** Minutes of hands that are left, at the usual durations. */
  handsOnMin: number
  /** By how many minutes the order may be longer than the best one; 0 where it is proven. */
  offMin: number
}

/** All work of a visit in the order in which it begins, and its plan. */
export interface Agenda extends AgendaPlan {
  works: readonly Work[]
}

/** Work with its plan; a plan of other work of the same visit orders what it knows. */
export function agendaOf(works: readonly Work[], plan: AgendaPlan): Agenda {
  const begins = ({ id }: Work) => plan.start[id] ?? Number.MAX_VALUE
  const places = new Map(works.map(({ id }, at) => [id, at]))
  return {
    ...plan,
    works: [...works].sort((a, b) => begins(a) - begins(b) || places.get(a.id)! - places.get(b.id)!)
  }
}

/** The work to take up now: the first of the plan that hands can begin; null where there is nothing to do but wait, or nothing at all. */
export const nextOf = ({ works, next }: Agenda): Work | null => works.find(({ id }) => id === next) ?? null
