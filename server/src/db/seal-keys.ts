import { row, rows, run, type Connection } from './pool'

/** Keeps a public key of this company under its name. */
export async function addSealKey(db: Connection, name: string, publicKey: string): Promise<void> {
  await run(
    db,
    `
      INSERT INTO seal_keys (name, public_key, ours)
      VALUES (?, ?, TRUE)
      ON DUPLICATE KEY UPDATE ours = TRUE
    `,
    [name, publicKey]
  )
}

/** The public key of this name, or null. */
export async function sealKey(db: Connection, name: string): Promise<string | null> {
  return (
    (await row<{ public_key: string }>(db, 'SELECT public_key FROM seal_keys WHERE name = ?', [name]))?.public_key ??
    null
  )
}

/** Whether a key of this name was ever this company's. */
export async function isOurKey(db: Connection, name: string): Promise<boolean> {
  return (await row(db, 'SELECT 1 FROM seal_keys WHERE name = ? AND ours', [name])) !== null
}

/** The public keys that were ever this company's; or those from before it was noted whose they are, for a lead to look at. */
export function sealKeysOf(db: Connection, whose: 'ours' | 'unknown'): Promise<{ name: string; publicKey: string }[]> {
  return rows(
    db,
    `
      SELECT name, public_key AS publicKey
      FROM seal_keys
      WHERE ours = ${whose === 'ours'}
      ORDER BY name
    `
  )
}

/** Says that a key from before was this company's. Tells whether there is one of this name. */
export async function confirmSealKey(db: Connection, name: string): Promise<boolean> {
  return (await run(db, 'UPDATE seal_keys SET ours = TRUE WHERE name = ?', [name])) > 0
}
