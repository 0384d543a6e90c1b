import { availableParallelism } from 'node:os'
import { v7 as uuidv7 } from 'uuid'
import { isolde } from '@pasado/demo/company'
import { unitsRunning } from '@pasado/server/db/advisory'
import { countStanding, versionsInUse } from '@pasado/server/db/standing'
import { findHomes, type HomeQuery } from '@pasado/server/db/home-search'
import { readCursor, type PageCursor } from '@pasado/server/db/page'
import { rows, type Param } from '@pasado/server/db/pool'
import { visitForBrowser } from '@pasado/server/logbook/read'
import { openVisit } from '@pasado/server/logbook/visits'
import { loadLargeCompany } from '../scripts/large-company'
import { Caller, startCompany } from '@pasado/testing/company'
import { machine } from './machine'
import { median, medianMs, report } from './timing'

/** A large company: every search and the advisory against the bare indexed query for the same rows, and opening a long visit. */
const HOMES = Number(process.argv[process.argv.indexOf('--homes') + 1]) || 50_000
const TIMES = 25
const LONG = 2_000

console.log(`${machine()}, ${availableParallelism()} cores, Node.js ${process.version}\n`)
const company = await startCompany()
const { services } = company
const { db, logbook } = services
const began = performance.now()
const loaded = await loadLargeCompany(services, { homes: HOMES, today: new Date() })
while (await countStanding(db));
await db.query('ANALYZE TABLE homes, units, findings, home_terms, visits')
report(
  `${loaded.homes} homes, ${loaded.visits} sealed visits, ${loaded.units} units loaded in`,
  `${Math.round((performance.now() - began) / 1000)} s`
)
const [{ findings }] = (await rows<{ findings: number }>(db, 'SELECT COUNT(*) AS findings FROM findings')) as [
  { findings: number }
]
report('findings that came with them', String(findings))

/** Our query against a bare one in turns, so that a busy machine troubles both alike. */
async function against(what: string, ours: () => Promise<unknown>, bare: () => Promise<unknown>): Promise<void> {
  for (let run = 0; run < 5; run++) {
    await ours()
    await bare()
  }
  const [a, b]: [number[], number[]] = [[], []]
  for (let run = 0; run < TIMES; run++)
    for (const [work, into] of [
      [ours, a],
      [bare, b]
    ] as const) {
      const start = performance.now()
      await work()
      into.push(performance.now() - start)
    }
  report(what, `${median(a).toFixed(2)} ms, ${(median(a) / median(b)).toFixed(1)} × the bare indexed query (aim 5)`)
}

const bareHomes = (sql: string, params: Param[]) => () =>
  rows(db, `SELECT h.id, h.customer_id, h.customer, h.street, h.town, h.latest_visit FROM ${sql} LIMIT 51`, params)
const [some] = (await rows<{ customer: string; street: string; serial: string; mac: string }>(
  db,
  'SELECT h.customer, h.street, u.serial, u.mac FROM homes h JOIN units u ON u.visit_id = h.latest_visit ORDER BY h.id LIMIT 1'
)) as [{ customer: string; street: string; serial: string; mac: string }]
const words = (text: string) => text.toLowerCase().split(' ')
const bareWords = (first: string, other: string) =>
  bareHomes(
    'home_terms t JOIN home_terms o ON o.home_id = t.home_id AND o.term LIKE ? JOIN homes h ON h.id = t.home_id WHERE t.term LIKE ?',
    [`${first}%`, `${other}%`]
  )
const bareWord = (word: string) =>
  bareHomes('home_terms t JOIN homes h ON h.id = t.home_id WHERE t.term LIKE ?', [`${word}%`])
