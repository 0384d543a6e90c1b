import { row, rows, run, type Connection, type Statement } from './pool'

/** A file of an archived visit: its name beside the others, its SHA-256 and how long it is. */
export interface ArchivedFile {
  name: string
  digest: string
  octets: number
}

/** Where an archived visit is. */
export interface ArchivedVisit {
  folder: string
  path: string
  /** How many lines of its logbook are in its file. */
  lines: number
}

/** Where a visit's first lines are, where they are not in the database; null of one that is not archived. */
export const archivedVisit = (db: Connection, visit: string): Promise<ArchivedVisit | null> =>
  row<ArchivedVisit>(
    db,
    `
      SELECT a.folder, v.path, v.\`lines\`
      FROM archived_visits v
      JOIN archives a ON a.id = v.archive_id
      WHERE v.visit_id = ?
    `,
    [visit]
  )

/** The files of an archived visit. */
export const archivedFiles = (db: Connection, visit: string): Promise<ArchivedFile[]> =>
  rows<ArchivedFile>(db, 'SELECT name, digest, octets FROM archived_files WHERE visit_id = ? ORDER BY name', [visit])

/** The archive in a folder; null where none is. */
export const archiveOf = async (db: Connection, folder: string): Promise<number | null> =>
  (await row<{ id: number }>(db, 'SELECT id FROM archives WHERE folder = ?', [folder]))?.id ?? null

/** The archive in a folder; noted where it is a new one. */
export async function archiveIn(db: Connection, folder: string): Promise<number> {
  await run(db, 'INSERT IGNORE INTO archives (folder) VALUES (?)', [folder])
  return (await archiveOf(db, folder))!
}

/** A visit that may be archived. */
export interface OldVisit {
  id: string
  sealedAt: Date
}

const PAGE = 100

/**
 * Visits that were sealed before a day, whose findings are in the figures and of whose secrets and labels nothing is kept any more; a page
 * after the one that ended with this visit, oldest first.
 */
export function visitsToArchive(db: Connection, before: Date, after: OldVisit | null): Promise<OldVisit[]> {
  return rows<OldVisit>(
    db,
    `
      SELECT v.id, v.sealed_at AS sealedAt
      FROM visits v FORCE INDEX (to_count)
      WHERE v.counted = TRUE
        AND v.sealed_at < ?
        ${after ? 'AND (v.sealed_at, v.id) > (?, ?)' : ''}
        AND (SELECT 1 FROM archived_visits a WHERE a.visit_id = v.id) IS NULL
        AND (SELECT 1 FROM erasures e WHERE e.visit_id = v.id) IS NULL
        AND (SELECT 1 FROM vault_keys k WHERE k.visit_id = v.id AND k.wrapped IS NOT NULL) IS NULL
        AND (SELECT 1 FROM photos p WHERE p.visit_id = v.id AND p.label AND LENGTH(p.picture) > 0 LIMIT 1) IS NULL
      ORDER BY v.sealed_at, v.id
      LIMIT ${PAGE}
    `,
    [before, ...(after ? [after.sealedAt, after.id] : [])]
  )
}

/** The photos of a visit that are not of labels. */
export const photosOf = (
  db: Connection,
  visit: string
): Promise<{ ref: string; picture: Buffer; small: Buffer | null }[]> =>
  rows(db, 'SELECT ref, picture, small FROM photos WHERE visit_id = ? AND NOT label ORDER BY ref', [visit])

/** What is written of a visit whose files are there and were read back, and what is taken out of the database. */
export function noteArchived(
  visit: string,
  { archive, path, lines, files }: { archive: number; path: string; lines: number; files: readonly ArchivedFile[] },
  by: string,
  at: Date
): Statement[] {
  return [
    {
      sql: 'INSERT INTO archived_visits (visit_id, archive_id, path, `lines`, archived_at, archived_by) VALUES (?, ?, ?, ?, ?, ?)',
      params: [visit, archive, path, lines, at, by]
    },
    {
      sql: 'INSERT INTO archived_files (visit_id, name, digest, octets) VALUES ?',
      params: [files.map(({ name, digest, octets }) => [visit, name, digest, octets])]
    },
    { sql: 'DELETE FROM entries WHERE visit_id = ? AND seq <= ?', params: [visit, lines], touches: lines },
    { sql: "UPDATE photos SET picture = '', small = NULL WHERE visit_id = ? AND NOT label", params: [visit] }
  ]
}

/** What is written where a visit's lines were put back into the database. */
export const noteBroughtBack = (visit: string): Statement[] => [
  { sql: 'DELETE FROM archived_files WHERE visit_id = ?', params: [visit] },
  { sql: 'DELETE FROM archived_visits WHERE visit_id = ?', params: [visit], touches: 1 }
]

/** Puts a photo's pictures back. */
export const putPictureBack = (ref: string, picture: Buffer, small: Buffer | null): Statement => ({
  sql: 'UPDATE photos SET picture = ?, small = ? WHERE ref = ?',
  params: [picture, small, ref]
})

/** A page of the visits of an archive, by their ids. */
export const visitsInArchive = async (db: Connection, archive: number, after: string): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      `SELECT visit_id AS id FROM archived_visits WHERE archive_id = ? AND visit_id > ? ORDER BY visit_id LIMIT ${PAGE}`,
      [archive, after]
    )
  ).map(({ id }) => id)

/** Says that an archive is in another folder now. */
export async function moveArchive(db: Connection, archive: number, to: string): Promise<void> {
  await run(db, 'UPDATE archives SET folder = ? WHERE id = ?', [to, archive])
}

/** Keeps programs from starting that do not know of archives. */
export async function wantArchives(db: Connection): Promise<void> {
  await run(db, "UPDATE migrations SET oldest = 23 WHERE name = '023_archive.sql' AND oldest < 23")
}
