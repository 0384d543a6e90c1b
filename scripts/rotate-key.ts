import { randomBytes } from 'node:crypto'
import { open, rename } from 'node:fs/promises'
import { join } from 'node:path'
import { openPool } from '@pasado/server/db/pool'
import { companyKeys, masterKeyFrom } from '@pasado/server/vault/master-key'
import { rotateMasterKey } from '@pasado/server/vault/rotate'
import { startMariaDb } from './mariadb'

/** `npm run rotate-key`: a new master key, with it a new sealing key; the old file is kept beside, named for its sealing key. Stop every server first. */
const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
const file = process.env.KEY_FILE ?? join(dataFolder, 'master-key')
if (process.env.MASTER_KEY) {
  console.error('MASTER_KEY is set: rotation works on the key file. Put the key into a file of mode 0600, name it with KEY_FILE, and unset MASTER_KEY.')
  process.exit(2)
}
const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
if (local?.wasRunning) {
  console.error('A server is running on this database. Stop it first: it would go on with the key it knows.')
  process.exit(2)
}
const db = openPool(process.env.DATABASE_URL ?? local!.url)
const from = await masterKeyFrom(file)
const to = randomBytes(32)
const next = `${file}.next`
// The new key is on the disk before anything is put under it.
const handle = await open(next, 'wx', 0o600)
await handle.writeFile(`${to.toString('hex')}\n`)
await handle.sync()
await handle.close()
const visits = await rotateMasterKey(db, from, to)
const old = `${file}.${companyKeys(from).keyName}`
await rename(file, old)
await rename(next, file)
console.log(`${visits} visits are under the new key. Seals are made with ${companyKeys(to).keyName} from now on.\nThe old key is in ${old}: it opens backups from before today; keep it as long as you keep them, then destroy it.`)
await db.end()
await local?.stop()
process.exit(0)
