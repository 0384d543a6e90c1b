import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { opened, complete } from '@pasado/testing/logbook'
import { startMariaDb } from '../../scripts/mariadb'
import { readConfig } from '../src/config'
import { migrate } from '../src/db/migrate'
import { isAway, rows, transactionOn } from '../src/db/pool'
import { toHttp } from '../src/http/problem'
import { refused, type DomainProblem } from '../src/problem'
import { mustNotLeak } from '../src/logbook/guards'
import { searchWords, termsOf, wordsOf } from '../src/db/terms'
import { lockSecrets, openValue, printOf, sealValue, unlockSecrets } from '../src/vault/envelope'
import { companyKeys, masterKeyFrom, signText } from '../src/vault/master-key'
import { sealSignatureHolds } from '@pasado/core/record/seal'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'
import { freePort } from '@pasado/testing/database'

const folder = mkdtempSync(join(tmpdir(), 'pasado-parts-'))

describe('settings', () => {
  const whole = { DATABASE_URL: 'mysql://a:b@127.0.0.1:3306/c', KEY_FILE: '/k' }

  it('have defaults', () =>
    expect(readConfig(whole)).toMatchObject({ HOST: '127.0.0.1', PORT: 4180, TRUST_PROXY: '0', LOG_LEVEL: 'info' }))

  it.each([
    ['PORT', 'abc', 'PORT: must be a whole number'],
    ['PORT', '70000', 'PORT'],
    ['DATABASE_URL', 'postgres://x', 'DATABASE_URL'],
    ['MASTER_KEY', 'short', 'MASTER_KEY'],
    ['LOG_LEVEL', 'loud', 'LOG_LEVEL'],
    ['PUBLIC_URL', 'nowhere', 'PUBLIC_URL']
  ])('%s=%s is named', (name, value, said) => {
    expect(() => readConfig({ ...whole, [name]: value })).toThrow(said)
  })

  it('a wrong value is never repeated', () => {
    try {
      readConfig({ ...whole, MASTER_KEY: 'nearly-a-key' })
    } catch (error) {
      expect((error as Error).message).not.toContain('nearly-a-key')
    }
  })
})

describe('keys', () => {
  it('is one key for however many start at the same moment, and no half of one is ever there to be read', async () => {
    for (let round = 0; round < 10; round++) {
      const own = mkdtempSync(join(tmpdir(), 'pasado-keys-'))
      const file = join(own, 'key')
      const making = Promise.all(Array.from({ length: 4 }, () => masterKeyFrom(file)))
      const read: string[] = []
      let isMade = false
      void making.finally(() => (isMade = true))
      while (!isMade) {
        if (existsSync(file)) read.push(readFileSync(file, 'utf8'))
        await new Promise((resolve) => setImmediate(resolve))
      }
      read.push(readFileSync(file, 'utf8'))
      expect(new Set((await making).map((key) => `${key.toString('hex')}\n`))).toEqual(new Set(read))
      expect(readdirSync(own)).toEqual(['key'])
      rmSync(own, { recursive: true })
    }
  })

  it('a key file is made once, for its owner only, and others’ reading is refused', async () => {
    const file = join(folder, 'deep', 'key')
    const made = await masterKeyFrom(file)
    expect([statSync(file).mode & 0o777, made.length]).toEqual([0o600, 32])
    expect((await masterKeyFrom(file)).equals(made)).toBe(true)
    chmodSync(file, 0o644)
    await expect(masterKeyFrom(file)).rejects.toThrow('chmod 600')
    chmodSync(file, 0o600)
    writeFileSync(file, 'cut short')
    await expect(masterKeyFrom(file)).rejects.toThrow('64 hexadecimal digits')
  })

  it('each key of a company is another, the same at each start, and another company’s are others', () => {
    const [first, again, other] = [
      companyKeys(Buffer.alloc(32, 1)),
      companyKeys(Buffer.alloc(32, 1)),
      companyKeys(Buffer.alloc(32, 2))
    ]
    expect([first.publicKey, first.wrap.toString('hex')]).toEqual([again.publicKey, again.wrap.toString('hex')])
    expect(
      new Set(
        [first, other].flatMap(({ wrap, print, publicKey }) => [wrap.toString('hex'), print.toString('hex'), publicKey])
      ).size
    ).toBe(6)
  })

  it('what the server signs, the core proves', () => {
    const keys = companyKeys(Buffer.alloc(32, 3))
    const parts = {
      chain: '0'.repeat(64),
      record: '1'.repeat(64),
      standard: '2'.repeat(64),
      catalogue: '3'.repeat(64),
      key: keys.keyName
    }
    const text = JSON.stringify({
      catalogue: parts.catalogue,
      chain: parts.chain,
      format: 'pasado.seal/1',
      key: parts.key,
      record: parts.record,
      standard: parts.standard,
      visit: 'v'
    })
    expect(sealSignatureHolds('v', { ...parts, signature: signText(keys, text) }, keys.publicKey)).toBe(true)
  })
})

