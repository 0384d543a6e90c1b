import { execFile } from 'node:child_process'
import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import type { Entry } from '@pasado/core/record/entry'
import { demoVisits } from '@pasado/demo/all'
import { isolde as person } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { main } from '../../cli/src/main'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'
import { archiveBefore, archiveMoved, bringBack, type Archivist } from '../src/archive/archive'
import { photosOf } from '../src/db/archives'
import { row, rows, run } from '../src/db/pool'
import { checkAll } from '../src/logbook/check-all'
import { keepPhoto } from '../src/logbook/photos'
import { visitFile } from '../src/logbook/read'
import { rebuildProjections } from '../src/logbook/rebuild'
import { serverAuthor } from '../src/logbook/server-author'
import { setSeal } from '../src/logbook/visits'

const DAY = 24 * 3_600_000
let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
const root = mkdtempSync(join(tmpdir(), 'pasado-archive-'))
let folder: string
let visit: string
let photo: string
const tomorrow = () => new Date(Date.now() + DAY)
const archivist = (more: Partial<Archivist> = {}): Archivist => ({
  db: company.services.db,
  logbook: company.services.logbook,
  folder,
  by: 'the test',
  ...more
})
const linesInDatabase = async (of = visit) =>
  Number(
    (await row<{ many: number }>(company.services.db, 'SELECT COUNT(*) AS many FROM entries WHERE visit_id = ?', [of]))!
      .many
  )
/** Its file, but for what verdicts rest on, which is worked out a while after the seal. */
const fileOf = async (of: string) => {
  const { because: _, ...file } = JSON.parse(await visitFile(company.services, of, null)) as Record<string, unknown>
  return file
}
/** Everything that is told of a visit. */
const told = async (of = visit) => {
  company.services.logbook.states.forget(of)
  const { status, body } = await wenna.call<Record<string, unknown>>('GET', `/visits/${of}`)
  const news = await wenna.call('GET', `/visits/${of}/entries?after=2`)
  const picture = await fetch(`${company.running.address}/api/visits/${of}/photos/${photo}`, {
    headers: { cookie: wenna.cookie }
  })
  return {
    status,
    body,
    news: news.body,
    picture: Buffer.from(await picture.arrayBuffer()).toString('base64'),
    small: (
      await fetch(`${company.running.address}/api/visits/${of}/photos/${photo}?size=small`, {
        headers: { cookie: wenna.cookie }
      })
    ).status,
    file: await fileOf(of)
  }
}
const recordAt = () => {
  const [month] = readdirSync(folder)
  return join(folder, month!, visit, 'record.json.gz')
}

beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  wenna = await Caller.as(company.running, 'wenna')
})
afterAll(async () => {
  await company.stop()
  rmSync(root, { recursive: true })
})

beforeEach(async () => {
  folder = mkdtempSync(join(root, 'of-'))
  const { logbook, followUp, db } = company.services
  visit = await openAVisit(isolde, { street: '5 Archive Steps' })
  const unit = uuidv7()
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [
      draft(visit, 'unit.set', {
        id: unit,
        set: { name: 'Router', model: 'ostrel-tern', modelVersion: 1, serial: `AR-${visit.slice(-6)}` }
      })
    ]
  })
  photo = uuidv7()
  const octets = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#678' } })
    .jpeg()
    .toBuffer()
  await keepPhoto(
    logbook,
    visit,
    { ref: photo, about: { thing: 'unit', id: unit }, caption: null, label: false, octets },
    person
  )
  await logbook.write(visit, new Date(), (open) => setSeal(logbook, open, serverAuthor))
  await followUp.caughtUp(5_000)
  await followUp.sweep()
  expect((await row<{ counted: number }>(db, 'SELECT counted FROM visits WHERE id = ?', [visit]))!.counted).toBe(1)
})

