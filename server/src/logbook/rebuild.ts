import type { PoolConnection } from 'mysql2/promise'
import { transactionOn, type Statement } from '../db/pool'
import { everyVisit, lockVisit, setSummary, type VisitHead } from '../db/visits'
import { summarise } from '@pasado/core/documents/visit-summary'
import { VisitStates } from './states'
import type { Logbook } from './logbook'
import { countSealed, forgetFigures } from '../db/figures'
import { countStanding, forgetStanding } from '../db/standing'
import { clearProjections, project, projectFindings } from '../db/projections'

/**
 * Makes every projection anew from the logbook, a visit at a time and oldest first, so that a home ends with what its
 * latest visit knows. What the rules said of a sealed visit is no projection: it is read as it was kept, or kept before anything is
 * cleared.
 * @returns how many visits were gone through
 */
export async function rebuildProjections(
  logbook: Logbook,
  onProgress: (done: number, of: number) => void = () => undefined
): Promise<number> {
  const states = new VisitStates()
  await transactionOn(logbook.db, null, async (connection) => {
    await forgetFigures(connection)
    await forgetStanding(connection)
  })
  let done = 0
  const visits = await everyVisit(logbook.db)
  for (const id of visits) {
    await transactionOn<VisitHead, void>(logbook.db, lockVisit(id), (connection, [head], last) =>
      drawAnew(connection, states, head!, last)
    )
    states.forget(id)
    onProgress(++done, visits.length)
  }
  while (await countSealed(logbook.db));
  while (await countStanding(logbook.db));
  return visits.length
}

/** Takes away what is listed of a visit, and lists it anew. */
export async function drawAnew(
  connection: PoolConnection,
  states: VisitStates,
  { id, home_id, last_seq }: VisitHead,
  last: (statement: Statement) => void
): Promise<void> {
  const state = await states.at(connection, id, last_seq)
  await clearProjections(connection, id)
  const { record } = state
  const { policy } = await states.standardOf(connection, record)
  const findings = await states.findingsOf(connection, id, state)
  await project(connection, id, home_id, null, { record, eraseAfterDays: policy.eraseAfterDays }, last)
  projectFindings(id, home_id, { record, findings }, [], last)
  await setSummary(connection, id, last_seq, summarise(record, findings))
}
