import { mkdtempSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { livingEpochs } from '../src/db/key-epochs'
import { rows, run } from '../src/db/pool'
import { wrappedKey } from '../src/db/vault-keys'
import { eraseSecrets } from '../src/logbook/secrets'
import { openValue } from '../src/vault/envelope'
import { EpochMissing, EpochStore } from '../src/vault/epoch-store'
import { SecretsErased } from '../src/vault/vault'
import { renewEpochs, type EpochOptions } from '../src/vault/epochs'
import { Caller, openAVisit, servicesOn, startCompany } from '@pasado/testing/company'
import { isolde as isoldeHerself } from '@pasado/demo/company'

const DAY = 24 * 3_600_000
const value = 'demo-lantern-on-the-quay-9'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

const renew = (more: Partial<EpochOptions> = {}) => {
  const { db, config, epochs: store } = company.services
  return renewEpochs({ db, url: config.DATABASE_URL, store, mayBegin: true, ...more })
}
const living = async () => (await livingEpochs(company.services.db)).map(({ name }) => name)
const inDays = (days: number) => new Date(Date.now() + days * DAY)

/** A visit with one secret. */
async function keptVisit(): Promise<{ visit: string; ref: string }> {
  const [visit, ref] = [await openAVisit(isolde), uuidv7()]
  const secret = { ref, purpose: 'wifi-passphrase', thing: 'network', id: uuidv7(), origin: 'typed', value }
  expect((await isolde.call('POST', `/visits/${visit}/secrets`, secret)).status).toBeLessThan(300)
  return { visit, ref }
}
const shown = ({ visit, ref }: { visit: string; ref: string }) =>
  company.services.vault.open(company.services.db, visit, ref).then(
    (secret) => secret?.value,
    (error: Error) => error.constructor
  )
const erase = (visit: string, now: Date) =>
  eraseSecrets(company.services.logbook, visit, 'asked for', isoldeHerself, now)

describe('the keys that wrap data keys', () => {
  it('are of an epoch from the first secret on, in a file that only its owner reads', async () => {
    const kept = await keptVisit()
    const [name] = await living()
    expect((await wrappedKey(company.services.db, kept.visit))?.epoch).toBe(name)
    expect(company.services.epochs.names()).toEqual([name])
    expect(statSync(company.services.epochs.file).mode & 0o777).toBe(0o600)
    expect(JSON.stringify(await rows(company.services.db, 'SELECT * FROM key_epochs'))).not.toContain(
      company.services.epochs.send().slice(0, 20)
    )
  })

  it('stay while nothing is erased, and on the day of an erasure', async () => {
    const before = await living()
    expect(await renew({ now: inDays(3) })).toMatchObject({ begun: null, destroyed: [] })
    const { visit } = await keptVisit()
    await erase(visit, new Date())
    expect(await renew({ now: new Date() })).toMatchObject({ begun: null })
    expect(await living()).toEqual(before)
  })

  it('on the day after are others: all that live open as before, and no copy of what was erased opens any more', async () => {
    const [kept, gone] = [await keptVisit(), await keptVisit()]
    const { db, epochs } = company.services
    const [oldKept, oldGone] = [(await wrappedKey(db, kept.visit))!, (await wrappedKey(db, gone.visit))!]
    const opensStill = ({ wrapped, epoch }: typeof oldGone, visit: string) =>
      openValue(epochs.wrapping(epoch), wrapped, visit).length === 32
    await erase(gone.visit, new Date())
    // Until then a copy of the database and the file of this moment open it.
    expect(opensStill(oldGone, gone.visit)).toBe(true)
    const { begun, wrapped } = await renew({ now: inDays(1) })
    expect(begun).not.toBeNull()
    expect(wrapped).toBeGreaterThan(0)
    // Somebody on another node may be wrapping in the one before still.
    expect(await living()).toHaveLength(2)
    expect((await renew({ now: new Date(inDays(1).getTime() + 6 * 60_000) })).destroyed).toEqual([oldKept.epoch])
    expect(await living()).toEqual([begun])
    expect(epochs.names()).toEqual([begun])
    expect(() => opensStill(oldGone, gone.visit)).toThrow(EpochMissing)
    expect(() => opensStill(oldKept, kept.visit)).toThrow(EpochMissing)
    expect((await wrappedKey(db, kept.visit))?.epoch).toBe(begun)
    expect([await shown(kept), await shown(gone)]).toEqual([value, SecretsErased])
    expect(await renew({ now: inDays(9) })).toMatchObject({ begun: null, wrapped: 0, destroyed: [] })
  })

  it('change while secrets are put away, and none is lost', async () => {
    const before = await living()
    const [all] = await Promise.all([
      Promise.all(Array.from({ length: 12 }, () => keptVisit())),
      renew({ always: true, now: new Date() }),
      new Promise((resolve) => setTimeout(resolve, 100)).then(() => renew({ now: inDays(2) }))
    ])
    await renew({ now: inDays(2) })
    expect((await living()).filter((name) => before.includes(name))).toEqual([])
    expect(await Promise.all(all.map(shown))).toEqual(all.map(() => value))
  })

  it('of a company from before there were any begin once somebody says so, for an older program could not open them', async () => {
    const kept = await keptVisit()
    const { db, keys, epochs } = company.services
    const before = await wrappedKey(db, kept.visit)
    await run(db, 'DELETE FROM key_epochs')
    expect(before).not.toBeNull()
    const apart = new EpochStore(join(mkdtempSync(join(tmpdir(), 'epochs-')), 'keys'), keys.wrap)
    expect(await renew({ store: apart, now: inDays(2) })).toMatchObject({ begun: null, wrapped: 0, destroyed: [] })
    for (const name of epochs.names())
      await run(db, 'INSERT INTO key_epochs (name, begun_at) VALUES (?, ?)', [name, new Date()])
    expect(await shown(kept)).toBe(value)
  })
})

describe('on several machines', () => {
  it('an epoch is begun by hand only, after its key was brought to the others', async () => {
    const { keys, epochs } = company.services
    const { visit } = await keptVisit()
    await erase(visit, new Date())
    expect(await renew({ mayBegin: false, now: inDays(2) })).toMatchObject({ begun: null })
    const other = new EpochStore(join(mkdtempSync(join(tmpdir(), 'epochs-')), 'keys'), keys.wrap)
    const { begun } = await renew({
      mayBegin: false,
      always: true,
      now: inDays(2),
      onMade: () => Promise.resolve(void other.take(epochs.send()))
    })
    expect(other.names()).toContain(begun)
    expect(other.take(epochs.send())).toBe(0)
    // What one has ended the others take out of their files.
    await renew({ now: inDays(3) })
    expect(other.names().length).toBeGreaterThan(1)
    await renew({ store: other, mayBegin: false, now: inDays(3) })
    expect(other.names()).toEqual([begun])
  })

  it('where another was seen within the week none begins an epoch by itself, told or not', async () => {
    const { keys } = company.services
    const other = new EpochStore(join(mkdtempSync(join(tmpdir(), 'epochs-')), 'keys'), keys.wrap)
    other.take(company.services.epochs.send())
    const { visit } = await keptVisit()
    await erase(visit, inDays(4))
    await renew({ store: other, mayBegin: false, now: inDays(5) })
    expect(await renew({ now: inDays(5) })).toMatchObject({
      begun: null,
      othersHold: expect.toSatisfy((many) => many >= 1)
    })
    expect(await renew({ now: inDays(13) })).toMatchObject({ begun: expect.any(String) as string, othersHold: 0 })
  })

  it('a process that lacks a key does not start, says which file, and starts with what another sends', async () => {
    const { database, services } = company
    const keyFile = join(mkdtempSync(join(tmpdir(), 'epochs-')), 'key')
    const { readFile, writeFile } = await import('node:fs/promises')
    await writeFile(keyFile, await readFile(services.config.KEY_FILE, 'utf8'), { mode: 0o600 })
    await expect(servicesOn(database.url, keyFile)).rejects.toThrow(`${keyFile}.epochs lacks the key`)
    new EpochStore(`${keyFile}.epochs`, services.keys.wrap).take(services.epochs.send())
    await (await servicesOn(database.url, keyFile)).db.end()
  })

  it('keys of another company, a file that others can read, and half a file are refused', () => {
    const { epochs } = company.services
    const file = join(mkdtempSync(join(tmpdir(), 'epochs-')), 'keys')
    const another = new EpochStore(file, Buffer.alloc(32, 4))
    expect(() => another.take(epochs.send())).toThrow('another company')
    writeFileSync(file, '{"format":"pasado.epoch-keys/1","ke', { mode: 0o600 })
    expect(() => another.names()).toThrow('not whole')
    writeFileSync(`${file}2`, '', { mode: 0o644 })
    expect(() => new EpochStore(`${file}2`, Buffer.alloc(32, 4)).names()).toThrow('chmod 600')
  })
})
