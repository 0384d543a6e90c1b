import { row, run, type Connection } from './pool'

/** Whose an outbox is; null where nobody has sent from it yet. */
export async function ownerOfOutbox(db: Connection, id: string): Promise<string | null> {
  return (
    (await row<{ person: string }>(db, 'SELECT person_id AS person FROM outboxes WHERE id = ?', [id]))?.person ?? null
  )
}

/** Gives an outbox to whoever sends from it first, and tells whose it is. */
export async function claimOutbox(db: Connection, id: string, person: string, now: Date): Promise<string> {
  await run(db, 'INSERT IGNORE INTO outboxes (id, person_id, first_at) VALUES (?, ?, ?)', [id, person, now])
  return (await ownerOfOutbox(db, id))!
}
