import type { ListedHome } from '@pasado/core/formats/listed-home'
import { row, rows, type Connection, type Statement } from './pool'

const LISTED = 'SELECT h.id, h.customer_id AS customerId, h.customer, h.street, h.town, h.latest_visit AS latestVisit FROM homes h'

/** Writes a home's facts, as its latest visit knows them. */
export function putHome(home: ListedHome & { phone: string | null }): Statement {
  return {
    sql: `INSERT INTO homes (id, customer_id, customer, street, town, phone, latest_visit) VALUES (?, ?, ?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE customer = VALUES(customer), street = VALUES(street), town = VALUES(town), phone = VALUES(phone), latest_visit = VALUES(latest_visit)`,
    params: [home.id, home.customerId, home.customer, home.street, home.town, home.phone, home.latestVisit]
  }
}

/** One home. */
export function readHome(db: Connection, id: string): Promise<ListedHome | null> {
  return row<ListedHome>(db, `${LISTED} WHERE h.id = ?`, [id])
}

const PAGE = 50

/** Homes in the order of their streets, a page after the one that ended with this home. */
export function homesByStreet(db: Connection, after: { street: string; id: string } | null): Promise<ListedHome[]> {
  return after
    ? rows<ListedHome>(db, `${LISTED} WHERE (h.street, h.id) > (?, ?) ORDER BY h.street, h.id LIMIT ${PAGE}`, [after.street, after.id])
    : rows<ListedHome>(db, `${LISTED} ORDER BY h.street, h.id LIMIT ${PAGE}`)
}

/**
 * Homes of which every word begins some term: of the name, street, town, or a serial or MAC address that stood there.
 * With what it was found by.
 */
export async function homesByTerms(db: Connection, words: string[]): Promise<(ListedHome & { foundBy: string })[]> {
  const [first, ...more] = words.map((word) => `${word.replace(/[\\%_]/g, '\\$&')}%`)
  const others = more.map(() => 'AND EXISTS (SELECT 1 FROM home_terms o WHERE o.home_id = h.id AND o.term LIKE ?)').join(' ')
  return rows(db, `SELECT DISTINCT h.id, h.customer_id AS customerId, h.customer, h.street, h.town, h.latest_visit AS latestVisit, t.what AS foundBy
    FROM home_terms t JOIN homes h ON h.id = t.home_id WHERE t.term LIKE ? ${others} ORDER BY h.street, h.id LIMIT ${PAGE}`, [first!, ...more])
}
