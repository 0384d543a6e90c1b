import { leastEnd } from '../work/run/best-order'
import { planVisit, type PlannedTask } from '../work/run/visit-plan'
import { alone, type Hands } from '../work/run/schedule'
import { agendaOf, type Agenda, type AgendaPlan } from './planned'
import { handsOnMin, type Work } from './work'

/** Up to so many works the order is proven to be the best; a longer list is compared with the bound. */
const PROVEN_TO = 14

/** Plans the work of a visit: its order, the two figures, and what hands should do now. */
export function planOf(works: readonly PlannedTask[], hands: Hands = alone): AgendaPlan {
  const plan = planVisit(works, hands)
  const numbers = new Map(works.map(({ id }, at) => [id, at]))
  const least = leastEnd(
    works.map(({ handsOn, wait, after }) => ({
      handsOnMin: handsOn.usual,
      waitMin: wait?.usual ?? 0,
      after: after.map((id) => numbers.get(id)!)
    })),
    hands
  )
  return {
    ...plan,
    handsOnMin: handsOnMin(works),
    offMin: works.length <= PROVEN_TO && hands.length === 1 ? 0 : Math.max(0, plan.makespanMin - least)
  }
}

/** The work of a visit in the order that ends soonest. */
export const planWorks = (works: readonly Work[]): Agenda => agendaOf(works, planOf(works))
