import { summarise } from '@pasado/core/documents/visit-summary'
import { listedFindings, projectFindings } from '../db/projections'
import { transactionOn, type Db } from '../db/pool'
import { setSummary, toJudge } from '../db/visits'
import type { VisitStates } from './states'

const MOST_TRIES = 5

/**
 * Asks the rules of a visit that was written in since they were asked last, and lists what they say.
 * @returns whether it is sealed
 */
export async function listVerdicts({ db, states }: { db: Db; states: VisitStates }, visit: string): Promise<boolean> {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const due = await toJudge(db, visit)
    if (!due) return false
    const held = states.held(visit)
    const state = held && held.seq >= due.seq ? held : await states.at(db, visit, due.seq)
    const { record } = state
    const findings = record.seal
      ? await states.findingsOf(db, visit, state)
      : await states.findingsSince(db, visit, state)
    const summary = summarise(record, findings)
    const isListed = await transactionOn<never, boolean>(db, null, async (connection, _, last) => {
      // Whoever wrote meanwhile has left it to be judged again.
      if (!(await setSummary(connection, visit, state.seq, summary))) return false
      projectFindings(visit, due.home, { record, findings }, await listedFindings(connection, visit), last)
      return true
    })
    if (isListed) return record.seal !== null
  }
  return false
}
