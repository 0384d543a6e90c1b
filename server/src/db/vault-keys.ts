import { row, rows, run, type Connection } from './pool'

/** A data key as it lies in the database: wrapped by the key of an epoch, of before there were any by the master key alone (null). */
export interface WrappedKey {
  wrapped: Buffer
  epoch: string | null
}

/** The data key of a visit, null where it was destroyed; no row where the visit never had one. */
export async function keyRow(db: Connection, visit: string): Promise<{ held: WrappedKey | null } | null> {
  const found = await row<{ wrapped: Buffer | null; epoch: string | null }>(
    db,
    'SELECT wrapped, epoch FROM vault_keys WHERE visit_id = ?',
    [visit]
  )
  return found && { held: found.wrapped && { wrapped: found.wrapped, epoch: found.epoch } }
}

/** The wrapped data key of a visit; null where it has none, or it was destroyed. */
export const wrappedKey = async (db: Connection, visit: string): Promise<WrappedKey | null> =>
  (await keyRow(db, visit))?.held ?? null

/** Keeps the wrapped data key of a visit that has none yet. */
export async function insertKey(db: Connection, visit: string, { wrapped, epoch }: WrappedKey): Promise<void> {
  await run(db, 'INSERT INTO vault_keys (visit_id, wrapped, epoch) VALUES (?, ?, ?)', [visit, wrapped, epoch])
}

/** Puts another wrapped data key in place of a visit's. */
export async function replaceKey(db: Connection, visit: string, { wrapped, epoch }: WrappedKey): Promise<void> {
  await run(db, 'UPDATE vault_keys SET wrapped = ?, epoch = ? WHERE visit_id = ?', [wrapped, epoch, visit])
}

/** Destroys the data key of a visit; one that is destroyed already stays as it is. */
export async function destroyKey(db: Connection, visit: string, now: Date): Promise<void> {
  await run(
    db,
    `
      UPDATE vault_keys
      SET wrapped = NULL, epoch = NULL, destroyed_at = ?
      WHERE visit_id = ?
        AND destroyed_at IS NULL
    `,
    [now, visit]
  )
}

/** A visit's data key, wrapped. */
interface HeldKey extends WrappedKey {
  visit: string
}

/** Every data key there is, locked until the transaction ends. */
export const lockKeys = (db: Connection): Promise<HeldKey[]> =>
  rows<HeldKey>(
    db,
    `
      SELECT visit_id AS visit, wrapped, epoch
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
      SELECT visit_id AS visit, wrapped, epoch
      FROM vault_keys
      WHERE wrapped IS NOT NULL
      ORDER BY visit_id DESC
      LIMIT 1
    `
  )

/** Data keys of one epoch behind a visit, in the order of visits, locked until the transaction ends. */
export const lockKeysOf = (db: Connection, epoch: string | null, after: string, most: number): Promise<HeldKey[]> =>
  rows<HeldKey>(
    db,
    `
      SELECT visit_id AS visit, wrapped, epoch
      FROM vault_keys
      WHERE epoch <=> ?
        AND wrapped IS NOT NULL
        AND visit_id > ?
      ORDER BY visit_id
      LIMIT ${most}
      FOR UPDATE
    `,
    [epoch, after]
  )

/** Visits that have a data key, destroyed ones as well, in their order. */
export const visitsWithKeys = async (db: Connection, after: string, most: number): Promise<string[]> =>
  (
    await rows<{ visit: string }>(
      db,
      `SELECT visit_id AS visit FROM vault_keys WHERE visit_id > ? ORDER BY visit_id LIMIT ${most}`,
      [after]
    )
  ).map(({ visit }) => visit)
