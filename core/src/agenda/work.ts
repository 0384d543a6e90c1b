import type { Catalogue } from '../catalogue/model'
import type { Folded } from '../history/fold'
import type { DocketRules } from '../rules/docket-rules'
import type { Finding } from '../rules/finding'
import type { Place } from '../rules/rule'
import type { Durations } from '../work/run/duration-keys'
import type { VisitTask } from '../work/run/visit-tasks'

/** What the work of a visit is reckoned from. */
export interface AgendaOf {
  folded: Folded
  catalogue: Catalogue
  findings: readonly Finding[]
  rules: DocketRules
  nowMs: number
  durations?: Durations
}

/**
 * A piece of the work that is left of a visit: a task, a change that is to be applied, a wait that runs, a finding to mend, a proof to
 * give or to give again. Docket, next, run plan and the lists in order are views of these.
 */
export interface Work extends VisitTask {
  /** What it settles of what stands between the visit and sign-off, heaviest first. */
  findings: readonly Finding[]
  /** Where it is written down; null where its stage tells. */
  place: Place | null
  /** Which change of the list in order it is. */
  change: string | null
  /** What was proven and is worth nothing once it is done: it is planned again after it. */
  spoils: readonly string[]
  /** Where in the home it is done, where that is known. */
  where: string | null
}

/** Hands on of all of it, in minutes at the usual durations: the figure that every view names. */
export const handsOnMin = (works: readonly Pick<VisitTask, 'handsOn'>[]): number =>
  works.reduce((sum, { handsOn }) => sum + handsOn.usual, 0)
