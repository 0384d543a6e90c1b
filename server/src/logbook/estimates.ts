import { planWorks } from '@pasado/core/agenda/agenda'
import { vanListOf } from '@pasado/core/agenda/van'
import { worksOf } from '@pasado/core/agenda/works'
import { docketRules } from '@pasado/core/rules/docket-rules'
import { durationKeys } from '@pasado/core/work/run/duration-keys'
import type { Durations } from '@pasado/core/work/run/duration-keys'
import { pastDurations } from '../db/durations'
import { keepEstimate, keptEstimates, lastLines } from '../db/estimates'
import type { Logbook } from './logbook'

/** How long what is left of a visit takes, by the one list of its work, and what goes out for it. */
export interface Estimate {
  visit: string
  handsOnMin: number
  likelyMin: number
  cautiousMin: number
  load: string[]
  atHand: string[]
}

/**
 * Estimates of visits, the same as each visit tells of itself; kept in the database as of the line they were reckoned at. A plan takes tens
 * of milliseconds, so each gives way to other work before the next.
 */
export async function estimatesOf({ db, states }: Logbook, visits: readonly string[]): Promise<Estimate[]> {
  if (visits.length === 0) return []
  const heads = await lastLines(db, visits)
  const known = await keptEstimates(db, visits)
  const found: Estimate[] = []
  for (const visit of visits) {
    const seq = heads.get(visit)
    if (seq === undefined) continue
    const state = await states.at(db, visit, seq)
    const catalogue = await states.catalogueFor(db, state.record)
    const { boxes: load, atHand } = vanListOf(state.record, catalogue, Date.now())
    const kept = known.get(visit)
    if (kept?.seq === seq) {
      const { handsOnMin, likelyMin, cautiousMin } = kept
      found.push({ visit, handsOnMin, likelyMin, cautiousMin, load, atHand })
      continue
    }
    await new Promise((resolve) => setImmediate(resolve))
    const durations: Durations = new Map(
      (await pastDurations(db, durationKeys(state.record, catalogue))).map(({ of, ...rest }) => [of, rest])
    )
    const findings = await states.findingsSince(db, visit, state)
    const plan = planWorks(
      worksOf({ folded: state, catalogue, findings, rules: docketRules, nowMs: Date.now(), durations })
    )
    const figures = {
      handsOnMin: Math.round(plan.handsOnMin),
      likelyMin: Math.round(plan.likelyMin),
      cautiousMin: Math.round(plan.cautiousMin)
    }
    await keepEstimate(db, { visit, seq, ...figures })
    found.push({ visit, ...figures, load, atHand })
  }
  return found
}