describe('the vault’s envelope', () => {
  const key = Buffer.alloc(32, 5)

  it('opens with its key and context only, and never looks the same twice', () => {
    const [first, two] = [0, 1].map(() => sealValue(key, Buffer.from('demo-secret'), 'visit/ref'))
    expect(first!.equals(two!)).toBe(false)
    expect(openValue(key, first!, 'visit/ref').toString()).toBe('demo-secret')
    expect(() => openValue(key, first!, 'visit/other')).toThrow()
    expect(() => openValue(Buffer.alloc(32, 6), first!, 'visit/ref')).toThrow()
    first![first!.length - 1]! ^= 1
    expect(() => openValue(key, first!, 'visit/ref')).toThrow()
  })

  it('prints are equal for equal secrets under one key only', () => {
    expect(printOf(key, 'a').equals(printOf(key, 'a'))).toBe(true)
    expect(printOf(key, 'a').equals(printOf(Buffer.alloc(32, 6), 'a'))).toBe(false)
  })

  it('an export’s secrets open with their passphrase, for their visit', async () => {
    const locked = await lockSecrets('gulls over the harbour', 'v', { a: 1 })
    expect(JSON.stringify(locked)).not.toContain('gulls')
    expect(await unlockSecrets('gulls over the harbour', 'v', locked)).toEqual({ a: 1 })
    await expect(unlockSecrets('gulls over the harbou', 'v', locked)).rejects.toThrow()
    await expect(unlockSecrets('gulls over the harbour', 'w', locked)).rejects.toThrow()
  })
})

describe('finding words', () => {
  it.each([
    ['Oskerry ferry', ['oskerry', 'ferry']],
    ['00:00:5E:00:53:21', ['00005e005321']],
    ['00-00-5e', ['00005e']],
    ['FL3-0452-7KQ8', ['fl304527kq8']],
    ['Café Åse', ['cafe', 'ase']],
    ['  ', []]
  ])('%j', (query, words) => expect(searchWords(query)).toEqual(words))

  it('terms are those of the home and of what stands there now', () => {
    const terms = termsOf(complete().record()).map(({ term, what }) => `${what} ${term}`)
    expect(terms).toEqual([
      'customer cressa',
      'customer oakum',
      'street 6',
      'street trawl',
      'street street',
      'town ness',
      'town skerrow',
      'serial he11',
      'mac 00005e005301',
      'serial te12',
      'mac 00005e005302'
    ])
    expect(termsOf(opened().record()).some(({ what }) => what === 'serial')).toBe(false)
    expect(wordsOf('Ann-Marie’s')).toEqual(['ann', 'marie', 's'])
  })
})

it('a secret is looked for at every depth, and named by its place without being said', () => {
  const drafts = [draft('v', 'unit.set', { id: uuidv7(), set: { needsReady: ['fine', 'it is demo-hidden-42'] } })]
  try {
    mustNotLeak(drafts, ['demo-hidden-42', 'short'])
    expect.unreachable()
  } catch (error) {
    expect(toHttp(error as DomainProblem).errors).toMatchObject([{ pointer: '/entries/0/body/set/needsReady/1' }])
    expect(JSON.stringify(toHttp(error as DomainProblem).toDocument())).not.toContain('demo-hidden-42')
  }
  expect(() => mustNotLeak([draft('v', 'note.written', { text: 'a short note' })], ['short'])).not.toThrow()
})

it('a problem document points into what was sent', () => {
  expect(toHttp(refused([{ path: ['entries', 0, 'a/b~c'], message: 'is odd' }])).toDocument()).toMatchObject({
    status: 422,
    errors: [{ pointer: '/entries/0/a~1b~0c', field: 'entries[0]["a/b~c"]', detail: 'is odd' }]
  })
  expect(isAway({ code: 'ECONNREFUSED' }) && !isAway({ code: 'ER_DUP_ENTRY' }) && !isAway(null)).toBe(true)
})

