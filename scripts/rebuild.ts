import { join } from 'node:path'
import { readConfig } from '@pasado/server/config'
import { rebuildProjections } from '@pasado/server/logbook/rebuild'
import { makeServices } from '@pasado/server/server'
import { startMariaDb } from './mariadb'

/** Makes every projection anew from the logbook. The server may go on running. */
const dataFolder = process.env.DATA_DIR ?? join(import.meta.dirname, '../.data')
const local = process.env.DATABASE_URL ? null : await startMariaDb(dataFolder, Number(process.env.DB_PORT ?? 4181))
const services = await makeServices(readConfig({ KEY_FILE: join(dataFolder, 'master-key'), ...process.env, DATABASE_URL: process.env.DATABASE_URL ?? local!.url }))
console.log(`${await rebuildProjections(services.logbook)} visits gone through; everything that is found by tables is as the logbook says.`)
await services.db.end()
if (local && !local.wasRunning) await local.stop()
process.exit(0)
