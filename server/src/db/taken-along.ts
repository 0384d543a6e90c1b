import { rows, run, type Connection } from './pool'

/** An outbox that took a visit along, and has not said since that nothing waits there. */
export interface Unheard {
  outbox: string
  person: string
  since: Date
}

/** Notes that an outbox has a visit and is there now; of another person’s nobody says so. */
export const noteTakenAlong = (db: Connection, visit: string, outbox: string, person: string, now: Date) =>
  run(
    db,
    `
      INSERT INTO taken_along (visit_id, outbox_id, person_id, seen_at) VALUES (?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE seen_at = IF(person_id = VALUE(person_id), VALUE(seen_at), seen_at)
    `,
    [visit, outbox, person, now]
  )

/** Notes that nothing waits in an outbox of a person. @param but visits of which something does */
export const noteNothingWaits = (db: Connection, outbox: string, person: string, but: readonly string[], now: Date) =>
  run(
    db,
    `
      UPDATE taken_along SET said_at = ?
      WHERE outbox_id = ? AND person_id = ? ${but.length > 0 ? `AND visit_id NOT IN (${but.map(() => '?').join(', ')})` : ''}
    `,
    [now, outbox, person, ...but]
  )

/**
 * Outboxes that took a visit along and have not been heard from: not there now, nor gone with the word that nothing waits.
 * @param people whose outboxes count
 * @param thereSince whoever was seen after this moment is there now
 */
export async function unheardOf(
  db: Connection,
  visit: string,
  people: readonly string[],
  thereSince: Date
): Promise<Unheard[]> {
  if (people.length === 0) return []
  return rows<Unheard>(
    db,
    `
      SELECT t.outbox_id AS outbox, p.name AS person, t.seen_at AS since
      FROM taken_along t
      JOIN users p ON p.id = t.person_id
      WHERE t.visit_id = ? AND t.person_id IN (${people.map(() => '?').join(', ')})
        AND (t.said_at IS NULL OR t.said_at < t.seen_at) AND t.seen_at < ?
      ORDER BY t.seen_at
    `,
    [visit, ...people, thereSince]
  )
}
