import { join } from 'node:path'
import { readConfig } from '@pasado/server/config'
import { makeServices } from '@pasado/server/server'
import { loadLargeCompany } from './large-company'
import { startMariaDb } from './mariadb'

/** `pasado demo --homes N`: adds a generated company of many homes to the company's database; the server may go on running. */
const homes = Number(process.argv[2])
const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
const services = await makeServices(readConfig({ KEY_FILE: join(dataFolder, 'master-key'), ...process.env, DATABASE_URL: process.env.DATABASE_URL ?? local!.url }))
const began = performance.now()
let told = 0
const loaded = await loadLargeCompany(services, { homes, today: new Date() }, (so) => {
  if (performance.now() - told < 2_000) return
  told = performance.now()
  process.stderr.write(`\r${so.homes.toLocaleString('en')} of ${homes.toLocaleString('en')} homes, ${Math.round((100 * so.homes) / homes)} %, ${Math.round(so.visits / ((performance.now() - began) / 1000))} visits a second   `)
})
process.stderr.write('\n')
console.log(`${loaded.homes} homes, ${loaded.visits} sealed visits, ${loaded.units} units in ${Math.round((performance.now() - began) / 1000)} s`)
await services.db.end()
if (local && !local.wasRunning) await local.stop()
process.exit(0)
