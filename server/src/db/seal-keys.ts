import { row, rows, run, type Connection } from './pool'

/** Keeps a public key under its name; one that is there already stays as it is. */
export async function addSealKey(db: Connection, name: string, publicKey: string): Promise<void> {
  await run(db, 'INSERT IGNORE INTO seal_keys (name, public_key) VALUES (?, ?)', [name, publicKey])
}

/** The public key of this name, or null. */
export async function sealKey(db: Connection, name: string): Promise<string | null> {
  return (await row<{ public_key: string }>(db, 'SELECT public_key FROM seal_keys WHERE name = ?', [name]))?.public_key ?? null
}

/** Every public key that is known. */
export function allSealKeys(db: Connection): Promise<{ name: string; publicKey: string }[]> {
  return rows(db, 'SELECT name, public_key AS publicKey FROM seal_keys ORDER BY name')
}
