import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { spawnSync } from 'node:child_process'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import pino from 'pino'
import sharp from 'sharp'
import { v7 as uuidv7 } from 'uuid'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { digestOf } from '@pasado/core/values/canonical'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Author } from '@pasado/core/record/attribution'
import { standing } from '@pasado/core/record/record'
import { packDigest, signedDigest } from '@pasado/core/record/seal'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { blocks } from '@pasado/core/rules/weigh'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoVisits } from '@pasado/demo/all'
import { corin, demoPassword, isolde, petroc, wenna } from '@pasado/demo/company'
import type { ScriptedVisit } from '@pasado/demo/visit-script'
import { readConfig } from '@pasado/server/config'
import { publishStandard } from '@pasado/server/db/catalogue'
import { keepPhoto } from '@pasado/server/logbook/photos'
import { judgedVisit, readVisit, visitFile } from '@pasado/server/logbook/read'
import { handVisit, moveStandard, openVisit, sealVisit } from '@pasado/server/logbook/visits'
import { eraseSecrets, keepSecret, showSecret } from '@pasado/server/logbook/secrets'
import { makeServices, serve } from '@pasado/server/server'
import { buildInterface } from './build-interface'
import { loadCompany, loadVisits } from './load-demo'
import { startMariaDb } from './mariadb'

/*
 * Keeps what this version of the program makes, so that later versions can be tested on it: twelve sealed files, a whole
 * database with its key, and what a browser holds that could not send what was written on it.
 * Run in a checkout of the version that is to be kept: node --import tsx scripts/keep-fixtures.ts FOLDER
 */

/** The browser's stores belong to an address, so later tests have to serve from this very port. */
const PORT = 4187
const folder = resolve(process.argv[2] ?? 'fixtures')
const work = mkdtempSync(join(tmpdir(), 'pasado-fixtures-'))
/** Everybody writes from an outbox of their own. */
const outboxOf = new Map(
  [isolde, corin, wenna, petroc].map(({ id }, at) => [id, `0199c000-0000-7000-8000-00000000000${'abcd'[at]}`])
)

mkdirSync(join(folder, 'sealed'), { recursive: true })
await buildInterface()
const database = await startMariaDb(work, PORT + 1)
const config = readConfig({
  DATABASE_URL: database.url,
  KEY_FILE: join(work, 'key'),
  PORT: String(PORT),
  LOG_LEVEL: 'silent',
  WEB_ROOT: join(import.meta.dirname, '../web/dist')
})
const services = await makeServices(config, pino({ level: 'silent' }))
const { logbook, db } = services
await loadCompany(services, new Date())

/** Writes an entry as somebody on some device, who had seen the logbook up to a line. */
async function by<K extends EntryKind>(
  visit: string,
  author: Author,
  kind: K,
  body: Body<K>,
  base?: number
): Promise<number> {
  const { record } = await readVisit(logbook, visit)
  const [receipt] = await logbook.append(
    visit,
    [
      {
        id: uuidv7(),
        visit,
        at: new Date().toISOString(),
        from: outboxOf.get(author.id)!,
        base: base ?? record.lastSeq,
        kind,
        body
      } as never
    ],
    { id: author.id, name: author.name, role: author.role }
  )
  return receipt!.seq
}

/** Two people write without seeing each other. */
async function apart<K extends EntryKind>(visit: string, kind: K, first: Body<K>, second: Body<K>): Promise<void> {
  const seen = (await readVisit(logbook, visit)).record.lastSeq
  await by(visit, isolde, kind, first, seen)
  await by(visit, corin, kind, second, seen)
}

const jpeg = (shade: string) =>
  sharp({ create: { width: 480, height: 360, channels: 3, background: shade } })
    .jpeg()
    .toBuffer()
const firstUnit = async (visit: string) => standing((await readVisit(logbook, visit)).record.units)[0]!

