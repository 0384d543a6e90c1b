import { existsSync } from 'node:fs'
import { spawn } from 'node:child_process'
import { pipeline } from 'node:stream/promises'
import { setCompanyFact } from '../db/company-facts'
import { setEpochs } from '../db/key-epochs'
import { databaseAddress } from '../db/hosts'
import { migrate } from '../db/migrate'
import { openPool, row, type Connection } from '../db/pool'
import { EpochStore } from '../vault/epoch-store'
import { companyKeys } from '../vault/master-key'
import { openDump, readSheet, type BackupSheet } from './backup'
import { clientOn, endedWell, together } from './client'
import { putKeysBack, readKeysCopy, type KeysCopy } from './keys-copy'
import type { SealedTo } from './sealed-stream'

export interface RestoreOptions {
  /** An empty database, for a user who may set it up. */
  url: string
  /** The folder of one backup. */
  folder: string
  /** The newest copy of the keys. */
  keysFile: string
  to: SealedTo
  /** Where the master key and the epoch keys go: neither file is there yet, or holds the same company's. */
  keyFile: string
  epochFile: string
  /** Files of the binary log of the server that was backed up, in their order, to go on to a moment after the backup. */
  binaryLogs?: readonly string[]
  /** Up to when; all that is in the files where it is left out. */
  until?: Date
  now?: Date
}

/**
 * Puts a backup into an empty database, and the keys into their files. The secrets of visits are put right after it (settleSecrets), once
 * the program runs on it.
 * @throws Error where the database is not empty, the backup or the keys do not open, or the files there are another company's; then nothing was written
 */
export async function restore(options: RestoreOptions): Promise<{ sheet: BackupSheet; keys: KeysCopy }> {
  const { url, folder, keysFile, to, keyFile, epochFile, binaryLogs = [], until, now = new Date() } = options
  const sheet = await readSheet(folder)
  const keys = await readKeysCopy(keysFile, to)
  if (keys.at < sheet.at)
    throw new Error(
      `The copy of the keys is of ${keys.at}, before this backup (${sheet.at}): data keys made since are missing. Take the newest copy.`
    )
  const db = openPool(url, 2)
  try {
    if (!(await isEmptyDatabase(db)))
      throw new Error('The database is not empty. A backup is put into an empty one; nothing was written.')
    // Whether it opens, and whole, is known before anything is written.
    await openDump(folder, to, async (parts) => {
      for await (const part of parts) void part
    })
    if (binaryLogs.length > 0 && sheet.position === null)
      throw new Error(
        'This backup does not say where the binary log stood: none was written then. Nothing was written.'
      )
    if (existsSync(epochFile))
      throw new Error(`${epochFile} holds epoch keys already. Put it away first; nothing was written.`)
    await putKeysBack(keys, keyFile, epochFile)
    const client = clientOn('mariadb', url, ['--default-character-set=utf8mb4', databaseAddress.parse(url).database])
    await together([endedWell('mariadb', client)], [openDump(folder, to, client.stdin)])
    if (binaryLogs.length > 0) await goOn(url, sheet.position!, binaryLogs, until)
    await migrate(url)
    const company = companyKeys(Buffer.from(keys.master, 'hex'))
    await setEpochs(db, new EpochStore(epochFile, company.wrap).names(), now)
    // A backup from before the master key was changed knows the one before.
    await setCompanyFact(db, 'key-print', company.check)
    return { sheet, keys }
  } finally {
    await db.end()
  }
}

/** Puts what was written after the dump on top of it. */
async function goOn(
  url: string,
  { file, at }: NonNullable<BackupSheet['position']>,
  binaryLogs: readonly string[],
  until: Date | undefined
): Promise<void> {
  const first = binaryLogs.findIndex((path) => path.endsWith(file))
  if (first < 0) throw new Error(`The binary log ${file} is not among the files: the backup goes on from there.`)
  const words = [
    '--no-defaults',
    `--start-position=${at}`,
    ...(until ? [`--stop-datetime=${until.toISOString().slice(0, 19).replace('T', ' ')}`] : []),
    ...binaryLogs.slice(first)
  ]
  const reading = spawn('mariadb-binlog', words, { env: { ...process.env, TZ: 'UTC' }, stdio: 'pipe' })
  const client = clientOn('mariadb', url, ['--binary-mode', databaseAddress.parse(url).database])
  await together(
    [endedWell('mariadb', client), endedWell('mariadb-binlog', reading)],
    [pipeline(reading.stdout, client.stdin)]
  )
}

/** Whether a database holds no table yet. */
const isEmptyDatabase = async (db: Connection): Promise<boolean> =>
  Number(
    (await row<{ many: number }>(
      db,
      'SELECT COUNT(*) AS many FROM information_schema.tables WHERE table_schema = DATABASE()'
    ))!.many
  ) === 0
