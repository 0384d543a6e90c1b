import { alone, type Hands } from '../work/run/schedule'
import type { PlannedTask } from '../work/run/visit-plan'
import { planOf } from './agenda'
import type { AgendaPlan } from './planned'

/** What a visit is tried with: without some of its work, with more hands, or by a time. Minutes from now. */
export interface WhatIf {
  /** The work that is left for a second visit. */
  without: readonly string[]
  /** When a second pair of hands is there; null where none comes. */
  helperMin: number | null
  /** When one has to be through: the ferry, the next customer; null where nothing presses. */
  byMin: number | null
}

/** How it goes then. */
export interface WhatIfAnswer {
  plan: AgendaPlan
  /** Whether it is over by the time: nine times of ten, half the time, or not; null where nothing presses. */
  fits: 'yes' | 'perhaps' | 'no' | null
  /** By how many minutes the likely end is after it; 0 where it is not. */
  overMin: number
}

const handsOf = ({ helperMin }: WhatIf): Hands => (helperMin === null ? alone : [...alone, Math.max(0, helperMin)])

/** Plans what is left of a visit as it would be: what waits for work that is left out waits for what is before that. */
export function planIf(works: readonly PlannedTask[], what: WhatIf): WhatIfAnswer {
  const left = new Map(works.filter(({ id }) => what.without.includes(id)).map(({ id, after }) => [id, after]))
  const kept = (id: string): readonly string[] => left.get(id)?.flatMap(kept) ?? [id]
  const plan = planOf(
    works
      .filter(({ id }) => !left.has(id))
      .map(({ id, handsOn, wait, after }) => ({ id, handsOn, wait, after: [...new Set(after.flatMap(kept))] })),
    handsOf(what)
  )
  return { plan, fits: fitsBy(plan, what.byMin), overMin: Math.max(0, plan.likelyMin - (what.byMin ?? Infinity)) }
}

function fitsBy({ likelyMin, cautiousMin }: AgendaPlan, byMin: number | null): WhatIfAnswer['fits'] {
  if (byMin === null) return null
  if (cautiousMin <= byMin) return 'yes'
  return likelyMin <= byMin ? 'perhaps' : 'no'
}