/** What is special about each sealed visit, by the name of its file. */
const special: [name: string, extra: (visit: string) => Promise<void>, after?: (visit: string) => Promise<void>][] = [
  ['plain', async () => undefined],
  [
    'concurrent-answers',
    async (visit) => {
      const { id } = await firstUnit(visit)
      await apart(
        visit,
        'rule.answered',
        { rule: 'brief-line-alarm', answer: 'yes' },
        { rule: 'brief-line-alarm', answer: 'no', note: 'A pendant, told.' }
      )
      await apart(visit, 'choice.answered', { choice: 'parental', answer: 'yes' }, { choice: 'parental', answer: 'no' })
      await apart(
        visit,
        'custody.answered',
        { custody: 'company-keeps', keeps: ['admin-password'], until: '2031-05-01' },
        { custody: 'erase-after-30-days' }
      )
      await apart(
        visit,
        'prompt.answered',
        { unit: id, prompt: 'usage-statistics', answer: 'yes', by: 'customer' },
        { unit: id, prompt: 'usage-statistics', answer: 'no', by: 'customer' }
      )
    }
  ],
  [
    'removals',
    async (visit) => {
      const spare = uuidv7()
      await by(visit, isolde, 'unit.set', { id: spare, set: { name: 'Spare', place: 'in the van' } })
      await by(visit, isolde, 'thing.removed', { thing: 'unit', id: spare })
      const seen = (await readVisit(logbook, visit)).record.lastSeq
      const segment = uuidv7()
      await by(visit, isolde, 'segment.set', { id: segment, set: { name: 'Workshop', cidr: '10.88.0.0/24' } })
      const known = await by(visit, isolde, 'thing.removed', { thing: 'segment', id: segment })
      await by(visit, corin, 'segment.set', { id: segment, set: { name: 'Workshop, old' } }, seen)
      const room = standing((await readVisit(logbook, visit)).record.rooms ?? {})[0]
      if (room)
        for (const kind of ['thing.removed', 'thing.restored'] as const)
          await by(visit, isolde, kind, { thing: 'room', id: room.id }, known)
    }
  ],
  [
    'waits',
    async (visit) => {
      const { id } = await firstUnit(visit)
      for (const [index, what] of ['Boot', 'Update', 'Line training'].entries()) {
        const wait = uuidv7()
        await by(visit, isolde, 'wait.started', { id: wait, what, unit: id, usualMin: 2, mostMin: 6 })
        if (index < 2) await by(visit, index ? corin : isolde, 'wait.ended', { id: wait })
      }
    }
  ],
  [
    'waivers',
    async (visit) => {
      const { id } = await firstUnit(visit)
      await by(visit, wenna, 'waiver.granted', {
        rule: 'place-height',
        subject: id,
        reason: 'The shelf is low, and the only one.',
        until: '2031-05-01'
      })
      await by(visit, wenna, 'waiver.granted', { rule: 'kit-reset', reason: 'New out of the box.' })
      await by(visit, wenna, 'waiver.withdrawn', { rule: 'kit-reset' })
      await by(visit, isolde, 'rule.acknowledged', { rule: 'prove-wired', subject: id, reason: 'No port is free.' })
    }
  ],
  [
    'photos',
    async (visit) => {
      const { id } = await firstUnit(visit)
      const refs = [uuidv7(), uuidv7(), uuidv7()]
      await keepPhoto(
        logbook,
        visit,
        {
          ref: refs[0]!,
          about: { thing: 'stage', id: 'place' },
          caption: 'Where it stands',
          label: false,
          octets: await jpeg('#7a8')
        },
        isolde
      )
      await keepPhoto(
        logbook,
        visit,
        { ref: refs[1]!, about: { thing: 'unit', id }, caption: null, label: true, octets: await jpeg('#a87') },
        isolde
      )
      await keepPhoto(
        logbook,
        visit,
        {
          ref: refs[2]!,
          about: { thing: 'rule', id: 'place-clear' },
          caption: null,
          label: false,
          octets: await jpeg('#78a')
        },
        corin
      )
      await by(visit, isolde, 'photo.captioned', { ref: refs[0]!, caption: 'Where it stands, from the door' })
      await by(visit, isolde, 'photo.removed', { ref: refs[2]! })
      await by(visit, isolde, 'photo.restored', { ref: refs[2]! })
    }
  ],
  [
    'conflicts-settled',
    async (visit) => {
      const { id } = await firstUnit(visit)
      await apart(visit, 'unit.set', { id, set: { place: 'landing' } }, { id, set: { place: 'loft' } })
      await by(visit, isolde, 'conflict.settled', { thing: 'unit', id, field: 'place', keep: 'earlier' })
      await apart(
        visit,
        'brief.set',
        { set: { secondContact: 'Aunt, 555-0140' } },
        { set: { secondContact: 'Neighbour, 555-0141' } }
      )
      await by(visit, corin, 'conflict.settled', { thing: 'brief', id: 'brief', field: 'secondContact', keep: 'later' })
    }
  ],
  [
    'handed-on-and-reviewed',
    async (visit) => {
      const has = (await readVisit(logbook, visit)).record.visit.technician.id
      await by(visit, isolde, 'note.written', { text: 'The ladder stayed here.', stage: 'place' })
      await handVisit(
        logbook,
        visit,
        { id: (has === isolde.id ? corin : isolde).id, name: (has === isolde.id ? corin : isolde).name },
        'On the other island today.',
        petroc
      )
      await by(visit, isolde, 'review.asked', { remark: 'One waiver, please.' })
      await by(visit, wenna, 'review.returned', { remark: 'Measure the loft again.' })
      await by(visit, isolde, 'review.asked', { remark: 'Measured.' })
    }
  ],
  [
    'kept-partly-and-shown',
    async (visit) => {
      await by(visit, isolde, 'custody.answered', {
        custody: 'company-keeps',
        keeps: ['admin-password'],
        until: '2031-05-01'
      })
    },
    async (visit) => {
      const { record } = await readVisit(logbook, visit)
      await showSecret(logbook, visit, Object.keys(record.secrets)[0]!, 'telling the customer', petroc)
    }
  ],
  [
    'proofs-and-a-search',
    async (visit) => {
      const { id } = await firstUnit(visit)
      const search = uuidv7()
      await by(visit, isolde, 'fault.search', { search, about: { unit: id } })
      await by(visit, isolde, 'fault.observed', { search, observation: 'wired-test', answer: 'good' })
      await by(visit, isolde, 'fault.observed', { search, observation: 'wired-test', answer: null })
      await by(visit, isolde, 'fault.found', { search, cause: 'backhaul-weak', end: 'mended', probability: 0.62 })
      await by(visit, isolde, 'path.seen', { unit: id, before: 0, after: 1, address: '192.168.1.60' })
      await by(visit, isolde, 'neighbours.noted', {
        networks: [{ ssid: 'Whelk', band: '2.4', channel: 6, widthMHz: 20, dbm: -71, busy: 0.2 }]
      })
      await by(visit, isolde, 'check.booked', {
        id: uuidv7(),
        from: '2031-05-01T09:00:00Z',
        to: '2031-05-01T12:00:00Z'
      })
      await by(visit, isolde, 'button.pressed', { unit: id, button: 'reset', seconds: 2 })
    }
  ],
  [
    'standard-moved',
    async (visit) => {
      const second = {
        ...nextDraft(firstStandard),
        note: 'Rooms have to be a little faster.',
        policy: { ...firstStandard.policy, roomMbps: 90 }
      }
      await publishStandard(db, second)
      await moveStandard(logbook, visit, { id: second.id, version: second.version }, wenna)
    }
  ]
]

