import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { v7 as uuidv7 } from 'uuid'
import { demoPassword, demoPeople } from '@pasado/demo/company'
import { demoVisits } from '@pasado/demo/all'
import { demoHouses } from '@pasado/demo/houses'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { readConfig } from '@pasado/server/config'
import { addStandard } from '@pasado/server/db/catalogue'
import { addPerson, countPeople } from '@pasado/server/db/people'
import { hashPassword } from '@pasado/server/http/session'
import { makeServices, serve } from '@pasado/server/server'
import type { Services } from '@pasado/server/services'
import { buildInterface } from './build-interface'
import { loadHouses, loadPeople, loadStandards, loadVisits } from './load-demo'
import { underLease } from '@pasado/server/db/lease'
import { row } from '@pasado/server/db/pool'
import { startMariaDb } from './mariadb'
import { whenStopped } from './stopped'

const root = join(import.meta.dirname, '..')
/** A setting that is there but empty counts as not set. */
const settings = Object.fromEntries(Object.entries(process.env).filter(([, value]) => value !== ''))
const dataFolder = settings.DATA_DIR ?? join(root, '.data')
const demo = settings.DEMO !== 'off'
const FILL_WAIT_MS = 600_000

async function main(): Promise<void> {
  // From the beginning: told to end while it starts, it ends once it has started, and leaves nothing behind.
  const stopped = whenStopped()
  await buildInterface()
  const database = settings.DATABASE_URL ? null : await startMariaDb(dataFolder, databasePort())
  try {
    const config = readConfig({
      KEY_FILE: join(dataFolder, 'master-key'),
      WEB_ROOT: join(root, 'web/dist'),
      LOG_LEVEL: 'warn',
      ...settings,
      DATABASE_URL: settings.DATABASE_URL ?? database!.url
    })
    const services = await makeServices(config)
    // One process fills an empty database; others that start beside it wait until it is full.
    const first = await underLease(
      config.MIGRATE_URL ?? config.DATABASE_URL,
      { name: 'fill', waitMs: FILL_WAIT_MS },
      () => fillEmpty(services)
    )
    const running = await serve(services)
    database?.keepUp((what) => console.error(what))
    console.log(`\nPasado is at ${config.PUBLIC_URL ?? running.address}\n${first}`)
    await stopped
    console.log('\nStopping …')
    await running.close()
  } finally {
    await database?.stop()
  }
}

function databasePort(): number {
  const port = Number(settings.DB_PORT ?? 4181)
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Error('DB_PORT: must be a whole number from 1 to 65535')
  return port
}

/** Fills a database that nobody can log in to yet; tells how to log in. */
async function fillEmpty(services: Services): Promise<string> {
  const logins = `Demo logins, all with the password ${demoPassword}:\n${demoPeople.map(({ login, name, role }) => `  ${login.padEnd(8)} ${name}, ${role}`).join('\n')}`
  if (await countPeople(services.db)) return demo ? logins : ''
  if (await row(services.db, 'SELECT 1 FROM visits LIMIT 1'))
    throw new Error(
      'an earlier start was stopped while it filled this database: there are visits in it and nobody who could log in. Empty the database (or take away the data directory) and start again.'
    )
  if (demo) {
    console.log('Loading the demo company …')
    // People come last: while there are none, nobody takes a half-filled database for a whole one.
    await loadStandards(services, new Date())
    await loadVisits(services, demoVisits(), new Date())
    await loadHouses(services, demoHouses, new Date())
    await loadPeople(services, new Date())
    return logins
  }
  await addStandard(services.db, firstStandard)
  const password = randomBytes(12).toString('base64url')
  await addPerson(
    services.db,
    { id: uuidv7(), login: 'lead', name: 'First lead', role: 'lead' },
    await hashPassword(password),
    new Date(),
    true
  )
  return `First login, shown this once: lead, password ${password}. You choose your own at once.`
}

main().then(
  () => process.exit(0),
  (error: Error) => {
    console.error(`Pasado could not start.\n${error.message}`)
    process.exit(1)
  }
)
