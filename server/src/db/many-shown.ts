import { rows, run, type Connection } from './pool'

/** Somebody who looked at more secrets within an hour than is usual. */
export interface ManyShown {
  person: string
  name: string
  at: Date
}

/** Notes that a person reached the number of secrets that may be looked at within an hour. */
export async function noteManyShown(db: Connection, person: { id: string; name: string }, at: Date): Promise<void> {
  await run(db, 'INSERT IGNORE INTO many_shown (person_id, at, person_name) VALUES (?, ?, ?)', [
    person.id,
    at,
    person.name
  ])
}

/** Who did since a moment, the latest first. */
export function manyShownSince(db: Connection, since: Date): Promise<ManyShown[]> {
  return rows<ManyShown>(
    db,
    `
      SELECT person_id AS person, person_name AS name, at
      FROM many_shown
      WHERE at >= ?
      ORDER BY at DESC
      LIMIT 20
    `,
    [since]
  )
}