/** Waives and acknowledges what stands in the way, makes and gives the pack, lets both sign, and seals. */
async function sealNow(visit: string): Promise<void> {
  const { record, findings } = await judgedVisit(logbook, visit)
  for (const { thing, id, field } of record.conflicts)
    await by(visit, isolde, 'conflict.settled', { thing, id, field, keep: 'later' })
  for (const finding of findings.filter(blocks)) {
    if (finding.rule === 'hand-pack') continue
    const subject = finding.subject ? { subject: finding.subject.id } : {}
    if (finding.level === 'must')
      await by(visit, wenna, 'waiver.granted', {
        rule: finding.rule,
        ...subject,
        reason: 'Looked at, and left as it is.'
      })
    else await by(visit, isolde, 'rule.acknowledged', { rule: finding.rule, ...subject, reason: 'Seen.' })
  }
  await logbook.write(visit, new Date(), (open) =>
    Promise.resolve(open.write('pack.made', { digest: packDigest(open.state.record) }, isolde))
  )
  await by(visit, isolde, 'pack.given', { how: 'printed' })
  const digest = signedDigest((await readVisit(logbook, visit)).record)
  const has = [isolde, corin].find(({ id }) => id === record.visit.technician.id)!
  for (const [who, name] of [
    ['customer', 'Customer'],
    ['technician', has.name]
  ] as const)
    await by(visit, has, 'signature.given', { who, name, strokes: 'M20 110 L60 90 L100 120', digest })
  await sealVisit(logbook, visit, { digest: signedDigest((await readVisit(logbook, visit)).record) }, has)
}

