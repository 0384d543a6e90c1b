import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { randomBytes } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable, type Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { demoVisits } from '@pasado/demo/all'
import { isolde as isoldeHerself } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { backUp, type BackupOptions } from '../src/backup/backup'
import { restore, type RestoreOptions } from '../src/backup/restore'
import { NotOpened, opening, sealing } from '../src/backup/sealed-stream'
import { settleSecrets } from '../src/backup/settle-secrets'
import { openPool, rows, run } from '../src/db/pool'
import { checkAll } from '../src/logbook/check-all'
import { eraseSecrets } from '../src/logbook/secrets'
import { serverAuthor } from '../src/logbook/server-author'
import { setSeal } from '../src/logbook/visits'
import { eraseDue } from '../src/vault/erase-due'
import { renewEpochs } from '../src/vault/epochs'
import { companyKeys, masterKeyFrom } from '../src/vault/master-key'
import { rotateMasterKey } from '../src/vault/rotate'
import { EpochStore } from '../src/vault/epoch-store'
import { copyOfKeys, putKeysBack, readKeysCopy, writeKeysCopy } from '../src/backup/keys-copy'
import { SecretsErased } from '../src/vault/vault'
import type { Services } from '../src/services'
import { Caller, companyOn, draft, openAVisit, servicesOn } from '@pasado/testing/company'
import { ownMariaDb } from '@pasado/testing/database'

const DAY = 24 * 3_600_000
const value = 'demo-lantern-on-the-quay-8'
const to = { passphrase: 'demo: tide table behind the door' }
const work = mkdtempSync(join(tmpdir(), 'pasado-backup-'))
const at = (name: string) => join(work, name)

let company: Awaited<ReturnType<typeof companyOn<Awaited<ReturnType<typeof ownMariaDb>>>>>
let isolde: Caller
beforeAll(async () => {
  company = await companyOn(() => ownMariaDb(true))
  isolde = await Caller.as(company.running, 'isolde')
  await loadVisits(company.services, demoVisits().slice(0, 3), new Date())
}, 60_000)
afterAll(async () => {
  await company.stop()
  rmSync(work, { recursive: true, force: true })
})

/** A visit with a passphrase and an admin password; sealed where it says who keeps them. */
async function visitWithSecrets(custody?: Record<string, unknown>) {
  const visit = await openAVisit(isolde)
  const [unit, network, wifi, admin] = [uuidv7(), uuidv7(), uuidv7(), uuidv7()]
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [
      draft(visit, 'unit.set', { id: unit, set: { name: 'Router' } }),
      draft(visit, 'network.set', { id: network, set: { ssid: 'Razorbill' } }),
      ...(custody ? [draft(visit, 'custody.answered', custody as { custody: 'company-keeps' })] : [])
    ]
  })
  const secrets = [
    { ref: wifi, purpose: 'wifi-passphrase', thing: 'network', id: network, origin: 'typed', value },
    { ref: admin, purpose: 'admin-password', thing: 'unit', id: unit, origin: 'typed', value: `${value}-admin` }
  ]
  for (const secret of secrets) await isolde.call('POST', `/visits/${visit}/secrets`, secret)
  const { logbook } = company.services
  if (custody) await logbook.write(visit, new Date(), (open) => setSeal(logbook, open, serverAuthor))
  return { visit, wifi, admin }
}

const backup = async (more: Partial<BackupOptions> = {}) =>
  backUp({
    db: company.services.db,
    url: company.database.url,
    master: await masterKeyFrom(company.services.config.KEY_FILE),
    store: company.services.epochs,
    folder: at('backups'),
    keysFile: at('keys.sealed'),
    to,
    ...more
  })