it('an archived visit is out of the database, and found, shown, printed and begun from as before', async () => {
  const before = await told()
  expect([before.status, before.small]).toEqual([200, 200])
  const lines = await linesInDatabase()
  const done = await archiveBefore(archivist(), tomorrow())
  expect(done).toMatchObject({ visits: 1, lines, left: [] })
  expect(await linesInDatabase()).toBe(0)
  expect(await photosOf(company.services.db, visit)).toMatchObject([{ picture: Buffer.alloc(0), small: null }])
  expect(await told()).toEqual(before)
  const { body } = await wenna.call<{ homes: { latestVisit: string }[] }>('GET', '/homes?q=archive+steps')
  expect(body.homes.map(({ latestVisit }) => latestVisit)).toContain(visit)
  expect(
    (await fetch(`${company.running.address}/api/visits/${visit}/record.pdf`, { headers: { cookie: wenna.cookie } }))
      .status
  ).toBe(200)
  const { home, customer } = (await row<{ home: string; customer: string }>(
    company.services.db,
    'SELECT id AS home, customer_id AS customer FROM homes WHERE latest_visit = ?',
    [visit]
  ))!
  const next = uuidv7()
  const opened = await isolde.call('POST', '/visits', {
    id: next,
    home,
    customer,
    technician: person.id,
    brief: { customerName: 'A', street: 'B', town: 'C' }
  })
  expect(opened.status).toBe(201)
  expect(
    Object.keys(
      (
        await company.services.logbook.states.at(
          company.services.db,
          next,
          company.services.logbook.states.held(next)!.seq
        )
      ).record.units
    )
  ).toHaveLength(1)
  // What is in the archive is proven by itself, by whoever has the file.
  expect(await main(['verify', recordAt()])).toBe(0)
  for (const path of [recordAt(), join(recordAt(), '..', `${photo}.jpg`)])
    expect(statSync(path).mode & 0o777).toBe(0o600)
  expect(await checkAll(company.services.logbook)).toEqual([])
  await rebuildProjections(company.services.logbook)
  expect(await told()).toEqual(before)
  // It is archived once.
  expect((await archiveBefore(archivist(), tomorrow())).visits).toBe(0)
})

it('a line that is sent again gets its receipt, and one that comes later is kept beside, as of any sealed visit', async () => {
  const entries = (await wenna.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body.entries
  const sent = entries.find(({ kind }) => kind === 'unit.set')!
  await archiveBefore(archivist(), tomorrow())
  const { id, visit: of, at, from, base, kind, body } = sent
  const again = await isolde.call<{ entries: { seq: number; hash: string }[] }>('POST', `/visits/${visit}/entries`, {
    entries: [{ id, visit: of, at, from, base, kind, body }]
  })
  expect([again.status, JSON.stringify(again.body)]).toEqual([200, expect.stringContaining(sent.hash)])
  const late = await isolde.call<{ type: string }>('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'note.written', { text: 'late' })]
  })
  expect([late.status, late.body.type]).toEqual([409, expect.stringContaining('sealed')])
  expect(await linesInDatabase()).toBe(0)
})

it('what is written after the seal follows the lines of the file, archived again or brought back', async () => {
  await archiveBefore(archivist(), tomorrow())
  const { logbook, db } = company.services
  await logbook.write(visit, new Date(), (open) =>
    Promise.resolve(open.write('secret.shown', { ref: photo, why: 'found later' }, serverAuthor))
  )
  expect(await linesInDatabase()).toBe(1)
  const after = await told()
  expect((after.body.entries as Entry[]).at(-1)!.body).toEqual({ ref: photo, why: 'found later' })
  expect(await checkAll(logbook)).toEqual([])
  expect(await bringBack({ db, logbook }, visit)).toBe(true)
  expect(await bringBack({ db, logbook }, visit)).toBe(false)
  expect(await linesInDatabase()).toBe((after.body.entries as Entry[]).length)
  rmSync(folder, { recursive: true })
  expect(await told()).toEqual(after)
  // Archived again it takes the later line along.
  expect((await archiveBefore(archivist(), tomorrow())).visits).toBe(1)
  expect(await linesInDatabase()).toBe(0)
  expect(await told()).toEqual(after)
})

it('broken off after the files were written nothing is lost, and the next time goes on', async () => {
  const before = await told()
  const broken = () => {
    throw new Error('the plug was pulled')
  }
  await expect(archiveBefore(archivist({ now: broken }), tomorrow())).rejects.toThrow('plug')
  expect(existsSync(recordAt())).toBe(true)
  expect(await linesInDatabase()).toBeGreaterThan(3)
  expect(await told()).toEqual(before)
  expect((await archiveBefore(archivist(), tomorrow())).visits).toBe(1)
  expect(await told()).toEqual(before)
})

