import type { OpenPart } from '@pasado/core/api/day'
import type { VisitSummary } from '@pasado/core/documents/visit-summary'
import { pageOf, type PageCursor } from './page'
import { row, rows, run, type Connection, type Param, type Statement } from './pool'

/** The head of a visit's chain, as it is locked before anything is written to it. */
export interface VisitHead {
  id: string
  home_id: string
  last_seq: number
  last_hash: string
  sealed_at: Date | null
}

/** Locks a visit until the end of the transaction. */
export function lockVisit(id: string): Statement {
  return {
    sql: `
      SELECT id, home_id, last_seq, last_hash, sealed_at
      FROM visits
      WHERE id = ?
      FOR UPDATE
    `,
    params: [id]
  }
}

/** The head of a visit without locking it. */
export function readVisitHead(db: Connection, id: string): Promise<VisitHead | null> {
  return row<VisitHead>(db, 'SELECT id, home_id, last_seq, last_hash, sealed_at FROM visits WHERE id = ?', [id])
}

/** Inserts a visit that has no entry yet. */
export async function insertVisit(
  db: Connection,
  visit: {
    id: string
    home: string
    technician: { id: string; name: string }
    plannedAt: Date | null
    openedAt: Date
    hash: string
  }
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO visits (id, home_id, technician_id, technician_name, planned_at, opened_at, last_seq, last_hash, summary)
      VALUES (?, ?, ?, ?, ?, ?, 0, ?, '{}')
    `,
    [visit.id, visit.home, visit.technician.id, visit.technician.name, visit.plannedAt, visit.openedAt, visit.hash]
  )
}

/** Whose visit it is, from here on. */
export async function setTechnician(
  db: Connection,
  id: string,
  technician: { id: string; name: string }
): Promise<void> {
  await run(db, 'UPDATE visits SET technician_id = ?, technician_name = ? WHERE id = ?', [
    technician.id,
    technician.name,
    id
  ])
}

/** What lists show of a visit that its entries may change. */
export interface ShownOfVisit {
  sealedAt: Date | null
  cancelledAt: Date | null
  plannedAt: Date | null
  review: 'none' | 'asked' | 'returned'
  /** Left out where the rules are asked later: until then it is what it was. */
  summary?: VisitSummary
}

/** Moves a visit's head forward from the line it was locked at, and where it changed, what is shown of the visit in lists. */
export function moveHead(id: string, from: number, seq: number, hash: string, shown: ShownOfVisit | null): Statement {
  if (!shown)
    return {
      sql: 'UPDATE visits SET last_seq = ?, last_hash = ? WHERE id = ? AND last_seq = ?',
      params: [seq, hash, id, from],
      touches: 1
    }
  const { sealedAt, cancelledAt, plannedAt, review, summary } = shown
  return {
    sql: `
      UPDATE visits
      SET last_seq = ?, last_hash = ?, sealed_at = ?, cancelled_at = ?, planned_at = ?, review = ?,
        ${summary ? 'summary = ?, to_judge = FALSE' : 'to_judge = TRUE'}
      WHERE id = ?
        AND last_seq = ?
    `,
    params: [
      seq,
      hash,
      sealedAt,
      cancelledAt,
      plannedAt,
      review,
      ...(summary ? [JSON.stringify(summary)] : []),
      id,
      from
    ],
    touches: 1
  }
}

/** A visit as lists show it. */
export interface ListedVisit {
  id: string
  home: string
  technician: string
  technicianName: string
  customer: string
  street: string
  town: string
  plannedAt: Date | null
  openedAt: Date
  sealedAt: Date | null
  cancelledAt: Date | null
  review: 'none' | 'asked' | 'returned'
  /** The last line of its logbook. */
  seq: number
  summary: VisitSummary
}

const LISTED = `
  SELECT v.id, v.home_id AS home, v.technician_id AS technician, v.technician_name AS technicianName,
    h.customer, h.street, h.town, v.planned_at AS plannedAt, v.opened_at AS openedAt, v.sealed_at AS sealedAt,
    v.cancelled_at AS cancelledAt, v.review, v.last_seq AS seq, v.summary
  FROM visits v
`

async function list(db: Connection, rest: string, params: Param[], index = ''): Promise<ListedVisit[]> {
  const found = await rows<Omit<ListedVisit, 'summary'> & { summary: string }>(
    db,
    `${LISTED} ${index} JOIN homes h ON h.id = v.home_id ${rest}`,
    params
  )
  return found.map((visit) => ({ ...visit, summary: JSON.parse(visit.summary) as VisitSummary }))
}

/** So many visits stand on a page of a part. */
export const VISITS_A_PAGE = 200

/** What a page begins behind, as a clause and what it asks for. */
function beyondOf(part: OpenPart, after: PageCursor | null): [clause: string, params: (Date | string)[]] {
  if (after === null) return ['', []]
  if (part === 'unplanned') return ['AND v.id > ?', [after.id]]
  return [`AND (v.planned_at, v.id) ${part === 'upcoming' ? '>' : '<'} (?, ?)`, [new Date(after.key), after.id]]
}

/**
 * A page of the visits that are not sealed, of one technician or of all. However many are overdue, none of them takes the place of
 * one that is to come.
 * @param pivot from here on a visit is upcoming
 */
export async function openVisits(
  db: Connection,
  technician: string | null,
  part: OpenPart,
  pivot: Date,
  after: PageCursor | null = null
): Promise<{ visits: ListedVisit[]; next: string | null }> {
  const mine = technician === null ? '' : 'AND v.technician_id = ?'
  const by = technician === null ? 'by_plan' : 'by_technician'
  const [range, order] = {
    upcoming: ['v.planned_at >= ?', 'ASC'],
    overdue: ['v.planned_at < ?', 'DESC'],
    unplanned: ['v.planned_at IS NULL', 'ASC']
  }[part] as [string, string]
  const [beyond, past] = beyondOf(part, after)
  const found = await list(
    db,
    `WHERE v.sealed_at IS NULL AND v.cancelled_at IS NULL ${mine} AND ${range} ${beyond} ORDER BY v.planned_at ${order}, v.id ${order} LIMIT ${VISITS_A_PAGE + 1}`,
    [...(technician === null ? [] : [technician]), ...(part === 'unplanned' ? [] : [pivot]), ...past],
    `FORCE INDEX (${by})`
  )
  const { here, next } = pageOf(found, VISITS_A_PAGE, ({ plannedAt, id }) => ({
    key: plannedAt?.toISOString() ?? '',
    id
  }))
  return { visits: here, next }
}

/** Some visits that are not sealed, by their ids. */
export function openVisitsById(db: Connection, ids: readonly string[]): Promise<ListedVisit[]> {
  return ids.length
    ? list(db, `WHERE v.id IN (${ids.map(() => '?').join(', ')}) AND v.sealed_at IS NULL AND v.cancelled_at IS NULL`, [
        ...ids
      ])
    : Promise.resolve([])
}

/** Visits that wait for this lead: the one that waits longest first, and of those that wait alike long the one with the most in the way. Their own wait for another. */
export async function visitsInReview(db: Connection, lead: string): Promise<ListedVisit[]> {
  const found = await list(
    db,
    "WHERE v.review = 'asked' AND v.sealed_at IS NULL AND v.cancelled_at IS NULL AND v.technician_id <> ? ORDER BY v.planned_at, v.id LIMIT 1000",
    [lead]
  )
  return found.sort(
    (a, b) =>
      (Date.parse(a.summary.reviewAskedAt ?? '') || 0) - (Date.parse(b.summary.reviewAskedAt ?? '') || 0) ||
      b.summary.open - a.summary.open
  )
}

/** Every visit of a home, newest first. */
export function visitsOfHome(db: Connection, home: string): Promise<ListedVisit[]> {
  return list(db, 'WHERE v.home_id = ? ORDER BY v.opened_at DESC, v.id DESC LIMIT 200', [home])
}

/** Visits of a home that are not sealed. */
export async function openVisitsOfHome(db: Connection, home: string): Promise<string[]> {
  return (
    await rows<{ id: string }>(
      db,
      `
        SELECT id
        FROM visits
        WHERE home_id = ?
          AND sealed_at IS NULL
        ORDER BY opened_at, id
      `,
      [home]
    )
  ).map(({ id }) => id)
}

/** The visit of a home that was sealed last; one that came as a file only where there is none of our own. */
export async function latestSealed(db: Connection, home: string): Promise<string | null> {
  const found = await row<{ id: string }>(
    db,
    `
      SELECT id
      FROM visits
      WHERE home_id = ?
        AND sealed_at IS NOT NULL
      ORDER BY is_foreign, sealed_at DESC, id DESC
      LIMIT 1
    `,
    [home]
  )
  return found?.id ?? null
}

/** Sealed visits, the latest first, so many from a moment on back. */
export function sealedBefore(
  db: Connection,
  before: Date,
  count: number
): Promise<{ id: string; street: string; sealedAt: Date }[]> {
  return rows(
    db,
    `
      SELECT v.id, h.street, v.sealed_at AS sealedAt
      FROM visits v
      JOIN homes h ON h.id = v.home_id
      WHERE v.sealed_at < ?
      ORDER BY v.sealed_at DESC
      LIMIT ${count}
    `,
    [before]
  )
}

/** The last line of each of these visits' logbooks. */
export async function headsOf(db: Connection, ids: string[]): Promise<Map<string, number>> {
  if (ids.length === 0) return new Map()
  const found = await rows<{ id: string; last_seq: number }>(
    db,
    `SELECT id, last_seq FROM visits WHERE id IN (${ids.map(() => '?').join(', ')})`,
    ids
  )
  return new Map(found.map((visit) => [visit.id, visit.last_seq]))
}

/** Every visit there is, oldest first. */
export async function everyVisit(db: Connection): Promise<string[]> {
  const found = await rows<{ id: string }>(db, 'SELECT id FROM visits ORDER BY opened_at, id')
  return found.map(({ id }) => id)
}

/**
 * Puts another summary in place of a visit's, as of a line of its logbook.
 * @returns false where it has more lines by now
 */
export async function setSummary(db: Connection, visit: string, seq: number, summary: VisitSummary): Promise<boolean> {
  const sql = 'UPDATE visits SET summary = ?, to_judge = FALSE WHERE id = ? AND last_seq = ?'
  return (await run(db, sql, [JSON.stringify(summary), visit, seq])) === 1
}

/** Whether a visit was written in since the rules were asked last, and up to which line. */
export const toJudge = (db: Connection, visit: string): Promise<{ home: string; seq: number } | null> =>
  row(db, 'SELECT home_id AS home, last_seq AS seq FROM visits WHERE id = ? AND to_judge', [visit])

/** How many visits were written in since the rules were asked last. */
export const countToJudge = async (db: Connection): Promise<number> =>
  Number((await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM visits WHERE to_judge = TRUE'))!.many)

/** Visits that were written in since the rules were asked last. */
export const allToJudge = async (db: Connection, most: number): Promise<string[]> =>
  (await rows<{ id: string }>(db, `SELECT id FROM visits WHERE to_judge = TRUE LIMIT ${most}`)).map(({ id }) => id)