/** A scripted visit up to where its pack is made. */
const unfinished = (visit: ScriptedVisit): ScriptedVisit => ({
  ...visit,
  steps: visit.steps.slice(
    0,
    visit.steps.findIndex(({ does }) => does === 'pack')
  )
})

const digests: Record<string, { visit: string; record: string; sealed: string; entries: number }> = {}
async function keepFile(name: string, visit: string): Promise<void> {
  const { record, entries } = await readVisit(logbook, visit)
  const text = await visitFile(services, visit, null)
  const problems = integrityProblems(readRecordFile(text), text)
  if (problems.length) throw new Error(`${name}: ${JSON.stringify(problems)}`)
  writeFileSync(join(folder, 'sealed', `${name}.json.gz`), gzipSync(text, { level: 9 }))
  digests[name] = { visit, record: digestOf(record), sealed: record.seal!.record, entries: entries.length }
}

const finished = demoVisits().filter(({ steps }) => steps.some(({ does }) => does === 'seal'))
for (const [index, [name, extra, after]] of special.entries()) {
  const script = finished[index]!
  await loadVisits(services, [unfinished(script)], new Date())
  await extra(script.id)
  await sealNow(script.id)
  await after?.(script.id)
  await keepFile(name, script.id)
}
// A second visit at the first one's home, which starts from it.
const home = (await readVisit(logbook, finished[0]!.id)).record
const again = uuidv7()
await openVisit(
  logbook,
  {
    id: again,
    home: home.visit.home,
    customer: home.visit.customer,
    technician: { id: isolde.id, name: isolde.name },
    brief: { ...home.brief.facts, reason: 'fault' } as never
  },
  petroc
)
await by(again, isolde, 'note.written', { text: 'Works again after a restart.' })
await sealNow(again)
await keepFile('started-from-another', again)
// One whose secrets somebody asked to erase, after it was kept.
await eraseSecrets(logbook, finished[0]!.id, 'The customer asked for it.', wenna)
writeFileSync(join(folder, 'sealed', 'digests.json'), `${JSON.stringify(digests, null, 2)}\n`)

