import { durationKeys } from '@pasado/core/work/run/duration-keys'
import { visitTasks, type Durations } from '@pasado/core/work/run/visit-tasks'
import { planVisit } from '@pasado/core/work/run/visit-plan'
import { modelOf } from '@pasado/core/catalogue/model'
import { standing } from '@pasado/core/record/record'
import { pastDurations } from '../db/durations'
import { keepEstimate, keptEstimates, lastLines } from '../db/estimates'
import type { Logbook } from './logbook'

/** How long what is left of a visit takes, and what goes out for it. */
export interface Estimate {
  visit: string
  likelyMin: number
  cautiousMin: number
  load: string[]
}

/**
 * Estimates of visits by their run plans; kept in the database as of the line they were reckoned at. A plan takes tens of milliseconds,
 * so each gives way to other work before the next.
 */
export async function estimatesOf({ db, states }: Logbook, visits: readonly string[]): Promise<Estimate[]> {
  if (visits.length === 0) return []
  const heads = await lastLines(db, visits)
  const known = await keptEstimates(db, visits)
  const found: Estimate[] = []
  for (const visit of visits) {
    const seq = heads.get(visit)
    if (seq === undefined) continue
    const { record } = await states.at(db, visit, seq)
    const catalogue = await states.catalogueFor(db, record)
    const load = standing(record.boxes ?? {}).map(({ facts }) => {
      const model = modelOf({ facts }, catalogue)
      return model ? `${model.maker} ${model.name}${facts.kit ? `, ${facts.kit}` : ''}` : 'a box'
    })
    const kept = known.get(visit)
    if (kept?.seq === seq) {
      found.push({ visit, likelyMin: kept.likelyMin, cautiousMin: kept.cautiousMin, load })
      continue
    }
    await new Promise((resolve) => setImmediate(resolve))
    const durations: Durations = new Map(
      (await pastDurations(db, durationKeys(record, catalogue))).map(({ of, ...rest }) => [of, rest])
    )
    const plan = planVisit(visitTasks(record, catalogue, Date.now(), durations))
    const [likelyMin, cautiousMin] = [Math.round(plan.likelyMin), Math.round(plan.cautiousMin)]
    await keepEstimate(db, { visit, seq, likelyMin, cautiousMin })
    found.push({ visit, likelyMin, cautiousMin, load })
  }
  return found
}
