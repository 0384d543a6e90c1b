import { createHash } from 'node:crypto'
import { open, mkdir, readFile, rename } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { DomainProblem } from '../problem'
import type { ArchivedFile, ArchivedVisit } from '../db/archives'

/** The name of the file with a visit's logbook. */
export const RECORD = 'record.json.gz'
/** The names of the files with a photo and its small picture. */
export const pictureName = (ref: string): string => `${ref}.jpg`
export const smallName = (ref: string): string => `${ref}.small.jpg`

export const digestOf = (octets: Buffer): string => createHash('sha256').update(octets).digest('hex')

/** Syncs a folder, so that what was named in it stays named when the power goes. */
async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder)
  try {
    await handle.sync()
  } finally {
    await handle.close()
  }
}

/** Writes a file so that it is there whole or not at all, for nobody else to read. */
export async function writeWhole(path: string, octets: Buffer): Promise<void> {
  await mkdir(dirname(path), { recursive: true, mode: 0o700 })
  const handle = await open(`${path}.new`, 'w', 0o600)
  try {
    await handle.writeFile(octets)
    await handle.sync()
  } finally {
    await handle.close()
  }
  await rename(`${path}.new`, path)
  await syncFolder(dirname(path))
}

/**
 * A file of an archived visit, as it was put away.
 * @throws DomainProblem where it is not there, or is another one
 */
export async function readArchived({ folder, path }: ArchivedVisit, file: ArchivedFile): Promise<Buffer> {
  const at = join(folder, path, file.name)
  let octets: Buffer
  try {
    octets = await readFile(at)
  } catch (error) {
    throw away(
      `This visit is archived, and its file cannot be read where it was put (${at}: ${(error as NodeJS.ErrnoException).code ?? 'unreadable'}).`
    )
  }
  if (digestOf(octets) !== file.digest)
    throw away(`This visit is archived, and its file is not the one that was put away (${at}).`)
  return octets
}

const away = (title: string): DomainProblem =>
  new DomainProblem('busy', 'archive-away', `${title} Tell whoever looks after the machines.`)
