import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { mkdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Transform, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { z } from 'zod'
import { databaseAddress } from '../db/hosts'
import { row, type Connection } from '../db/pool'
import type { EpochStore } from '../vault/epoch-store'
import { clientOn, endedWell, together } from './client'
import { copyOfKeys, writeKeysCopy } from './keys-copy'
import { opening, sealing, type SealedTo } from './sealed-stream'

/** What stands beside a sealed dump, for whoever looks for one; no secret and no name is in it. */
const backupSheet = z.strictObject({
  format: z.literal('pasado.backup/1'),
  at: z.string(),
  /** SHA-256 and octets of the dump before it was packed and sealed. */
  digest: z.string().regex(/^[0-9a-f]{64}$/),
  octets: z.int().positive(),
  /** How many lines all logbooks had as it began, at least. */
  lines: z.int().min(0),
  /** Where the binary log stood: what came after is put on top of the dump from there; null where none is written. */
  position: z.strictObject({ file: z.string(), at: z.int().min(4) }).nullable()
})
export type BackupSheet = z.infer<typeof backupSheet>

const SHEET = 'backup.json'
const DUMP = 'database.sql.gz.sealed'
/** What mariadb-dump writes at the end of a dump that is whole. */
const WHOLE = '-- Dump completed'
const POSITION = /^-- CHANGE MASTER TO MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+);/m

export interface BackupOptions {
  db: Connection
  url: string
  master: Buffer
  store: EpochStore
  /** Where backups stand, each in a folder of its own. */
  folder: string
  /** Where the newest copy of the keys stands: better on another machine. */
  keysFile: string
  to: SealedTo
  now?: Date
}

/**
 * Backs a company up while its servers run: the database as it stood at one moment, packed and sealed, and the keys by themselves. The dump is
 * read back before it is called done.
 * @returns the folder of this backup, and its sheet
 * @throws Error where it could not be made or does not read as it was written
 */
export async function backUp(options: BackupOptions): Promise<{ folder: string; sheet: BackupSheet }> {
  const { db, url, folder: backups, to, keysFile, master, store, now = new Date() } = options
  const folder = join(backups, now.toISOString().replaceAll(':', '').slice(0, 17) + 'Z')
  await mkdir(backups, { recursive: true, mode: 0o700 })
  await mkdir(folder, { mode: 0o700 })
  const lines = Number((await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM entries'))!.many)
  const isLogged = Number((await row<{ on: number }>(db, 'SELECT @@log_bin AS `on`'))!.on) === 1
  const { database } = databaseAddress.parse(url)
  const seal = await sealing(to)
  const dump = clientOn('mariadb-dump', url, [
    '--single-transaction',
    '--quick',
    '--hex-blob',
    '--no-tablespaces',
    '--default-character-set=utf8mb4',
    ...(isLogged ? ['--master-data=2'] : []),
    database
  ])
  const written = new Looked()
  const packed = pipeline(
    dump.stdout,
    passing(written),
    createGzip({ level: 6 }),
    seal,
    createWriteStream(join(folder, DUMP), { mode: 0o600, flags: 'wx', flush: true })
  )
  await together([endedWell('mariadb-dump', dump)], [packed])
  // After the database: a data key that is in the dump and lives is in this copy, however it was wrapped since.
  await writeKeysCopy(keysFile, await copyOfKeys(db, master, store, now), to)
  const read = new Looked()
  await openDump(folder, to, async (parts) => {
    for await (const part of parts) read.look(part)
  })
  if (read.digest !== written.digest || !read.tail.includes(WHOLE))
    throw new Error(`The backup in ${folder} does not read as it was written; nothing else was touched. Make another.`)
  const [, file, at] = POSITION.exec(written.head) ?? []
  const sheet: BackupSheet = {
    format: 'pasado.backup/1',
    at: now.toISOString(),
    digest: written.digest,
    octets: written.octets,
    lines,
    position: file === undefined ? null : { file, at: Number(at) }
  }
  await writeFile(join(folder, SHEET), `${JSON.stringify(sheet, null, 2)}\n`, { mode: 0o600, flush: true })
  return { folder, sheet }
}

/** What a dump is like: how long it is, its digest, how it begins and ends. */
class Looked {
  octets = 0
  head = ''
  tail = ''
  readonly #hash = createHash('sha256')
  #digest: string | null = null

  look(chunk: Buffer): void {
    this.octets += chunk.length
    this.#hash.update(chunk)
    if (this.head.length < 20_000) this.head += chunk.toString('latin1')
    this.tail = (this.tail + chunk.subarray(-400).toString('latin1')).slice(-400)
  }

  get digest(): string {
    return (this.#digest ??= this.#hash.digest('hex'))
  }
}

/** Lets everything through, and has it looked at. */
const passing = (looked: Looked): Transform =>
  new Transform({
    transform(chunk: Buffer, _, done) {
      looked.look(chunk)
      done(null, chunk)
    }
  })

/** Opens the dump of a backup, and hands it on. @throws NotOpened */
export function openDump(
  folder: string,
  to: SealedTo,
  into: Writable | ((dump: AsyncIterable<Buffer>) => Promise<void>)
): Promise<void> {
  return pipeline(createReadStream(join(folder, DUMP)), opening(to), createGunzip(), into)
}

/** Reads the sheet of a backup. @throws Error where there is none that is whole: a backup that was not read back has none */
export async function readSheet(folder: string): Promise<BackupSheet> {
  const text = await readFile(join(folder, SHEET), 'utf8').catch(() => null)
  const sheet = text === null ? null : backupSheet.safeParse(JSON.parse(text))
  if (!sheet?.success) throw new Error(`${folder} is no backup that was finished: it has no whole ${SHEET}.`)
  return sheet.data
}
