import { row, rows, run, type Connection } from './pool'

/** A way to a pack as a page. */
export interface PackLink {
  token: Buffer
  visit: string
  salt: Buffer
  sealed: Buffer
  triesLeft: number
  by: string
  madeAt: Date
  expiresAt: Date
}

/** A link as it is listed: named by the first digits of its hash. */
export interface ListedPackLink {
  id: string
  madeAt: Date
  expiresAt: Date
  openedAt: Date | null
  triesLeft: number
}

const MOST_LINKS = 20

export async function insertPackLink(db: Connection, link: PackLink): Promise<void> {
  await run(
    db,
    `
      INSERT INTO pack_links (token_hash, visit_id, salt, sealed_pack, tries_left, made_by, made_at, expires_at)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?)
    `,
    [link.token, link.visit, link.salt, link.sealed, link.triesLeft, link.by, link.madeAt, link.expiresAt]
  )
}

/** Takes one try of a link that has not ended. @returns null where there is none: unknown, ended or used up */
export async function tryPackLink(
  db: Connection,
  token: Buffer,
  now: Date
): Promise<{ salt: Buffer; sealed: Buffer; triesLeft: number } | null> {
  const taken = await run(
    db,
    `
      UPDATE pack_links
      SET tries_left = tries_left - 1
      WHERE token_hash = ?
        AND expires_at > ?
        AND tries_left > 0
    `,
    [token, now]
  )
  if (taken === 0) return null
  return row(
    db,
    `
      SELECT salt, sealed_pack AS sealed, tries_left AS triesLeft
      FROM pack_links
      WHERE token_hash = ?
    `,
    [token]
  )
}

/** The code was right: the tries are given back. */
export async function openedPackLink(db: Connection, token: Buffer, now: Date, tries: number): Promise<void> {
  await run(
    db,
    `
      UPDATE pack_links
      SET tries_left = ?, opened_at = COALESCE(opened_at, ?)
      WHERE token_hash = ?
    `,
    [tries, now, token]
  )
}

/** Links of a visit that have not ended, the newest first. */
export function packLinksOf(db: Connection, visit: string, now: Date): Promise<ListedPackLink[]> {
  return rows(
    db,
    `
      SELECT LOWER(HEX(token_hash)) AS id, made_at AS madeAt, expires_at AS expiresAt, opened_at AS openedAt,
        tries_left AS triesLeft
      FROM pack_links
      WHERE visit_id = ?
        AND expires_at > ?
        AND tries_left > 0
      ORDER BY made_at DESC
      LIMIT ${MOST_LINKS}
    `,
    [visit, now]
  )
}

/** Ends one link of a visit, or all of them. */
export function endPackLinks(db: Connection, visit: string, token?: Buffer): Promise<number> {
  return token
    ? run(db, 'DELETE FROM pack_links WHERE visit_id = ? AND token_hash = ?', [visit, token])
    : run(db, 'DELETE FROM pack_links WHERE visit_id = ?', [visit])
}

/** Takes away what has ended. */
export async function endedPackLinks(db: Connection, now: Date): Promise<void> {
  await run(db, 'DELETE FROM pack_links WHERE expires_at <= ?', [now])
}
