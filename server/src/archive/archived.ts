import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import type { RecordFile } from '@pasado/core/documents/record-file'
import type { Entry } from '@pasado/core/record/entry'
import { archivedFiles, archivedVisit } from '../db/archives'
import { storedAfter } from '../db/entries'
import { readPhoto, type StoredPhoto } from '../db/photos'
import type { Connection } from '../db/pool'
import { pictureName, readArchived, RECORD, smallName } from './files'

const unpack = promisify(gunzip)

/**
 * Entries of a visit after a line, in order; those of an archived one from its file.
 * @throws DomainProblem where that is not there, or is another one
 */
export async function entriesAfter(db: Connection, visit: string, seq: number): Promise<Entry[]> {
  const stored = await storedAfter(db, visit, seq)
  // Lines are numbered without a gap: where the next one is there, nothing of what was asked for is elsewhere.
  if (stored[0]?.seq === seq + 1) return stored
  const archived = await archivedEntries(db, visit, seq)
  return archived.length ? [...archived, ...stored] : stored
}

/** The lines of a visit after one that are in its file; none of a visit that is not archived. */
async function archivedEntries(db: Connection, visit: string, seq: number): Promise<Entry[]> {
  const where = await archivedVisit(db, visit)
  if (!where || where.lines <= seq) return []
  const file = (await archivedFiles(db, visit)).find(({ name }) => name === RECORD)!
  const { entries } = JSON.parse((await unpack(await readArchived(where, file))).toString('utf8')) as RecordFile
  return entries.filter((entry) => entry.seq > seq)
}

/** One photo of a visit, from its file where the visit is archived; null where it has none of this reference. */
export async function pictureOf(db: Connection, visit: string, ref: string): Promise<StoredPhoto | null> {
  const stored = await readPhoto(db, visit, ref)
  if (!stored || stored.label || stored.picture.length > 0) return stored
  const where = await archivedVisit(db, visit)
  if (!where) return stored
  const files = await archivedFiles(db, visit)
  const read = async (wanted: string) => {
    const file = files.find(({ name }) => name === wanted)
    return file ? readArchived(where, file) : null
  }
  return { ...stored, picture: (await read(pictureName(ref))) ?? stored.picture, small: await read(smallName(ref)) }
}
