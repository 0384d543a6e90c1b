import { isAbsolute, join } from 'node:path'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import { integrityProblems, printRecordFile, readRecordFile } from '@pasado/core/documents/record-file'
import { canonicalJson } from '@pasado/core/values/canonical'
import type { Entry } from '@pasado/core/record/entry'
import {
  archivedFiles,
  archivedVisit,
  archiveIn,
  archiveOf,
  moveArchive,
  noteArchived,
  noteBroughtBack,
  photosOf,
  putPictureBack,
  visitsInArchive,
  visitsToArchive,
  wantArchives,
  type ArchivedFile,
  type ArchivedVisit,
  type OldVisit
} from '../db/archives'
import { insertEntries } from '../db/entries'
import { transactionOn, type Db } from '../db/pool'
import { lockVisit, type VisitHead } from '../db/visits'
import { fileOf, whatDoesNotHold } from '../logbook/integrity'
import type { Logbook } from '../logbook/logbook'
import { entriesAfter, pictureOf } from './archived'
import { sha256Of, pictureName, readArchived, RECORD, smallName, writeWhole } from './files'

const [pack, unpack] = [promisify(gzip), promisify(gunzip)]

/** What came of archiving. */
export interface Archived {
  visits: number
  lines: number
  octets: number
  /** Visits that stay in the database as something of them does not hold, and what. */
  left: { visit: string; why: string }[]
}

/** Who archives where. */
export interface Archivist {
  /** As the user who may take lines out of the logbook. */
  db: Db
  logbook: Logbook
  /** An absolute folder that every server reaches by this name. */
  folder: string
  by: string
  now?: () => Date
}

/**
 * Moves the lines and photos of visits that were sealed before a day into files: each written, read back, verified as `pasado verify` does, and
 * only then taken out of the database. Broken off anywhere nothing is lost: what is not noted as archived is still in the database.
 * Visits of whose secrets anything is kept stay.
 * @param onProgress is told after each visit
 */
export async function archiveBefore(
  { db, logbook, folder, by, now = () => new Date() }: Archivist,
  before: Date,
  onProgress: (archived: Archived) => void = () => undefined
): Promise<Archived> {
  if (!isAbsolute(folder)) throw new Error(`${folder} must be named from the root, as every server reaches it`)
  const done: Archived = { visits: 0, lines: 0, octets: 0, left: [] }
  let last: OldVisit | null = null
  for (;;) {
    const visits: OldVisit[] = await visitsToArchive(db, before, last)
    if (visits.length === 0) return done
    if (last === null) await wantArchives(db)
    const archive = await archiveIn(db, folder)
    for (const visit of visits) {
      const one = await archiveOne({ db, logbook, folder, by, now }, archive, visit)
      if (typeof one === 'string') done.left.push({ visit: visit.id, why: one })
      else {
        done.visits += 1
        done.lines += one.lines
        done.octets += one.octets
      }
      onProgress(done)
    }
    last = visits.at(-1)!
  }
}

/** Archives a visit. @returns what it came to, or why it stays */
async function archiveOne(
  { db, logbook, folder, by, now }: Required<Archivist>,
  archive: number,
  { id, sealedAt }: OldVisit
): Promise<{ lines: number; octets: number } | string> {
  const entries = await entriesAfter(db, id, 0)
  const lines = entries.length
  const { record } = await logbook.states.at(db, id, lines)
  logbook.states.forget(id)
  const broken = await whatDoesNotHold(logbook, db, { entries, record })
  if (broken) return broken
  const path = join(sealedAt.toISOString().slice(0, 7), id)
  const text = printRecordFile(await fileOf(logbook, db, { entries, record }))
  const written: { name: string; octets: Buffer }[] = [{ name: RECORD, octets: await pack(text) }]
  for (const { ref, picture, small } of await photosOf(db, id)) {
    written.push({ name: pictureName(ref), octets: picture })
    if (small) written.push({ name: smallName(ref), octets: small })
  }
  const files: ArchivedFile[] = []
  for (const { name, octets } of written) {
    await writeWhole(folder, join(path, name), octets)
    files.push({ name, digest: sha256Of(octets), octets: octets.length })
  }
  const unread = await readBack({ folder, path, lines }, files, entries)
  if (unread) return unread
  await transactionOn<VisitHead, void>(db, lockVisit(id), (_, [head], last) => {
    // What was written meanwhile stays in the database: lines after those of the file.
    if (!head || head.last_seq < lines) throw new Error(`the head of ${id} is before its lines`)
    for (const statement of noteArchived(id, { archive, path, lines, files }, by, now())) last(statement)
    return Promise.resolve()
  })
  return { lines, octets: files.reduce((sum, { octets }) => sum + octets, 0) }
}

/** Reads the files of a visit back. @returns what is not as it was written, in words; null where all of it is */
async function readBack(
  where: ArchivedVisit,
  files: readonly ArchivedFile[],
  entries: readonly Entry[]
): Promise<string | null> {
  for (const file of files) {
    const octets = await readArchived(where, file)
    if (file.name !== RECORD) continue
    const text = (await unpack(octets)).toString('utf8')
    const read = readRecordFile(text)
    const [problem] = integrityProblems(read, text)
    if (problem) return `its file does not hold when it is read back: ${problem.path.join('.')} ${problem.message}`
    if (canonicalJson(read.entries) !== canonicalJson(entries))
      return 'its file holds other lines than the database when it is read back'
  }
  return null
}

/** Puts an archived visit's lines and photos back into the database. Its files stay where they are. */
export async function bringBack({ db, logbook }: Pick<Archivist, 'db' | 'logbook'>, visit: string): Promise<boolean> {
  const where = await archivedVisit(db, visit)
  if (!where) return false
  const entries = (await entriesAfter(db, visit, 0)).filter(({ seq }) => seq <= where.lines)
  await transactionOn<VisitHead, void>(db, lockVisit(visit), async (connection, _, last) => {
    last(insertEntries(entries))
    for (const { ref } of await photosOf(connection, visit)) {
      const photo = (await pictureOf(connection, visit, ref))!
      if (photo.picture.length > 0) last(putPictureBack(ref, photo.picture, photo.small))
    }
    for (const statement of noteBroughtBack(visit)) last(statement)
  })
  logbook.states.forget(visit)
  return true
}

/**
 * Says that an archive was brought to another folder, once every file of it is there and as it was put away.
 * @returns how many visits it holds
 * @throws Error where there is none in the folder it was in; DomainProblem naming the first file that is missing or another one
 */
export async function archiveMoved(db: Db, from: string, to: string): Promise<number> {
  if (!isAbsolute(to)) throw new Error(`${to} must be named from the root, as every server reaches it`)
  const archive = await archiveOf(db, from)
  if (archive === null) throw new Error(`there is no archive in ${from}`)
  if ((await archiveOf(db, to)) !== null) throw new Error(`${to} is another archive already`)
  let visits = 0
  let last = ''
  for (;;) {
    const page = await visitsInArchive(db, archive, last)
    if (page.length === 0) break
    for (const visit of page) {
      const where = (await archivedVisit(db, visit))!
      for (const file of await archivedFiles(db, visit)) await readArchived({ ...where, folder: to }, file)
    }
    visits += page.length
    last = page.at(-1)!
  }
  await moveArchive(db, archive, to)
  return visits
}
