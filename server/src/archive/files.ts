import { createHash } from 'node:crypto'
import { open, mkdir, readFile, rename } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { syncFolder } from '../backup/synced'
import { DomainProblem } from '../problem'
import type { ArchivedFile, ArchivedVisit } from '../db/archives'

/** The name of the file with a visit's logbook. */
export const RECORD = 'record.json.gz'
/** The names of the files with a photo and its small picture. */
export const pictureName = (ref: string): string => `${ref}.jpg`
export const smallName = (ref: string): string => `${ref}.small.jpg`

export const sha256Of = (octets: Buffer): string => createHash('sha256').update(octets).digest('hex')

/**
 * Writes a file of an archive so that it is there whole or not at all, for nobody else to read, and is there still after the power went: the folders on the
 * way to it as well.
 */
export async function writeWhole(folder: string, within: string, octets: Buffer): Promise<void> {
  const path = join(folder, within)
  await mkdir(dirname(path), { recursive: true, mode: 0o700 })
  const handle = await open(`${path}.new`, 'w', 0o600)
  try {
    await handle.writeFile(octets)
    await handle.sync()
  } finally {
    await handle.close()
  }
  await rename(`${path}.new`, path)
  // Any of them may have been made just now: each is named by the one above it.
  for (let named = path; named !== dirname(folder); named = dirname(named)) await syncFolder(dirname(named))
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
  if (sha256Of(octets) !== file.digest)
    throw away(`This visit is archived, and its file is not the one that was put away (${at}).`)
  return octets
}

const away = (title: string): DomainProblem =>
  new DomainProblem('busy', 'archive-away', `${title} Tell whoever looks after the machines.`)
