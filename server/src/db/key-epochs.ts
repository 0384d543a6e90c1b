import { row, rows, run, type Connection } from './pool'

/** An epoch of the keys that wrap data keys, as the database knows it. */
export interface KeyEpoch {
  name: string
  begunAt: Date
  /** When the first data key since its beginning was destroyed. */
  erasedAt: Date | null
}

/** The epochs whose keys are not destroyed, the oldest first: the last is in use. */
export const livingEpochs = (db: Connection): Promise<KeyEpoch[]> =>
  rows<KeyEpoch>(
    db,
    `
      SELECT name, begun_at AS begunAt, erased_at AS erasedAt
      FROM key_epochs
      WHERE destroyed_at IS NULL
      ORDER BY begun_at, name
    `
  )

/**
 * The epoch that new data keys are wrapped in; null where none was begun yet. It stays in use until the transaction ends, for whoever
 * would destroy its key waits for that.
 */
export const epochInUse = async (db: Connection): Promise<string | null> =>
  (
    await row<{ name: string }>(
      db,
      `
        SELECT name
        FROM key_epochs
        WHERE destroyed_at IS NULL
        ORDER BY begun_at DESC, name DESC
        LIMIT 1
        LOCK IN SHARE MODE
      `
    )
  )?.name ?? null

/** Begins an epoch: from here on its key is in use. */
export async function beginEpoch(db: Connection, name: string, now: Date): Promise<void> {
  await run(db, 'INSERT INTO key_epochs (name, begun_at) VALUES (?, ?)', [name, now])
}

/** Notes that a data key was destroyed: by the day after, what wrapped it is to be destroyed as well. */
export async function noteKeyDestroyed(db: Connection, now: Date): Promise<void> {
  const open = await row(db, 'SELECT 1 FROM key_epochs WHERE destroyed_at IS NULL AND erased_at IS NULL LIMIT 1')
  if (open) await run(db, 'UPDATE key_epochs SET erased_at = ? WHERE destroyed_at IS NULL AND erased_at IS NULL', [now])
}

/** Waits for everybody who wraps in an epoch, and keeps others out until the transaction ends. */
export async function lockEpoch(db: Connection, name: string): Promise<void> {
  await row(db, 'SELECT name FROM key_epochs WHERE name = ? FOR UPDATE', [name])
}

/** Notes that the key of an epoch is destroyed. */
export async function endEpoch(db: Connection, name: string, now: Date): Promise<void> {
  await run(db, 'UPDATE key_epochs SET destroyed_at = ? WHERE name = ? AND destroyed_at IS NULL', [now, name])
}

/** The names of epochs whose keys were destroyed, of some that are asked about. */
export const endedEpochs = async (db: Connection, names: readonly string[]): Promise<string[]> =>
  names.length === 0
    ? []
    : (
        await rows<{ name: string }>(
          db,
          `SELECT name FROM key_epochs WHERE destroyed_at IS NOT NULL AND name IN (${names.map(() => '?').join(', ')})`,
          [...names]
        )
      ).map(({ name }) => name)

/** Notes that a machine holds epoch keys. @returns how many others were seen since a day */
export async function noteHolder(db: Connection, holder: string, now: Date, since: Date): Promise<number> {
  await run(
    db,
    `
      INSERT INTO key_holders (holder, seen_at)
      VALUES (?, ?)
      ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at)
    `,
    [holder, now]
  )
  const others = await row<{ many: number }>(
    db,
    'SELECT COUNT(*) AS many FROM key_holders WHERE holder <> ? AND seen_at > ?',
    [holder, since]
  )
  return Number(others!.many)
}

/** Says which epochs there are, the last in use: those whose keys are on this machine, and no others. */
export async function setEpochs(db: Connection, names: readonly string[], now: Date): Promise<void> {
  await run(db, 'UPDATE key_epochs SET destroyed_at = ? WHERE destroyed_at IS NULL', [now])
  for (const [at, name] of names.entries())
    await run(
      db,
      `
        INSERT INTO key_epochs (name, begun_at)
        VALUES (?, ?)
        ON DUPLICATE KEY UPDATE begun_at = VALUES(begun_at), destroyed_at = NULL
      `,
      [name, new Date(now.getTime() + at)]
    )
}
