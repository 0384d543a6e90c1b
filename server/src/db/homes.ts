import type { ListedHome } from '@pasado/core/api/homes'
import { row, rows, type Connection, type Statement } from './pool'

const LISTED = `
  SELECT h.id, h.customer_id AS customerId, h.customer, h.street, h.town, h.latest_visit AS latestVisit
  FROM homes h
`

/** Writes a home's facts, as its latest visit knows them. */
export function putHome(home: ListedHome & { phone: string | null }): Statement {
  return {
    sql: `
      INSERT INTO homes (id, customer_id, customer, street, town, phone, latest_visit)
      VALUES (?, ?, ?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE customer = VALUES(customer), street = VALUES(street), town = VALUES(town),
        phone = VALUES(phone), latest_visit = VALUES(latest_visit)
    `,
    params: [home.id, home.customerId, home.customer, home.street, home.town, home.phone, home.latestVisit]
  }
}

/** One home. */
export function readHome(db: Connection, id: string): Promise<ListedHome | null> {
  return row<ListedHome>(db, `${LISTED} WHERE h.id = ?`, [id])
}

/** Under which number the customers of visits are called, where one is known. */
export function phonesOf(db: Connection, visits: readonly string[]): Promise<{ visit: string; phone: string }[]> {
  if (visits.length === 0) return Promise.resolve([])
  return rows(
    db,
    `
      SELECT v.id AS visit, h.phone
      FROM visits v
      JOIN homes h ON h.id = v.home_id
      WHERE v.id IN (${visits.map(() => '?').join(', ')})
        AND h.phone IS NOT NULL
      ORDER BY v.id
    `,
    [...visits]
  )
}
