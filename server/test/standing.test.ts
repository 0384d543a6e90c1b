import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { isolde as person } from '@pasado/demo/company'
import { Caller, draft, startCompany } from '@pasado/testing/company'
import { allCounted } from '@pasado/testing/counted'
import { rows, run } from '../src/db/pool'
import { countStanding, versionsInUse } from '../src/db/standing'
import { STANDS_NOW } from '../src/db/stands'
import { checkAll } from '../src/logbook/check-all'
import { rebuildProjections } from '../src/logbook/rebuild'
import { setSeal } from '../src/logbook/visits'
import { serverAuthor } from '../src/logbook/server-author'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

const models = ['ostrel-tern', 'fenmarrow-lattice-3']

/** Every unit of a model gone through, as nobody does who only asks. */
const goneThrough = (model: string) =>
  rows(
    company.services.db,
    `
      SELECT COALESCE(u.firmware_key, '') AS version, COUNT(*) AS units, COUNT(DISTINCT u.home_id) AS homes
      FROM units u
      JOIN visits v ON v.id = u.visit_id
      WHERE u.model = ?
        AND ${STANDS_NOW}
      GROUP BY COALESCE(u.firmware_key, '')
      ORDER BY 1
    `,
    [model]
  )
const kept = (model: string) =>
  rows(
    company.services.db,
    'SELECT firmware_key AS version, units, homes FROM model_versions WHERE model = ? AND units <> 0 ORDER BY 1',
    [model]
  )
const open = async (home: string) => {
  const id = uuidv7()
  const brief = { customerName: 'Cressa Oakum', street: '8 Recall Row', town: 'Ness Skerrow' }
  const { status } = await isolde.call('POST', '/visits', { id, home, customer: home, technician: person.id, brief })
  expect(status).toBe(201)
  return id
}
const write = async (visit: string, entry: ReturnType<typeof draft>) =>
  expect((await isolde.call('POST', `/visits/${visit}/entries`, { entries: [entry] })).status).toBe(200)
const set = (visit: string, id: string, facts: object) => write(visit, draft(visit, 'unit.set', { id, set: facts }))
const seal = (visit: string) =>
  company.services.logbook.write(visit, new Date(), (open) => setSeal(company.services.logbook, open, serverAuthor))

/** A number below another, the same in every run. */
let dice = 7
const below = (many: number) => {
  dice = (dice * 48_271) % 2_147_483_647
  return dice % many
}

it('what is kept is what going through every unit gives, after whatever is done, whoever counts', async () => {
  const { db } = company.services
  const homes = Array.from({ length: 4 }, () => ({ id: uuidv7(), open: [] as string[], units: [] as string[] }))
  const versions = [undefined, '3.0', 'v3.0.0', '3.1.0', '2.8.1']
  for (let step = 0; step < 60; step++) {
    const home = homes[below(homes.length)]!
    const visit = home.open[below(home.open.length || 1)]
    const what = below(10)
    if (!visit || what === 0) home.open.push(await open(home.id))
    else if (what === 1) {
      await seal(visit)
      home.open = home.open.filter((other) => other !== visit)
    } else if (what === 2 && home.units.length) {
      const id = home.units[below(home.units.length)]!
      await write(visit, draft(visit, 'thing.removed', { thing: 'unit', id }))
    } else {
      const id = what < 6 && home.units.length ? home.units[below(home.units.length)]! : uuidv7()
      if (!home.units.includes(id)) home.units.push(id)
      const firmwareBefore = versions[below(versions.length)]
      const model = models[below(models.length)]!
      await set(visit, id, { name: id.slice(-6), model, modelVersion: 1, ...(firmwareBefore && { firmwareBefore }) })
    }
    if (step % 12 !== 11) continue
    await company.services.followUp.caughtUp(5_000)
    await company.services.followUp.sweep()
    // The same homes are counted by several at once.
    await Promise.all([1, 2, 3].map(() => countStanding(db)))
    await allCounted(db)
    for (const model of models) expect(await kept(model), `${model} after ${step}`).toEqual(await goneThrough(model))
  }
  expect((await kept(models[0]!)).length).toBeGreaterThan(2)
  const before = await rows(db, 'SELECT * FROM home_models ORDER BY home_id, model, firmware_key')
  await rebuildProjections(company.services.logbook)
  expect(await rows(db, 'SELECT * FROM home_models ORDER BY home_id, model, firmware_key')).toEqual(before)
  for (const model of models) expect(await kept(model)).toEqual(await goneThrough(model))
}, 60_000)

it('is counted by itself a moment after it was written', async () => {
  const visit = await open(uuidv7())
  await set(visit, uuidv7(), { name: 'One of a kind', model: 'brackwater-c3', modelVersion: 1, firmwareBefore: '9.9' })
  await expect
    .poll(() => versionsInUse(company.services.db, 'brackwater-c3'), { timeout: 8_000 })
    .toEqual([{ firmware: '9.9', units: 1, homes: 1 }])
})

it('what was counted wrongly is found by whoever checks all, and said of the visit', async () => {
  const { db, logbook } = company.services
  expect(await checkAll(logbook)).toEqual([])
  await run(db, 'UPDATE home_models SET units = units + 1 LIMIT 1')
  const faults = await checkAll(logbook)
  expect(faults.length).toBeGreaterThan(0)
  expect(faults[0]!.what).toContain('home models')
  await rebuildProjections(logbook)
  expect(await checkAll(logbook)).toEqual([])
})

it('is answered from what is kept, with no look at units or visits', async () => {
  const plan = await rows<{ table: string; key: string }>(
    company.services.db,
    `EXPLAIN SELECT (SELECT h.firmware FROM home_models h FORCE INDEX (by_version) WHERE h.model = s.model AND h.firmware_key = s.firmware_key LIMIT 1), s.units FROM model_versions s WHERE s.model = 'ostrel-tern' AND s.units > 0 ORDER BY s.firmware_key LIMIT 500`
  )
  expect(plan.map(({ table, key }) => `${table} ${key}`).sort()).toEqual(['h by_version', 's PRIMARY'])
})
