import { userInfo } from 'node:os'
import { resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { archiveBefore, archiveMoved, bringBack } from '@pasado/server/archive/archive'
import { openPool } from '@pasado/server/db/pool'
import { openCompany } from './company-database'
import { asCommand } from './sealed-to'

const usage = `pasado archive DIR --before DAY   moves visits sealed before a day, as 2024-01-01, into files of DIR
pasado archive DIR --was OLD      says that the archive of OLD is in DIR now
pasado archive --back VISIT       puts an archived visit back into the database`

/** A day as it is written. @throws Error where it is none, or not over yet */
function dayOf(text: string): Date {
  const day = new Date(`${text}T00:00:00Z`)
  if (!/^\d{4}-\d\d-\d\d$/.test(text) || Number.isNaN(day.getTime()))
    throw new Error('--before: a day as 2024-01-01 is wanted')
  if (day.getTime() > Date.now()) throw new Error('--before: is still to come')
  return day
}

/** `pasado archive`: the servers may go on running, as long as none of them is of a release that knows of no archives. */
await asCommand(async () => {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { before: { type: 'string' }, was: { type: 'string' }, back: { type: 'string' } }
  })
  const wanted = [values.before, values.was, values.back].filter((word) => word !== undefined)
  if (wanted.length !== 1 || positionals.length !== (values.back === undefined ? 1 : 0)) throw new Error(usage)
  const before = values.before === undefined ? null : dayOf(values.before)
  const { services, close } = await openCompany()
  // Lines are taken out of the logbook by whoever looks after the database, and never by a server.
  const db = openPool(services.config.MIGRATE_URL ?? services.config.DATABASE_URL)
  try {
    if (values.back !== undefined) {
      if (!(await bringBack({ db, logbook: services.logbook }, values.back)))
        throw new Error(`${values.back} is not archived`)
      console.log(`${values.back} is in the database again; its files may be thrown away.`)
      return 0
    }
    const folder = resolve(positionals[0]!)
    if (values.was !== undefined) {
      const visits = await archiveMoved(db, resolve(values.was), folder)
      console.log(`${visits} visits are read from ${folder} from here on: every file was there, and whole.`)
      return 0
    }
    let told = Date.now()
    const by = `${userInfo().username}, pasado archive`
    const done = await archiveBefore({ db, logbook: services.logbook, folder, by }, before!, ({ visits }) => {
      if (Date.now() - told < 5_000) return
      told = Date.now()
      console.log(`${visits} visits …`)
    })
    for (const { visit, why } of done.left) console.error(`${visit} stays in the database: ${why}`)
    console.log(
      `${done.visits} visits with ${done.lines} lines are in ${folder} now (${Math.ceil(done.octets / 1e6)} MB), read back and whole. Copy the folder to wherever backups go: a backup of the database holds none of it.`
    )
    return done.left.length === 0 ? 0 : 1
  } finally {
    await db.end()
    await close()
  }
})