const searches: [string, HomeQuery, () => Promise<unknown>][] = [
  ['a name', { words: words(some.customer) }, bareWords(words(some.customer)[0]!, words(some.customer)[1]!)],
  ['a first name alone, many homes', { words: [words(some.customer)[0]!] }, bareWord(words(some.customer)[0]!)],
  [
    'a street with its number',
    { words: words(some.street) },
    bareWords(words(some.street)[0]!, words(some.street)[1]!)
  ],
  ['two letters', { words: ['tr'] }, bareWord('tr')],
  ['two common words', { words: ['skerrow', 'row'] }, bareWords('skerrow', 'row')],
  ['a serial', { words: [some.serial.toLowerCase()] }, bareWord(some.serial.toLowerCase())],
  ['a MAC address', { words: [some.mac.replaceAll(':', '')] }, bareWord(some.mac.replaceAll(':', ''))],
  [
    'a model',
    { words: [], model: 'ostrel-tern' },
    bareHomes('units u JOIN homes h ON h.id = u.home_id WHERE u.model = ?', ['ostrel-tern'])
  ],
  [
    'a model and the version it runs',
    { words: [], model: 'ostrel-tern', firmware: '3.0.0' },
    bareHomes('units u JOIN homes h ON h.id = u.home_id WHERE u.model = ? AND u.firmware = ?', ['ostrel-tern', '3.0.0'])
  ],
  [
    'a rule that was broken',
    { words: [], rule: 'firm-minimum', outcome: 'breaks' },
    bareHomes(
      "findings f JOIN visits v ON v.id = f.visit_id JOIN homes h ON h.id = v.home_id WHERE f.rule = ? AND f.outcome = 'breaks'",
      ['firm-minimum']
    )
  ],
  ['every home, by street', { words: [] }, bareHomes('homes h ORDER BY h.street, h.id', [])]
]
for (const [what, query, bare] of searches) {
  await against(`homes by ${what}`, () => findHomes(db, query, null), bare)
  // Far into the list a page takes no longer than the first.
  let next: PageCursor | null = null
  for (let pages = 0; pages < 20; pages++) {
    const page = await findHomes(db, query, next)
    if (page.next === null) break
    next = readCursor(page.next)
  }
  if (next !== null) await against(`  the twentieth page of it`, () => findHomes(db, query, next), bare)
}
await against(
  'advisory: units that run a version',
  () => unitsRunning(db, 'ostrel-tern', '3.0.0', null),
  () =>
    rows(
      db,
      'SELECT u.visit_id, u.unit_id, u.name, u.serial, h.customer, h.street, h.phone FROM units u JOIN homes h ON h.id = u.home_id WHERE u.model = ? AND u.firmware = ? ORDER BY u.visit_id, u.unit_id LIMIT 100',
      ['ostrel-tern', '3.0.0']
    )
)
await against(
  'advisory: how many run each version',
  () => versionsInUse(db, 'ostrel-tern'),
  () =>
    rows(
      db,
      'SELECT u.firmware, COUNT(*) FROM units u JOIN homes h ON h.id = u.home_id WHERE u.model = ? GROUP BY u.firmware',
      ['ostrel-tern']
    )
)

const visit = uuidv7()
await openVisit(
  logbook,
  {
    id: visit,
    home: uuidv7(),
    customer: uuidv7(),
    technician: { id: isolde.id, name: isolde.name },
    brief: { customerName: 'A', street: 'B', town: 'C' }
  },
  isolde
)
const units = Array.from({ length: 8 }, () => uuidv7())
await logbook.write(visit, new Date(), (open) => {
  for (const id of units)
    open.write(
      'unit.set',
      { id, set: { name: `Unit ${id.slice(-4)}`, model: 'ostrel-tern', modelVersion: 1, role: 'node' } },
      isolde
    )
  for (let at = units.length + 1; at < LONG; at++) {
    if (at % 3 === 0)
      open.write(
        'lamp.seen',
        { unit: units[at % 8]!, lamps: [{ lamp: 'status', colour: at % 2 ? 'white' : 'blue', pattern: 'solid' }] },
        isolde
      )
    else
      open.write('unit.set', { id: units[at % 8]!, set: { place: `shelf ${at}`, heightM: 1 + (at % 10) / 10 } }, isolde)
  }
  return Promise.resolve()
})
const cold = await medianMs(9, () => {
  logbook.states.forget(visit)
  return visitForBrowser(logbook, visit)
})
report(`opening a visit of ${LONG} entries, its record not in memory`, `${cold.toFixed(0)} ms of server time (aim 150)`)
const caller = await Caller.as(company.running, 'isolde')
report(
  '  the same through HTTP',
  `${(
    await medianMs(9, () => {
      logbook.states.forget(visit)
      return caller.call('GET', `/visits/${visit}`)
    })
  ).toFixed(0)} ms`
)
await company.stop()
process.exit(0)
