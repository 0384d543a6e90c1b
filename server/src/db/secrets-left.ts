import { rows, run, type Connection } from './pool'

/** Visits that have a data key, destroyed ones as well, in their order. */
export const visitsWithKeys = async (db: Connection, after: string, most: number): Promise<string[]> =>
  (
    await rows<{ visit: string }>(
      db,
      `SELECT visit_id AS visit FROM vault_keys WHERE visit_id > ? ORDER BY visit_id LIMIT ${most}`,
      [after]
    )
  ).map(({ visit }) => visit)

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
