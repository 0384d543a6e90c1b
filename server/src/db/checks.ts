import { row, rows, run, type Connection } from './pool'

/** A booked look at a home, with what is needed to list it. */
export interface CheckRow {
  id: string
  visit: string
  home: string
  street: string
  customer: string
  technician: string
  from: Date
  to: Date
  done: Date | null
  by: string | null
  result: string | null
}

const columns = `checks.check_id AS id, checks.visit_id AS visit, checks.home_id AS home, homes.street, homes.customer, visits.technician_name AS technician, checks.due_from AS \`from\`, checks.due_to AS \`to\`,
  check_results.done_at AS done, check_results.by_name AS \`by\`, check_results.result`
const joined =
  'JOIN visits ON visits.id = checks.visit_id JOIN homes ON homes.id = checks.home_id LEFT JOIN check_results ON check_results.check_id = checks.check_id'

/** So far ahead checks stand in the day. */
const AHEAD_MS = 2 * 86_400_000
const MOST_LISTED = 100

/**
 * Checks that are due or soon will be, the earliest first; of one technician or of everybody. However many were never done, those of
 * today stand among them: the longest overdue are left out first.
 */
export async function dueChecks(db: Connection, technician: string | null, now: Date): Promise<CheckRow[]> {
  const mine = technician === null ? '' : 'AND visits.technician_id = ?'
  const found = await rows<CheckRow>(
    db,
    `
      SELECT ${columns}
      FROM checks ${joined}
      WHERE checks.due_from < ?
        AND visits.cancelled_at IS NULL
        AND check_results.check_id IS NULL ${mine}
      ORDER BY checks.due_from DESC, checks.check_id DESC
      LIMIT ${MOST_LISTED}
    `,
    [new Date(now.getTime() + AHEAD_MS), ...(technician === null ? [] : [technician])]
  )
  return found.reverse()
}

/** One check. */
export const readCheck = (db: Connection, id: string): Promise<CheckRow | null> =>
  row<CheckRow>(db, `SELECT ${columns} FROM checks ${joined} WHERE checks.check_id = ?`, [id])

/** Keeps what a check came to; the first result stands. */
export async function insertResult(
  db: Connection,
  done: { check: string; visit: string; by: { id: string; name: string }; at: Date; result: string }
): Promise<void> {
  await run(
    db,
    `
      INSERT IGNORE INTO check_results (check_id, visit_id, by_id, by_name, done_at, result)
      VALUES (?, ?, ?, ?, ?, ?)
    `,
    [done.check, done.visit, done.by.id, done.by.name, done.at, done.result]
  )
}
