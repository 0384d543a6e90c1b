import type { Entry } from '@pasado/core/record/entry'
import { rows, type Connection, type Statement } from './pool'

/** Entries of a visit after a line that are in the database, in order; those of an archived visit are in its file. */
export async function storedAfter(db: Connection, visit: string, seq: number): Promise<Entry[]> {
  const found = await rows<{ doc: string }>(db, 'SELECT doc FROM entries WHERE visit_id = ? AND seq > ? ORDER BY seq', [
    visit,
    seq
  ])
  return found.map(({ doc }) => JSON.parse(doc) as Entry)
}

/** Those of these entries that the logbook holds already, by id, of whatever visit. */
export async function entriesById(db: Connection, ids: string[]): Promise<Map<string, Entry>> {
  if (ids.length === 0) return new Map()
  const found = await rows<{ doc: string }>(
    db,
    `SELECT doc FROM entries WHERE id IN (${ids.map(() => '?').join(', ')})`,
    ids
  )
  return new Map(found.map(({ doc }) => JSON.parse(doc) as Entry).map((entry) => [entry.id, entry]))
}

/** Writes entries; each with its seq and hash already. */
export function insertEntries(entries: readonly Entry[]): Statement {
  return {
    sql: 'INSERT INTO entries (visit_id, seq, id, doc) VALUES ?',
    params: [entries.map((entry) => [entry.visit, entry.seq, entry.id, JSON.stringify(entry)])]
  }
}
