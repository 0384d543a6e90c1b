import { row, run, rows, type Connection } from './pool'

/** By what the verdicts of a sealed visit were kept: its seal vouches for them, they came with its file, or they were copied later. */
export type KeptBy = 'seal' | 'import' | 'migration'

/** Keeps the verdicts of a sealed visit; those that are kept already stay as they are. */
export async function insertVerdicts(
  db: Connection,
  visit: string,
  kept: { digest: string; by: KeptBy; at: Date; packed: Buffer }
): Promise<void> {
  await run(
    db,
    `
      INSERT IGNORE INTO sealed_verdicts (visit_id, digest, kept_by, kept_at, packed)
      VALUES (?, ?, ?, ?, ?)
    `,
    [visit, kept.digest, kept.by, kept.at, kept.packed]
  )
}

/** The verdicts that a visit was sealed with, packed; null where none are kept. */
export function readVerdicts(db: Connection, visit: string): Promise<{ by: KeptBy; packed: Buffer } | null> {
  return row(db, 'SELECT kept_by AS `by`, packed FROM sealed_verdicts WHERE visit_id = ?', [visit])
}

/** How a sealed visit's rules came out by the table that lists are made from. */
export function listedFindings(
  db: Connection,
  visit: string
): Promise<{ rule: string; subject: string; outcome: string; level: string }[]> {
  return rows(db, 'SELECT rule, subject, outcome, level FROM findings WHERE visit_id = ?', [visit])
}