describe('on a database', () => {
  let company: Awaited<ReturnType<typeof startCompany>>
  beforeAll(async () => {
    company = await startCompany()
  })
  afterAll(() => company.stop())

  it('migrations run once each, also when two processes start at once', async () => {
    expect(await Promise.all([migrate(company.database.url), migrate(company.database.url)])).toEqual([
      { ran: [], rebuild: false },
      { ran: [], rebuild: false }
    ])
  })

  it('a transaction that fails half way leaves nothing', async () => {
    const { db } = company.services
    const count = async () => (await rows<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM models'))[0]!.many
    const before = await count()
    await expect(
      transactionOn(db, null, async (connection, _, last) => {
        await connection.query("INSERT INTO models (id, version, doc) VALUES ('x', 1, '{}')")
        last({ sql: "INSERT INTO models (id, version, doc) VALUES ('y', 1, '{}')", params: [] })
        last({ sql: "INSERT INTO models (id, version, doc) VALUES ('x', 1, '{}')", params: [] })
      })
    ).rejects.toMatchObject({ code: 'ER_DUP_ENTRY' })
    expect(await count()).toBe(before)
  })

  it('every list and search goes by an index', async () => {
    const { db } = company.services
    const queries: [string, (string | number)[]][] = [
      ['SELECT * FROM visits WHERE technician_id = ? AND sealed_at IS NULL ORDER BY planned_at, id LIMIT 200', ['x']],
      ['SELECT * FROM visits WHERE home_id = ? ORDER BY opened_at DESC, id DESC LIMIT 200', ['x']],
      ["SELECT * FROM visits WHERE review = 'asked' AND sealed_at IS NULL ORDER BY planned_at, id LIMIT 200", []],
      [
        'SELECT DISTINCT h.id FROM home_terms t JOIN homes h ON h.id = t.home_id WHERE t.term LIKE ? ORDER BY h.street, h.id LIMIT 50',
        ['ab%']
      ],
      ['SELECT doc FROM entries WHERE visit_id = ? AND seq > ? ORDER BY seq', ['x', 1]],
      ['SELECT 1 FROM vault_secrets WHERE company_print = ? LIMIT 1', ['x']],
      ['SELECT * FROM sessions WHERE token_hash = ?', ['x']]
    ]
    for (const [sql, params] of queries) {
      const plan = await rows<{ table: string; type: string; key: string | null }>(db, `EXPLAIN ${sql}`, params)
      for (const { type, key } of plan) expect([type !== 'ALL' || key !== null, sql]).toEqual([true, sql])
    }
  })

  it('a visit is opened once, however often it is asked for', async () => {
    const caller = await Caller.as(company.running, 'isolde')
    const visit = await openAVisit(caller)
    const [found] = await rows<{ home_id: string }>(company.services.db, 'SELECT home_id FROM visits WHERE id = ?', [
      visit
    ])
    const again = {
      id: visit,
      home: uuidv7(),
      customer: uuidv7(),
      technician: uuidv7(),
      brief: { customerName: 'A', street: 'B', town: 'C' }
    }
    expect((await caller.call('POST', '/visits', again)).status).toBe(422)
    expect(found).toBeDefined()
    expect(
      (
        await caller.call('POST', `/visits/${visit}/entries`, {
          entries: [draft(uuidv7(), 'note.written', { text: 'x' })]
        })
      ).status
    ).toBe(422)
    for (const path of [`/visits/${uuidv7()}`, `/homes/${uuidv7()}`, '/nowhere'])
      expect((await caller.call('GET', path)).status).toBe(404)
    expect((await caller.call('GET', '/visits/not-an-id')).status).toBe(422)
  })
})

it('a database that a crashed start left running is found and used again, and can be stopped', async () => {
  const own = mkdtempSync(join(tmpdir(), 'pasado-left-'))
  const port = await freePort()
  const first = await startMariaDb(own, port)
  expect(existsSync(join(own, 'init.sql'))).toBe(false)
  const second = await startMariaDb(own, port)
  expect([first.wasRunning, second.wasRunning]).toEqual([false, true])
  const pid = Number(readFileSync(join(own, 'mariadb.pid'), 'utf8'))
  await second.stop()
  // Ended, it stays in the table of processes until its parent, this one, has taken note.
  await vi.waitFor(() => expect(() => process.kill(pid, 0)).toThrow(), { timeout: 5_000 })
})
