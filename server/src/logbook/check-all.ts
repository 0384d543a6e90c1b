import { DomainProblem } from '../problem'
import { isDeepStrictEqual } from 'node:util'
import { wordsOf } from '@pasado/core/values/plain'
import { countedAnew } from '../db/standing'
import { entriesAfter } from '../archive/archived'
import { keepFaults, type FoundFault } from '../db/faults-found'
import { row, rows, transactionOn, type Connection, type Statement } from '../db/pool'
import { everyVisit, lockVisit, readVisitHead, type VisitHead } from '../db/visits'
import { listVerdicts } from './list-verdicts'
import { whatDoesNotHold } from './integrity'
import type { Logbook } from './logbook'
import { drawAnew } from './rebuild'
import { VisitStates } from './states'

/** What is listed of a visit by its own id. */
const listedByVisit = ['units', 'networks', 'findings', 'home_terms', 'durations', 'checks', 'erasures', 'waivers_due']

/**
 * Looks at every visit, one after another: that its chain is whole, its head the end of it, its seal good, and what is listed of it as the logbook
 * says. What does not hold is kept, for the leads' Day. Whoever writes meanwhile waits for one visit at most.
 */
export async function checkAll(
  logbook: Logbook,
  onProgress: (done: number, of: number) => void = () => undefined,
  now = new Date()
): Promise<FoundFault[]> {
  const { db } = logbook
  const faults: FoundFault[] = []
  const states = new VisitStates()
  const visits = await everyVisit(db)
  for (const [at, visit] of visits.entries()) {
    const what = await faultOf(logbook, states, visit)
    if (what) faults.push({ visit, what })
    states.forget(visit)
    onProgress(at + 1, visits.length)
  }
  await keepFaults(db, faults, now)
  return faults
}

/** What does not hold of a visit, in words; null where all of it does. */
async function faultOf(logbook: Logbook, states: VisitStates, visit: string): Promise<string | null> {
  const { db } = logbook
  try {
    const head = await readVisitHead(db, visit)
    if (!head) return null
    const entries = await entriesAfter(db, visit, 0)
    // What was written since the head was read is looked at the next time.
    const known = entries.filter(({ seq }) => seq <= head.last_seq)
    const last = known.at(-1)
    if (last?.seq !== head.last_seq || last.hash !== head.last_hash)
      return `its head says line ${head.last_seq}, and the logbook ends with ${last?.seq ?? 'none'}, or another one of this number`
    const { record } = await states.at(db, visit, head.last_seq)
    const broken = await whatDoesNotHold(logbook, db, { entries: known, record })
    if (broken) return broken
    await listVerdicts(logbook, visit)
    return await listedOtherwise(logbook, states, visit)
  } catch (error) {
    // A line that cannot be read is one that was altered.
    return error instanceof DomainProblem ? error.title : `it cannot be read (${(error as Error).name})`
  }
}

/** Said to take everything back that was drawn anew to look at it. */
class Looked extends Error {
  constructor(readonly otherwise: string | null) {
    super('looked at')
  }
}

/** What is listed of a visit otherwise than its logbook says, in words: drawn anew, compared, and taken back. */
async function listedOtherwise({ db }: Logbook, states: VisitStates, visit: string): Promise<string | null> {
  try {
    await transactionOn<VisitHead, void>(db, lockVisit(visit), async (connection, [head]) => {
      // Before anything of it is read: a home that is counted between two looks would be listed in two ways.
      const home = await countedHome(connection, head!.home_id)
      const before = await listedOf(connection, head!, home)
      const statements: Statement[] = []
      await drawAnew(connection, states, head!, (statement) => statements.push(statement))
      for (const { sql, params } of statements) await connection.query(sql, params)
      if (home) for (const { sql, params } of await countedAnew(connection, [home])) await connection.query(sql, params)
      const after = await listedOf(connection, head!, home)
      const other = [...before.keys()].filter((table) => !isDeepStrictEqual(before.get(table), after.get(table)))
      throw new Looked(
        other.length
          ? `what is listed of it (${other.map((name) => wordsOf(name).replaceAll('_', ' ')).join(', ')}) is not what its logbook says; the record itself holds`
          : null
      )
    })
    return null
  } catch (error) {
    if (error instanceof Looked) return error.otherwise
    throw error
  }
}

/** @param counted the home, where what stands there is counted and stays so for as long as it is looked at */
async function listedOf(
  db: Connection,
  { id, home_id }: VisitHead,
  counted: string | null
): Promise<Map<string, unknown>> {
  const listed = new Map<string, unknown>()
  for (const table of listedByVisit) {
    const lines = await rows<Record<string, unknown>>(db, `SELECT * FROM ${table} WHERE visit_id = ?`, [id])
    listed.set(table, lines.map((line) => JSON.stringify(line)).sort())
  }
  listed.set('summary', (await row<{ summary: string }>(db, 'SELECT summary FROM visits WHERE id = ?', [id]))?.summary)
  const models = 'SELECT * FROM home_models WHERE home_id = ? ORDER BY model, firmware_key'
  if (counted) listed.set('home_models', await rows(db, models, [counted]))
  const home = 'SELECT customer_id, customer, street, town, phone, latest_visit FROM homes WHERE id = ?'
  listed.set('home', await row(db, home, [home_id]))
  return listed
}

/** A home of which it was counted what stands there, held so until the transaction ends; null where it is to be counted or just being: a moment behind. */
const countedHome = async (db: Connection, home: string): Promise<string | null> =>
  (await row<{ id: string }>(db, 'SELECT id FROM homes WHERE id = ? AND NOT to_count FOR UPDATE SKIP LOCKED', [home]))
    ?.id ?? null
