import { row, rows, run, type Connection } from './pool'

/** A sealed visit whose secrets are erased by themselves, and when. */
export interface ListedErasure {
  visit: string
  home: string
  customer: string
  street: string
  dueAt: Date
}

/** Visits that have something to erase, the longest due first. */
export async function dueErasures(db: Connection, now: Date, most: number): Promise<string[]> {
  return (
    await rows<{ visit: string }>(
      db,
      `
        SELECT visit_id AS visit
        FROM erasures
        WHERE due_at <= ?
        ORDER BY due_at, visit_id
        LIMIT ${most}
      `,
      [now]
    )
  ).map(({ visit }) => visit)
}

/** How many visits have something to erase that was due by now. */
export const erasuresDue = async (db: Connection, now: Date): Promise<number> =>
  Number((await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM erasures WHERE due_at <= ?', [now]))!.many)

/** What is erased before a day, to tell whoever is asked for a password. */
export function comingErasures(db: Connection, before: Date): Promise<ListedErasure[]> {
  return rows<ListedErasure>(
    db,
    `
      SELECT e.visit_id AS visit, e.home_id AS home, h.customer, h.street, e.due_at AS dueAt
      FROM erasures e
      JOIN homes h ON h.id = e.home_id
      WHERE e.due_at <= ?
      ORDER BY e.due_at, e.visit_id
      LIMIT 50
    `,
    [before]
  )
}

/** Sets the day anew, or takes the visit off the list where nothing is left to erase. */
export async function setErasure(db: Connection, visit: string, due: Date | null): Promise<void> {
  if (due) await run(db, 'UPDATE erasures SET due_at = ? WHERE visit_id = ?', [due, visit])
  else await run(db, 'DELETE FROM erasures WHERE visit_id = ?', [visit])
}
