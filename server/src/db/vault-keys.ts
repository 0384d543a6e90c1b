import { row, rows, run, type Connection } from './pool'

/** The data key of a visit, wrapped, null where it was destroyed; no row where the visit never had one. */
export const keyRow = (db: Connection, visit: string): Promise<{ wrapped: Buffer | null } | null> =>
  row<{ wrapped: Buffer | null }>(db, 'SELECT wrapped FROM vault_keys WHERE visit_id = ?', [visit])

/** The wrapped data key of a visit; null where it has none, or it was destroyed. */
export const wrappedKey = async (db: Connection, visit: string): Promise<Buffer | null> =>
  (await keyRow(db, visit))?.wrapped ?? null

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
