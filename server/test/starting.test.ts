import { randomBytes } from 'node:crypto'
import { existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import pino from 'pino'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { loadCompany, loadVisits } from '../../scripts/load-demo'
import { readConfig } from '../src/config'
import { migrate, statementsOf } from '../src/db/migrate'
import { row, rows, run } from '../src/db/pool'
import { makeServices, serve } from '../src/server'
import { Caller, servicesOn } from '@pasado/testing/company'
import { databaseOn, ownMariaDb } from '@pasado/testing/database'

let database: Awaited<ReturnType<typeof ownMariaDb>>
beforeAll(async () => {
  database = await ownMariaDb()
})
afterAll(() => database.drop())

/** Another empty database on the same MariaDB. */
const another = (name: string) => databaseOn(database, name)
const connect = (url: string) => mysql.createConnection({ uri: url, multipleStatements: false, timezone: 'Z' })

describe('migrations', () => {
  it('that were stopped at whatever statement go on from there', async () => {
    const whole = await another('whole')
    await migrate(whole)
    const shape = async (url: string) => {
      const connection = await connect(url)
      const [found] = await connection.query<mysql.RowDataPacket[]>(
        'SELECT table_name, column_name, column_type FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY 1, 2'
      )
      await connection.end()
      return JSON.stringify(found)
    }
    const wanted = await shape(whole)
    const { readFileSync, readdirSync } = await import('node:fs')
    const folder = join(import.meta.dirname, '../src/db/migrations')
    const files = readdirSync(folder).sort()
    // Stopped in the middle of a file, as an earlier program left it: no statement noted. Those of the last releases, and every third of those before, which stay as they are.
    let count = 0
    for (const [at, file] of files.entries()) {
      if (at < files.length - 3 && at % 3 !== 0) continue
      const statements = statementsOf(readFileSync(join(folder, file), 'utf8'))
      if (statements.length < 2) continue
      const url = await another(`stopped_${count++}`)
      const connection = await connect(url)
      await connection.query(
        'CREATE TABLE migrations (name VARCHAR(100) NOT NULL PRIMARY KEY, ran_at DATETIME(3) NOT NULL) ENGINE=InnoDB'
      )
      for (const before of files.slice(0, at)) {
        for (const statement of statementsOf(readFileSync(join(folder, before), 'utf8')))
          await connection.query(statement)
        await connection.query('INSERT INTO migrations (name, ran_at) VALUES (?, NOW())', [before])
      }
      for (const statement of statements.slice(0, Math.ceil(statements.length / 2))) await connection.query(statement)
      await connection.end()
      expect((await migrate(url)).ran).toEqual(files.slice(at))
      expect(await shape(url)).toBe(wanted)
    }
    expect(count).toBeGreaterThan(3)
  })

  it('two at once run each once', async () => {
    const url = await another('twice')
    const [first, two] = await Promise.all([migrate(url), migrate(url)])
    expect([first.ran.length, two.ran.length].sort((a, b) => a - b)[0]).toBe(0)
  })

  it('of a later program that this one cannot run beside are told of, and nothing is written', async () => {
    const url = await another('later')
    await migrate(url)
    const connection = await connect(url)
    await connection.query("INSERT INTO migrations (name, ran_at, oldest) VALUES ('099_later.sql', NOW(), 98)")
    await expect(migrate(url)).rejects.toThrow(/set up by a later Pasado, beside which this one .* cannot run/)
    await connection.query("UPDATE migrations SET oldest = 5 WHERE name = '099_later.sql'")
    expect((await migrate(url)).ran).toEqual([])
    await connection.query(
      "UPDATE migration_statements SET checksum = REPEAT('0', 64) WHERE name = '010_what_was_said.sql' AND number = 1"
    )
    await connection.query("DELETE FROM migrations WHERE name = '010_what_was_said.sql'")
    await expect(migrate(url)).rejects.toThrow(/statement 1 ran as another one/)
    await connection.end()
  })
})

describe('the master key', () => {
  it('of another company does not start, makes no key file of its own, and changes nothing', async () => {
    const url = await another('company_keys')
    const key = join(database.folder, 'right-key')
    const services = await servicesOn(url, key)
    await loadCompany(services, new Date())
    await loadVisits(services, demoVisits().slice(0, 1), new Date())
    await services.db.end()
    const other = join(database.folder, 'other-key')
    await expect(servicesOn(url, other)).rejects.toThrow(/there is no key file/)
    expect(existsSync(other)).toBe(false)
    writeFileSync(other, randomBytes(32).toString('hex'), { mode: 0o600 })
    await expect(servicesOn(url, other)).rejects.toThrow(
      /is not the master key of this database’s company|is not the master key of this database's company/
    )
    await expect(
      makeServices(
        readConfig({ DATABASE_URL: url, KEY_FILE: key, MASTER_KEY: '7'.repeat(64), LOG_LEVEL: 'silent' }),
        pino({ level: 'silent' })
      )
    ).rejects.toThrow(/MASTER_KEY/)
    // One from before it was noted whose key it is: what the vault holds tells.
    const connection = await connect(url)
    await connection.query("DELETE FROM company_facts WHERE name = 'key-print'")
    await expect(servicesOn(url, other)).rejects.toThrow(/is not the master key/)
    const again = await servicesOn(url, key)
    expect((await rows(again.db, 'SELECT 1 FROM seal_keys')).length).toBe(1)
    await again.db.end()
    await connection.end()
  })
})

describe('how a process is', () => {
  it('not ready while the database is behind, has another key, or is away; alive all the same', async () => {
    const url = await another('health')
    const services = await servicesOn(url, join(database.folder, 'health-key'))
    const running = await serve(services)
    const ask = async (path: string) => {
      const response = await fetch(running.address + path)
      return {
        status: response.status,
        body: (await response.json()) as Record<string, string>,
        retry: response.headers.get('retry-after')
      }
    }
    try {
      expect((await ask('/readyz')).status).toBe(200)
      await run(services.db, "DELETE FROM migrations WHERE name = '010_what_was_said.sql'")
      expect(await ask('/readyz')).toMatchObject({
        status: 503,
        retry: '2',
        body: { database: 'ok', migrations: 'behind' }
      })
      await run(services.db, "INSERT INTO migrations (name, ran_at) VALUES ('010_what_was_said.sql', NOW())")
      await run(services.db, "UPDATE company_facts SET value = 'another'")
      expect(await ask('/readyz')).toMatchObject({ status: 503, body: { key: 'another company’s' } })
      services.stopping = true
      expect((await ask('/readyz')).body.process).toBe('stopping')
      services.stopping = false
      await services.db.end()
      expect(await ask('/readyz')).toMatchObject({ status: 503, body: { database: 'away' } })
      expect(await ask('/healthz')).toMatchObject({ status: 200, body: { status: 'ok' } })
    } finally {
      running.close().catch(() => undefined)
    }
  })
})

describe('behind a proxy', () => {
  it('with TLS that says nothing of it, logging in works and the cookie is Secure; a forged header counts for nothing', async () => {
    const url = await another('proxied')
    const services = await makeServices(
      readConfig({
        DATABASE_URL: url,
        KEY_FILE: join(database.folder, 'proxied-key'),
        PORT: '0',
        PUBLIC_URL: 'https://pasado.example.org',
        TRUST_PROXY: '1',
        LOG_LEVEL: 'silent'
      }),
      pino({ level: 'silent' })
    )
    await loadCompany(services, new Date())
    const running = await serve(services)
    try {
      const caller = new Caller(running.address)
      const { status, headers } = await caller.call('POST', '/session', {
        login: 'isolde',
        password: 'skerrow-demo-lantern'
      })
      expect([status, headers.getSetCookie()[0]]).toEqual([200, expect.stringMatching(/secure/i)])
      const answers: number[] = []
      for (let turn = 0; turn < 64; turn++)
        answers.push(
          (
            await new Caller(running.address).call(
              'POST',
              '/session',
              { login: `nobody${turn}`, password: 'x' },
              { 'x-forwarded-for': `10.9.${turn}.1, 203.0.113.7` }
            )
          ).status
        )
      expect(answers.filter((answer) => answer === 429).length).toBeGreaterThan(0)
      expect(
        (
          await new Caller(running.address).call(
            'POST',
            '/session',
            { login: 'nobody', password: 'x' },
            { 'x-forwarded-for': 'z'.repeat(4000) }
          )
        ).status
      ).toBe(401)
    } finally {
      await running.close()
    }
  })
})

it('what a migration adds is filled without anybody asking for a rebuild', async () => {
  const url = await another('filled')
  const key = join(database.folder, 'filled-key')
  const services = await servicesOn(url, key)
  await loadCompany(services, new Date())
  await loadVisits(services, demoVisits().slice(0, 2), new Date())
  // As a database stood before its homes had telephones, and its sealed visits kept verdicts.
  await run(services.db, 'UPDATE homes SET phone = NULL')
  await run(services.db, 'DELETE FROM sealed_verdicts')
  await run(services.db, "UPDATE migrations SET rebuild_due = TRUE WHERE name = '010_what_was_said.sql'")
  await services.db.end()
  const again = await servicesOn(url, key)
  expect((await row<{ many: number }>(again.db, 'SELECT COUNT(*) AS many FROM homes WHERE phone IS NULL'))!.many).toBe(
    0
  )
  expect(
    (await row<{ many: number }>(
      again.db,
      'SELECT COUNT(*) AS many FROM visits v LEFT JOIN sealed_verdicts k ON k.visit_id = v.id WHERE v.sealed_at IS NOT NULL AND k.visit_id IS NULL'
    ))!.many
  ).toBe(0)
  expect(
    (await row<{ many: number }>(again.db, 'SELECT COUNT(*) AS many FROM migrations WHERE rebuild_due'))!.many
  ).toBe(0)
  await again.db.end()
})
