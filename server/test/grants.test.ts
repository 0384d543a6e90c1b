import mysql, { type Connection } from 'mysql2/promise'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { loadCompany, loadVisits } from '../../scripts/load-demo'
import { readConfig } from '../src/config'
import { grantRunning } from '../src/db/grants'
import { rebuildProjections } from '../src/logbook/rebuild'
import { makeServices, serve, type Running } from '../src/server'
import { emptyDatabase, rootOf } from '@pasado/testing/database'
import { Caller, draft, openAVisit } from '@pasado/testing/company'

let database: Awaited<ReturnType<typeof emptyDatabase>>
let root: Connection
let running: Running
let settings: Record<string, string>
const name = () => new URL(database.url).pathname.slice(1)
const runner = () => `run_${name().slice(-12)}`
const maintainer = () => `set_${name().slice(-12)}`

beforeAll(async () => {
  database = await emptyDatabase()
  root = await rootOf(database)
  await root.query(`CREATE USER '${runner()}'@'127.0.0.1' IDENTIFIED BY 'only-for-the-test'`)
  await root.query(`CREATE USER '${maintainer()}'@'127.0.0.1' IDENTIFIED BY 'only-for-the-test'`)
  await root.query(`GRANT ALL ON \`${name()}\`.* TO '${maintainer()}'@'127.0.0.1' WITH GRANT OPTION`)
  const as = (user: string) => database.url.replace(/\/\/[^@]*@/, `//${user}:only-for-the-test@`)
  settings = {
    DATABASE_URL: as(runner()),
    MIGRATE_URL: as(maintainer()),
    KEY_FILE: join(database.folder, 'key'),
    PORT: '0',
    LOG_LEVEL: 'silent'
  }
  const services = await makeServices(readConfig(settings))
  await loadCompany(services, new Date())
  await loadVisits(services, demoVisits().slice(0, 2), new Date())
  running = await serve(services)
})
afterAll(async () => {
  await running.close()
  for (const user of [runner(), maintainer()]) await root.query(`DROP USER '${user}'@'127.0.0.1'`)
  await root.end()
  await database.drop()
})

describe('the user that servers run as', () => {
  it('writes visits, seals, secrets and lists as ever, and makes lists anew', async () => {
    const isolde = await Caller.at(running.address, 'isolde')
    const visit = await openAVisit(isolde)
    const { status } = await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'note.written', { text: 'gull' })]
    })
    expect(status).toBe(200)
    expect((await isolde.call('GET', '/day')).status).toBe(200)
    await rebuildProjections(running.services.logbook)
    await isolde.call('DELETE', '/session')
  })

  it('cannot change or take out what is in the logbook, nor tables', async () => {
    const connection = await mysql.createConnection({ uri: settings.DATABASE_URL! })
    for (const statement of [
      'UPDATE entries SET doc = doc',
      'DELETE FROM entries',
      'UPDATE later_heads SET signature = signature',
      'DELETE FROM migrations',
      'DROP TABLE entries',
      'CREATE TABLE more (id INT)',
      'TRUNCATE entries'
    ])
      await expect(connection.query(statement), statement).rejects.toMatchObject({
        code: expect.stringMatching(/^ER_TABLEACCESS_DENIED_ERROR|ER_DBACCESS_DENIED_ERROR$/)
      })
    await connection.end()
  })

  it('is granted once what it has, and again what was taken from it', async () => {
    await root.query(`REVOKE INSERT ON \`${name()}\`.homes FROM '${runner()}'@'127.0.0.1'`)
    const changed = async () => {
      const [rows] = await root.query("SHOW GLOBAL STATUS LIKE 'Com_grant'")
      return Number((rows as { Value: string }[])[0]!.Value)
    }
    const before = await changed()
    await grantRunning(settings.MIGRATE_URL!, settings.DATABASE_URL!)
    await grantRunning(settings.MIGRATE_URL!, settings.DATABASE_URL!)
    expect((await changed()) - before).toBe(1)
    const isolde = await Caller.at(running.address, 'isolde')
    await openAVisit(isolde)
  })

  it('that may do more than it needs is told of, and nothing starts', async () => {
    await root.query(`GRANT DELETE ON \`${name()}\`.* TO '${runner()}'@'127.0.0.1'`)
    await expect(makeServices(readConfig(settings))).rejects.toThrow(/may do more than it needs \(DELETE\)/)
    await root.query(`REVOKE DELETE ON \`${name()}\`.* FROM '${runner()}'@'127.0.0.1'`)
  })
})
