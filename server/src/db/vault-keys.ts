import { row, rows, run, type Connection } from './pool'

/** The wrapped data key of a visit; null where it has none, or it was destroyed. */
export async function wrappedKey(db: Connection, visit: string): Promise<Buffer | null> {
  const held = await row<{ wrapped: Buffer | null }>(db, 'SELECT wrapped FROM vault_keys WHERE visit_id = ?', [visit])
  return held?.wrapped ?? null
}

/** Whether a visit has, or had, a data key. */
export async function hadKey(db: Connection, visit: string): Promise<boolean> {
  return (await row(db, 'SELECT 1 FROM vault_keys WHERE visit_id = ?', [visit])) !== null
}

/** Keeps the wrapped data key of a visit that has none yet. */
export async function insertKey(db: Connection, visit: string, wrapped: Buffer): Promise<void> {
  await run(db, 'INSERT INTO vault_keys (visit_id, wrapped) VALUES (?, ?)', [visit, wrapped])
}

/** Puts another wrapped data key in place of a visit's. */
export async function replaceKey(db: Connection, visit: string, wrapped: Buffer): Promise<void> {
  await run(db, 'UPDATE vault_keys SET wrapped = ? WHERE visit_id = ?', [wrapped, visit])
}

/** Destroys the data key of a visit; one that is destroyed already stays as it is. */
export async function destroyKey(db: Connection, visit: string, now: Date): Promise<void> {
  await run(
    db,
    `
      UPDATE vault_keys
      SET wrapped = NULL, destroyed_at = ?
      WHERE visit_id = ?
        AND destroyed_at IS NULL
    `,
    [now, visit]
  )
}

/** A visit's data key, wrapped. */
interface HeldKey {
  visit: string
  wrapped: Buffer
}

/** Every data key there is, locked until the transaction ends. */
export const lockKeys = (db: Connection): Promise<HeldKey[]> =>
  rows<HeldKey>(
    db,
    `
      SELECT visit_id AS visit, wrapped
      FROM vault_keys
      WHERE wrapped IS NOT NULL
      ORDER BY visit_id
      FOR UPDATE
    `
  )

/** One data key, to try a master key on; null where there is none. */
export const anyKey = (db: Connection): Promise<HeldKey | null> =>
  row<HeldKey>(
    db,
    `
      SELECT visit_id AS visit, wrapped
      FROM vault_keys
      WHERE wrapped IS NOT NULL
      ORDER BY visit_id DESC
      LIMIT 1
    `
  )
