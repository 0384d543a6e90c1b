import { randomBytes } from 'node:crypto'
import { existsSync } from 'node:fs'
import { open, rename, unlink } from 'node:fs/promises'
import { join } from 'node:path'
import { epochFileOf } from '@pasado/server/config'
import { companyFact } from '@pasado/server/db/company-facts'
import { openPool } from '@pasado/server/db/pool'
import { companyKeys, masterKeyFrom } from '@pasado/server/vault/master-key'
import { opensWhatIsKept, rotateMasterKey } from '@pasado/server/vault/rotate'
import { startMariaDb } from './mariadb'

/** `npm run rotate-key`: a new master key, with it a new sealing key; the old file is kept beside, named for its sealing key. Stop every server first. */
const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
const file = process.env.KEY_FILE ?? join(dataFolder, 'master-key')
const epochFile = epochFileOf({ KEY_FILE: file, EPOCH_FILE: process.env.EPOCH_FILE })
if (process.env.MASTER_KEY) {
  console.error(
    'MASTER_KEY is set: rotation works on the key file. Put the key into a file of mode 0600, name it with KEY_FILE, and unset MASTER_KEY.'
  )
  process.exit(2)
}
const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
if (local?.wasRunning) {
  console.error('A server is running on this database. Stop it first: it would go on with the key it knows.')
  process.exit(2)
}
const db = openPool(process.env.DATABASE_URL ?? local!.url)
const end = async (status: number, words: string): Promise<never> => {
  console[status ? 'error' : 'log'](words)
  await db.end()
  await local?.stop()
  process.exit(status)
}
const from = await masterKeyFrom(file)
const next = `${file}.next`
const print = await companyFact(db, 'key-print')
const left = existsSync(next) ? await masterKeyFrom(next) : null
if (left && print === companyKeys(left).check) {
  // An earlier rotation was stopped between the transaction and the change of files: only these are left to do.
  const old = `${file}.${companyKeys(from).keyName}`
  await rename(file, old)
  await rename(next, file)
  await end(
    0,
    `An earlier rotation had been stopped before its files changed places; that is done now. Seals are made with ${companyKeys(left).keyName}. The old key is in ${old}.`
  )
}
if ((print !== null && print !== companyKeys(from).check) || !(await opensWhatIsKept(db, companyKeys(from), epochFile)))
  await end(
    2,
    `The key in ${file} is not the one that this database's secrets are under. Nothing was changed; put the right key file there.`
  )
// One that was made and never used.
if (left) await unlink(next)
const to = randomBytes(32)
// The new key is on the disk before anything is put under it.
const handle = await open(next, 'wx', 0o600)
await handle.writeFile(`${to.toString('hex')}\n`)
await handle.sync()
await handle.close()
const visits = await rotateMasterKey(db, from, to, epochFile)
const old = `${file}.${companyKeys(from).keyName}`
await rename(file, old)
await rename(next, file)
await end(
  0,
  `${visits} visits are under the new key. Seals are made with ${companyKeys(to).keyName} from now on.\nThe old key is in ${old}: it opens backups from before today; keep it as long as you keep them, then destroy it.`
)
