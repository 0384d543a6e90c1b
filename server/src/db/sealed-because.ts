import { row, run, type Connection } from './pool'

/** Keeps which lines the verdicts of a sealed visit rest on; what is kept already stays as it is. */
export async function insertBecause(db: Connection, visit: string, packed: Buffer): Promise<void> {
  await run(db, 'INSERT IGNORE INTO sealed_because (visit_id, packed) VALUES (?, ?)', [visit, packed])
}

/** Which lines the verdicts of a sealed visit rest on, packed; null where it is not kept. */
export const readBecause = (db: Connection, visit: string): Promise<{ packed: Buffer } | null> =>
  row(db, 'SELECT packed FROM sealed_because WHERE visit_id = ?', [visit])
