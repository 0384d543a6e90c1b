import { rows, run, transactionOn, type Connection, type Db } from './pool'

/** A visit of which something does not hold. */
export interface FoundFault {
  visit: string
  what: string
}

/** As a list shows it. */
export interface ListedFault extends FoundFault {
  street: string
  customer: string
  foundAt: Date
}

const MOST_CHARACTERS = 600

/** Puts what a look found in place of what the last one did. */
export async function keepFaults(db: Db, faults: readonly FoundFault[], at: Date): Promise<void> {
  await transactionOn<never, void>(db, null, async (connection) => {
    await run(connection, 'DELETE FROM faults_found')
    for (const { visit, what } of faults)
      await run(connection, 'INSERT INTO faults_found (visit_id, found_at, what) VALUES (?, ?, ?)', [
        visit,
        at,
        what.slice(0, MOST_CHARACTERS)
      ])
  })
}

/** What the last look found. */
export const faultsFound = (db: Connection): Promise<ListedFault[]> =>
  rows<ListedFault>(
    db,
    `
      SELECT f.visit_id AS visit, f.what, f.found_at AS foundAt, h.street, h.customer
      FROM faults_found f
      JOIN visits v ON v.id = f.visit_id
      JOIN homes h ON h.id = v.home_id
      ORDER BY f.visit_id
      LIMIT 100
    `
  )