/** Puts a backup into a MariaDB of its own, and tells what is there then. */
async function putBack<T>(
  options: Pick<RestoreOptions, 'folder'> & Partial<RestoreOptions>,
  look: (services: Services) => Promise<T>
): Promise<T> {
  const target = await ownMariaDb()
  try {
    const keyFile = join(target.folder, 'key')
    const { sheet, keys } = await restore({
      url: target.url,
      keysFile: at('keys.sealed'),
      to,
      keyFile,
      epochFile: `${keyFile}.epochs`,
      ...options
    })
    const services = await servicesOn(target.url, keyFile)
    try {
      await settleSecrets(services, keys, sheet.at)
      return await look(services)
    } finally {
      await services.followUp.close()
      await services.db.end()
    }
  } finally {
    await target.drop()
  }
}

const linesOf = ({ db }: Services) =>
  rows<{ id: string; hash: string }>(db, 'SELECT id, MD5(doc) AS hash FROM entries ORDER BY visit_id, seq')
const opened = (services: Services, visit: string, ref: string) =>
  services.vault.open(services.db, visit, ref).then(
    (secret) => secret?.value,
    (error: Error) => error.constructor
  )

describe('a drill: backed up under load, destroyed, put back', () => {
  let kept: Awaited<ReturnType<typeof visitWithSecrets>>
  let gone: typeof kept
  let partly: typeof kept
  let first: Awaited<ReturnType<typeof backup>>
  const binaryLogs: string[] = []
  let moment: Date
  let before: Awaited<ReturnType<typeof linesOf>>
  const written: string[] = []

  beforeAll(async () => {
    kept = await visitWithSecrets()
    gone = await visitWithSecrets()
    partly = await visitWithSecrets({ custody: 'company-keeps', keeps: ['admin-password'], until: '2999-01-01' })
    // Somebody writes all the while.
    let isWriting = true
    const writing = (async () => {
      for (let at = 0; isWriting; at++) {
        const entry = draft(kept.visit, 'unit.set', { id: uuidv7(), set: { name: `Unit ${at}` } })
        const { status } = await isolde.call('POST', `/visits/${kept.visit}/entries`, { entries: [entry] })
        if (status < 300) written.push(entry.id)
      }
    })()
    first = await backup()
    isWriting = false
    await writing
    // After it: some is erased, and the day after no copy of the old keys opens anything.
    const { services } = company
    await eraseSecrets(services.logbook, gone.visit, 'asked for', isoldeHerself)
    await eraseDue(services, new Date(Date.now() + 40 * DAY))
    for (const days of [1, 2])
      await renewEpochs({
        db: services.db,
        url: company.database.url,
        store: services.epochs,
        mayBegin: true,
        now: new Date(Date.now() + days * DAY)
      })
    await backup({ now: new Date(Date.now() + 60_000) })
    await new Promise((resolve) => setTimeout(resolve, 1_200))
    moment = new Date()
    before = await linesOf(services)
    await new Promise((resolve) => setTimeout(resolve, 1_200))
    await isolde.call('POST', `/visits/${kept.visit}/entries`, {
      entries: [draft(kept.visit, 'unit.set', { id: uuidv7(), set: { name: 'Too late' } })]
    })
    const data = join(company.database.folder, 'mariadb')
    const logs = readdirSync(data).filter((name) => /^binlog\.\d+$/.test(name))
    for (const name of logs.sort()) {
      cpSync(join(data, name), at(name))
      binaryLogs.push(at(name))
    }
  }, 120_000)

  it('all that was acknowledged before it was begun is there, whole; what lives opens, what was erased since is erased', async () => {
    const found = await putBack({ folder: first.folder }, async (services) => ({
      lines: await linesOf(services),
      faults: await checkAll(services.logbook),
      kept: [await opened(services, kept.visit, kept.wifi), await opened(services, kept.visit, kept.admin)],
      gone: await opened(services, gone.visit, gone.wifi),
      partly: [await opened(services, partly.visit, partly.wifi), await opened(services, partly.visit, partly.admin)],
      said: await rows<{ kind: string }>(
        services.db,
        "SELECT visit_id AS visit, JSON_VALUE(doc, '$.kind') AS kind FROM entries WHERE JSON_VALUE(doc, '$.kind') = 'secrets.erased' AND visit_id IN (?, ?, ?) ORDER BY visit_id",
        [kept.visit, gone.visit, partly.visit]
      )
    }))
    expect(found.faults).toEqual([])
    const there = new Map(found.lines.map(({ id, hash }) => [id, hash]))
    expect(there.size).toBeGreaterThanOrEqual(first.sheet.lines)
    // As they were, each with its hash; what the restore says stands behind them.
    const shared = before.filter(({ id }) => there.has(id))
    expect(shared.length).toBeGreaterThanOrEqual(first.sheet.lines)
    expect(shared.filter(({ id, hash }) => there.get(id) !== hash)).toEqual([])
    expect(found.kept).toEqual([value, `${value}-admin`])
    expect(found.gone).toBe(SecretsErased)
    // Its kept one went under another key when the rest was erased: that of the backup is gone for good.
    expect(found.partly).toEqual([SecretsErased, SecretsErased])
    expect(found.said).toEqual([gone.visit, partly.visit].sort().map((visit) => ({ visit, kind: 'secrets.erased' })))
  }, 120_000)

  it('with the binary log all stands as it did at a moment after it, every line, and the secret that was kept as well', async () => {
    expect(first.sheet.position).not.toBeNull()
    const found = await putBack({ folder: first.folder, binaryLogs, until: moment }, async (services) => ({
      lines: await linesOf(services),
      faults: await checkAll(services.logbook),
      kept: await opened(services, kept.visit, kept.wifi),
      gone: await opened(services, gone.visit, gone.wifi),
      partly: [await opened(services, partly.visit, partly.wifi), await opened(services, partly.visit, partly.admin)]
    }))
    expect(found.lines).toEqual(before)
    expect(found.faults).toEqual([])
    expect(written.filter((id) => !found.lines.some((line) => line.id === id))).toEqual([])
    expect(written.length).toBeGreaterThan(0)
    expect(found).toMatchObject({
      kept: value,
      gone: SecretsErased,
      partly: [SecretsErased, `${value}-admin`]
    })
  }, 120_000)

  it('an old backup with the old keys opens nothing that was erased since, for there are no old keys', () => {
    const names = readdirSync(work).filter((name) => name.startsWith('keys'))
    expect(names).toEqual(['keys.sealed'])
  })

  it('no secret and no key stands in a backup as it is', () => {
    const all = readdirSync(first.folder).map((name) => readFileSync(join(first.folder, name)))
    for (const part of [value, 'Razorbill', readFileSync(company.services.config.KEY_FILE, 'utf8').trim()])
      expect(all.some((file) => file.includes(part))).toBe(false)
  })

  it('what is not whole, altered, or sealed otherwise is refused before anything is written', async () => {
    const target = await ownMariaDb()
    try {
      const keyFile = join(target.folder, 'key')
      const attempt = (more: Partial<RestoreOptions>) =>
        restore({
          url: target.url,
          folder: first.folder,
          keysFile: at('keys.sealed'),
          to,
          keyFile,
          epochFile: `${keyFile}.epochs`,
          ...more
        })
      await expect(attempt({ to: { passphrase: 'demo: another one' } })).rejects.toThrow(NotOpened)
      await expect(attempt({ folder: at('nothing') })).rejects.toThrow('no backup that was finished')
      const bent = at('bent')
      cpSync(first.folder, bent, { recursive: true })
      const dump = join(bent, 'database.sql.gz.sealed')
      const whole = readFileSync(dump)
      const altered = Buffer.from(whole)
      altered[whole.length >> 1]! ^= 1
      writeFileSync(dump, altered)
      await expect(attempt({ folder: bent })).rejects.toThrow(NotOpened)
      writeFileSync(dump, whole.subarray(0, whole.length - 3))
      await expect(attempt({ folder: bent })).rejects.toThrow(NotOpened)
      writeFileSync(join(target.folder, 'other'), 'b'.repeat(64), { mode: 0o600 })
      await expect(attempt({ keyFile: join(target.folder, 'other') })).rejects.toThrow('another master key')
      const db = openPool(target.url, 1)
      expect(await rows(db, 'SHOW TABLES')).toEqual([])
      await run(db, 'CREATE TABLE somebodys (a INT)')
      await db.end()
      await expect(attempt({})).rejects.toThrow('not empty')
      expect(readdirSync(target.folder)).not.toContain('key')
    } finally {
      await target.drop()
    }
  }, 60_000)

  it('keys whose files are gone come back from the copy', async () => {
    const keyFile = join(mkdtempSync(join(tmpdir(), 'pasado-back-')), 'key')
    const copy = await readKeysCopy(at('keys.sealed'), to)
    expect(await putKeysBack(copy, keyFile, `${keyFile}.epochs`)).toBeGreaterThan(0)
    expect(readFileSync(keyFile, 'utf8')).toBe(readFileSync(company.services.config.KEY_FILE, 'utf8'))
    await (await servicesOn(company.database.url, keyFile)).db.end()
    expect(await putKeysBack(copy, keyFile, `${keyFile}.epochs`)).toBe(0)
  })

  it('a backup from before the master key was changed goes with the keys of after', async () => {
    const { services } = company
    const next = randomBytes(32)
    await rotateMasterKey(services.db, await masterKeyFrom(services.config.KEY_FILE), next, services.epochs.file)
    await writeKeysCopy(
      at('keys.after'),
      await copyOfKeys(services.db, next, new EpochStore(services.epochs.file, companyKeys(next).wrap), new Date()),
      to
    )
    const found = await putBack({ folder: first.folder, keysFile: at('keys.after') }, async (restored) => ({
      key: restored.keys.keyName,
      kept: await opened(restored, kept.visit, kept.wifi),
      gone: await opened(restored, gone.visit, gone.wifi),
      // The same passphrase in two homes is found by its print, as before.
      prints: await rows(
        restored.db,
        'SELECT DISTINCT company_print FROM vault_secrets WHERE id IN (?, ?) AND LENGTH(sealed_value) > 0',
        [kept.wifi, kept.admin]
      )
    }))
    expect(found).toMatchObject({ key: companyKeys(next).keyName, kept: value, gone: SecretsErased })
    expect(found.prints).toHaveLength(2)
  }, 60_000)
})

