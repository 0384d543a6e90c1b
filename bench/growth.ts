import { spawnSync } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import type { Standard } from '@pasado/core/policy/standard'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { countSealed } from '@pasado/server/db/figures'
import { row, rows } from '@pasado/server/db/pool'
import { countStanding } from '@pasado/server/db/standing'
import { loadLargeCompany } from '../scripts/large-company'
import { Caller, openAVisit, startCompany } from '@pasado/testing/company'
import { serverProcess } from '@pasado/testing/server-process'
import { growthCalls, type Called } from './growth-calls'
import { machine } from './machine'
import { median } from './timing'

/**
 * Every call of the API in a small company and in a large one, in turns: what anybody can call takes no longer because the company has more homes. Then what
 * each table holds, to reckon with for more.
 */
const [SMALL, LARGE] = (process.argv[process.argv.indexOf('--homes') + 1]?.match(/^\d+,\d+$/)?.[0] ?? '2000,200000')
  .split(',')
  .map(Number) as [number, number]
const TIMES = 15
/** A call that takes longer than this many times its time in the small company has grown. */
const MOST_TIMES = 2
/** So many visits are open there, beside those that are sealed. */
const OPEN = 230

type Company = Awaited<ReturnType<typeof startCompany>>

async function filled(homes: number): Promise<Company> {
  const company = await startCompany()
  const { services } = company
  const began = performance.now()
  let told = began
  const loaded = await loadLargeCompany(services, { homes, today: new Date() }, (at) => {
    if (performance.now() - told < 20_000) return
    told = performance.now()
    console.error(`${at.homes} of ${homes} homes …`)
  })
  const loadedS = Math.round((performance.now() - began) / 1000)
  while (await countSealed(services.db));
  while (await countStanding(services.db));
  const caller = await Caller.as(company.running, 'isolde')
  for (let at = 0; at < OPEN; at++)
    await openAVisit(caller, { plannedAt: new Date(Date.now() + at * 600_000).toISOString() })
  await services.followUp.caughtUp(60_000)
  await services.db.query('ANALYZE TABLE homes, units, findings, home_terms, visits, home_models')
  const countedS = Math.round((performance.now() - began) / 1000) - loadedS
  console.log(
    `${loaded.homes} homes, ${loaded.visits} sealed visits, ${loaded.units} units: loaded in ${loadedS} s, counted in ${countedS} s`
  )
  return company
}

async function called({ services, database }: Company): Promise<Called> {
  const { child, address } = await serverProcess(database.url, join(database.folder, 'key'))
  process.once('exit', () => child.kill('SIGKILL'))
  const [lead, technician, office] = await Promise.all(
    ['wenna', 'isolde', 'petroc'].map((login) => Caller.at(address, login))
  )
  const home = await row<{ id: string; customer: string; street: string; sealed: string }>(
    services.db,
    'SELECT h.id, h.customer, h.street, h.latest_visit AS sealed FROM homes h JOIN visits v ON v.id = h.latest_visit WHERE v.sealed_at IS NOT NULL ORDER BY h.id LIMIT 1'
  )
  const open = await openAVisit(technician!)
  const { body } = await lead!.call<{ standard: Standard }>('GET', '/standards/newest')
  return {
    lead: lead!,
    technician: technician!,
    office: office!,
    home: home!,
    sealed: home!.sealed,
    open,
    standard: nextDraft(body.standard),
    entry: 0
  }
}

console.log(`${machine()}, ${availableParallelism()} cores, Node.js ${process.version}\n`)
const companies = [await filled(SMALL), await filled(LARGE)]
const both = [await called(companies[0]!), await called(companies[1]!)]
console.log(`\n| call | ${SMALL} homes, ms | ${LARGE} homes, ms | times |\n|---|---|---|---|`)
const grown: string[] = []
for (const calls of Object.values(growthCalls)) {
  if (typeof calls === 'string') continue
  for (const [name, call] of Object.entries(calls)) {
    const took = both.map(() => [] as number[])
    for (let run = -3; run < TIMES; run++)
      for (const [at, company] of both.entries()) {
        const began = performance.now()
        const status = await call(company)
        if (status >= 300) throw new Error(`${name} was answered ${status}`)
        if (run >= 0) took[at]!.push(performance.now() - began)
      }
    const [small, large] = took.map(median) as [number, number]
    if (large / small > MOST_TIMES) grown.push(name)
    console.log(`| ${name} | ${small.toFixed(1)} | ${large.toFixed(1)} | ${(large / small).toFixed(2)} |`)
  }
}
console.log(
  grown.length === 0
    ? `\nNo call takes more than ${MOST_TIMES} × its time in the small company.`
    : `\nGrown: ${grown.join(', ')}.`
)

console.log('\n| table | rows | data, MB | indexes, MB |\n|---|---|---|---|')
const { db } = companies[1]!.services
await db.query('ANALYZE TABLE entries, sealed_verdicts, networks, home_models')
for (const { name, many, data, indexes } of await rows<{ name: string; many: number; data: number; indexes: number }>(
  db,
  `
    SELECT table_name AS name, table_rows AS many, data_length AS data, index_length AS indexes
    FROM information_schema.tables
    WHERE table_schema = DATABASE()
      AND table_rows > 1000
    ORDER BY data_length DESC
  `
))
  console.log(`| ${name} | ${many} | ${(data / 1e6).toFixed(0)} | ${(indexes / 1e6).toFixed(0)} |`)
const [size] = spawnSync('du', ['-sm', companies[1]!.database.folder], { encoding: 'utf8' }).stdout.split('\t')
console.log(`\nThe data directory of the large company: ${size} MB.`)
for (const company of companies) await company.stop()
process.exit(grown.length === 0 ? 0 : 1)
