import type { Author } from '@pasado/core/record/attribution'
import type { Draft } from '@pasado/core/record/entry'
import { rows, run, type Connection } from './pool'

/** A line that came when its visit was sealed already. */
export interface LineAfterSeal {
  person: string
  name: string
  received: Date
  line: string
}

/** Keeps lines beside a sealed visit, each once. */
export async function keepAfterSeal(
  db: Connection,
  visit: string,
  lines: readonly Draft[],
  by: Author,
  now: Date
): Promise<void> {
  for (const line of lines)
    await run(
      db,
      `
        INSERT IGNORE INTO lines_after_seal (id, visit_id, person_id, person_name, received_at, line)
        VALUES (?, ?, ?, ?, ?, ?)
      `,
      [line.id, visit, by.id, by.name, now, JSON.stringify(line)]
    )
}

const MOST_SHOWN = 500

/** The lines that came after the seal of a visit, in the order in which they came. */
export const linesAfterSeal = (db: Connection, visit: string): Promise<LineAfterSeal[]> =>
  rows<LineAfterSeal>(
    db,
    `
      SELECT person_id AS person, person_name AS name, received_at AS received, line
      FROM lines_after_seal WHERE visit_id = ? ORDER BY received_at, id LIMIT ${MOST_SHOWN}
    `,
    [visit]
  )

/** A sealed visit that lines came for when it was sealed already. */
export interface VisitWithLateLines {
  visit: string
  street: string
  customer: string
  lines: number
  last: Date
}

/** Sealed visits that lines came for since a moment, the latest first. */
export const visitsWithLateLines = (db: Connection, since: Date): Promise<VisitWithLateLines[]> =>
  rows<VisitWithLateLines>(
    db,
    `
      SELECT l.visit_id AS visit, h.street, h.customer, COUNT(*) AS \`lines\`, MAX(l.received_at) AS \`last\`
      FROM lines_after_seal l
      JOIN visits v ON v.id = l.visit_id
      JOIN homes h ON h.id = v.home_id
      WHERE l.received_at >= ?
      GROUP BY l.visit_id, h.street, h.customer
      ORDER BY MAX(l.received_at) DESC
      LIMIT ${MOST_SHOWN}
    `,
    [since]
  )