describe('a sealed file', () => {
  const key = { key: Buffer.alloc(32, 3) }
  const through = async (stream: Transform, parts: readonly Buffer[]): Promise<Buffer> => {
    const out: Buffer[] = []
    await pipeline(Readable.from(parts), stream, async (source) => {
      for await (const part of source) out.push(part as Buffer)
    })
    return Buffer.concat(out)
  }

  it('opens as it was, however it is cut on its way, and not where any of it is missing, changed or repeated', async () => {
    const text = fc
      .tuple(fc.uint8Array({ maxLength: 40 }), fc.nat(150_000))
      .map(([head, many]) => Buffer.concat([head, Buffer.alloc(many, 7)]))
    await fc.assert(
      fc.asyncProperty(text, fc.integer({ min: 1, max: 70_000 }), fc.nat(), async (value, step, where) => {
        const cut = (whole: Buffer) =>
          Array.from({ length: Math.ceil(whole.length / step) }, (_, index) =>
            whole.subarray(index * step, (index + 1) * step)
          )
        const sealed = await through(await sealing(key), cut(value))
        expect((await through(opening(key), cut(sealed))).equals(value)).toBe(true)
        const place = where % sealed.length
        await expect(through(opening(key), cut(sealed.subarray(0, place)))).rejects.toThrow()
        const changed = Buffer.from(sealed)
        changed[place]! ^= 1
        await expect(through(opening(key), cut(changed))).rejects.toThrow()
        await expect(through(opening(key), [sealed, sealed.subarray(32)])).rejects.toThrow()
      }),
      { numRuns: 25 }
    )
  }, 60_000)
})