// Two visits that are not sealed, and a browser that wrote in both without a connection.
const openOnes = demoVisits().filter(
  ({ brief, steps }) =>
    ['9 Ferryslip Terrace', '3 Toll Steps'].includes(brief.street!) && !steps.some(({ does }) => does === 'seal')
)
await loadVisits(services, openOnes, new Date())
await keepSecret(
  logbook,
  openOnes[0]!.id,
  {
    ref: uuidv7(),
    purpose: 'provider-login',
    thing: 'brief',
    id: 'brief',
    origin: 'typed',
    value: 'made-up-login / amber-kelp-lantern-4'
  },
  isolde
)
const running = await serve(services)
const profile = join(work, 'profile')
const context = await chromium.launchPersistentContext(profile, {
  executablePath: '/usr/bin/chromium-headless-shell',
  viewport: { width: 1280, height: 800 },
  serviceWorkers: 'block',
  locale: 'en-GB',
  timezoneId: 'UTC',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync'
  ]
})
const page = context.pages()[0]!
await page.goto(`${running.address}/login`)
await page.getByLabel('Login').fill('isolde')
await page.getByLabel('Password').fill(demoPassword)
await page.getByRole('button', { name: 'Log in' }).click()
await page.waitForURL((url) => url.pathname !== '/login')
// What is read comes; what is written does not arrive.
await context.route(/\/api\/visits\/[^/]+\/(?:entries|photos|secrets)$/, (route) =>
  route.request().method() === 'POST' ? route.abort() : route.continue()
)
const written: { visit: string; texts: string[] }[] = []
for (const { id } of openOnes) {
  await page.goto(`${running.address}/visit/${id}/brief`)
  await page
    .getByRole('status')
    .filter({ hasText: /^saved/ })
    .waitFor()
  const texts = ['Aunt on the pier, 555-0158', 'Harbour office, 555-0157']
  const field = page.getByRole('textbox', { name: 'Second way to reach them', exact: true })
  for (const text of texts) {
    await field.fill(text)
    await field.press('Enter')
    await field.blur()
  }
  await page
    .getByLabel('Add one of this stage')
    .setInputFiles({ name: 'photo.jpg', mimeType: 'image/jpeg', buffer: await jpeg('#556') })
  await page.getByRole('button', { name: /^Keep/ }).click()
  await page.waitForTimeout(1500)
  written.push({ visit: id, texts })
}
await context.close()
await running.close()
mkdirSync(join(work, 'kept/Default'), { recursive: true })
for (const part of ['IndexedDB', 'Local Storage', 'Session Storage'])
  cpSync(join(profile, 'Default', part), join(work, 'kept/Default', part), { recursive: true })
const packed = spawnSync('tar', ['-czf', join(folder, 'browser-profile.tar.gz'), '-C', join(work, 'kept'), '.'])
if (packed.status !== 0) throw new Error(packed.stderr.toString())
writeFileSync(
  join(folder, 'browser-profile.json'),
  `${JSON.stringify({ port: PORT, person: isolde.id, written }, null, 2)}\n`
)

await keepDatabase(database.url)
writeFileSync(join(folder, 'database-key'), readFileSync(join(work, 'key')), { mode: 0o600 })
await database.stop()
rmSync(work, { recursive: true, force: true })
process.exit(0)

/** Every table as statements that make it anew, each on a line of its own. */
async function keepDatabase(url: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url, timezone: 'Z' })
  const lines = ['SET FOREIGN_KEY_CHECKS = 0']
  const [tables] = await connection.query<RowDataPacket[]>('SHOW TABLES')
  for (const table of tables.map((row) => String(Object.values(row)[0]))) {
    const [[made]] = await connection.query<RowDataPacket[]>(`SHOW CREATE TABLE \`${table}\``)
    lines.push(String(made!['Create Table']).replaceAll('\n', ' '))
    const [found] = await connection.query<RowDataPacket[]>(`SELECT * FROM \`${table}\``)
    for (const row of found)
      lines.push(connection.format(`INSERT INTO \`${table}\` VALUES (?)`, [Object.values(row)]).replaceAll('\n', '\\n'))
  }
  await connection.end()
  writeFileSync(join(folder, 'database.sql.gz'), gzipSync(`${lines.join('\n')}\n`, { level: 9 }))
}