it('a file that is away or another one is told of by name, and nothing is made up in its place', async () => {
  const before = await told()
  await archiveBefore(archivist(), tomorrow())
  const at = recordAt()
  const octets = readFileSync(at)
  const refused = async () => {
    company.services.logbook.states.forget(visit)
    const { status, body } = await wenna.call<{ title: string }>('GET', `/visits/${visit}`)
    return [status, body.title]
  }
  renameSync(at, `${at}.away`)
  expect(await refused()).toEqual([503, expect.stringContaining('cannot be read where it was put')])
  const other = Buffer.from(octets)
  other[other.length - 9]! ^= 1
  writeFileSync(at, other)
  expect(await refused()).toEqual([503, expect.stringContaining('is not the one that was put away')])
  const faults = await checkAll(company.services.logbook)
  expect(faults).toEqual([{ visit, what: expect.stringContaining('archived') as string }])
  writeFileSync(at, octets)
  expect(await told()).toEqual(before)
  expect(await checkAll(company.services.logbook)).toEqual([])
})

it('an archive that was carried elsewhere is read from there, once all of it was found there', async () => {
  const before = await told()
  const { db } = company.services
  await archiveBefore(archivist(), tomorrow())
  const elsewhere = `${folder}-elsewhere`
  await expect(archiveMoved(db, folder, elsewhere)).rejects.toThrow('cannot be read')
  renameSync(folder, elsewhere)
  await expect(archiveMoved(db, `${folder}-never`, elsewhere)).rejects.toThrow('no archive')
  await expect(archiveMoved(db, folder, 'here')).rejects.toThrow('from the root')
  await expect(archiveMoved(db, folder, folder)).rejects.toThrow('another archive already')
  expect(await archiveMoved(db, folder, elsewhere)).toBe(1)
  expect(await told()).toEqual(before)
})

it('visits that are open, not old enough, altered, or of whose secrets anything is kept stay as they are', async () => {
  const { db, services } = { db: company.services.db, services: company.services }
  const open = await openAVisit(isolde)
  expect((await archiveBefore(archivist(), new Date(Date.now() - DAY))).visits).toBe(0)
  const sealed = demoVisits().find(({ steps }) => steps.some(({ does }) => does === 'seal'))!
  await loadVisits(services, [sealed], new Date())
  await run(db, 'UPDATE visits SET counted = TRUE WHERE id = ?', [sealed.id])
  expect(
    (await rows(db, 'SELECT 1 FROM vault_keys WHERE visit_id = ? AND wrapped IS NOT NULL', [sealed.id])).length
  ).toBe(1)
  await run(
    db,
    `UPDATE entries SET doc = REPLACE(doc, 'Router', 'Rooter') WHERE visit_id = ? AND doc LIKE '%Router%'`,
    [visit]
  )
  services.logbook.states.forget(visit)
  const done = await archiveBefore(archivist(), tomorrow())
  expect(done).toMatchObject({ visits: 0, left: [{ visit, why: expect.stringContaining('altered') as string }] })
  for (const of of [open, sealed.id, visit]) expect(await linesInDatabase(of)).toBeGreaterThan(0)
})

it('the command does it, keeps programs of before from starting, and says what is wrong with what it was told', async () => {
  const env = {
    ...process.env,
    DATABASE_URL: company.database.url,
    KEY_FILE: company.services.config.KEY_FILE,
    LOG_LEVEL: 'silent'
  }
  const command = (...words: string[]) =>
    promisify(execFile)(process.execPath, ['scripts/run.mjs', 'scripts/archive.ts', ...words], {
      cwd: join(import.meta.dirname, '../..'),
      env
    }).then(
      ({ stdout }) => [0, stdout] as const,
      ({ code, stderr }: { code: number; stderr: string }) => [code, stderr] as const
    )
  expect(await command(folder, '--before', 'May')).toEqual([2, expect.stringContaining('a day as')])
  await run(company.services.db, 'UPDATE visits SET sealed_at = ? WHERE id = ?', [new Date('2020-05-05'), visit])
  const [status, said] = await command(folder, '--before', '2021-01-01')
  expect([status, said]).toEqual([0, expect.stringContaining('1 visits with')])
  expect(await linesInDatabase()).toBe(0)
  const [{ oldest }] = (await rows<{ oldest: number }>(
    company.services.db,
    "SELECT oldest FROM migrations WHERE name LIKE '023%'"
  )) as [{ oldest: number }]
  expect(oldest).toBe(23)
}, 120_000)
