import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { rows } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from './company'

let company: Awaited<ReturnType<typeof startCompany>>
let petroc: Caller
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  petroc = await Caller.as(company.running, 'petroc')
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

type Units = { units: { visit: string; unit: string; name: string; phone: string }[]; more: boolean }

it('a version with a hole leads to every home that runs it now, a page at a time, with whom to call; an update takes the home off', async () => {
  const visits: { visit: string; unit: string }[] = []
  for (let at = 0; at < 3; at++) {
    const [visit, unit] = [await openAVisit(isolde), uuidv7()]
    await isolde.call('POST', `/visits/${visit}/entries`, { entries: [draft(visit, 'brief.set', { set: { phone: `555-010${at}` } }), draft(visit, 'unit.set', { id: unit, set: { name: `Node ${at}`, model: 'ostrel-tern', modelVersion: 1, firmwareBefore: '2.8.1', ...(at === 2 ? { firmwareAfter: '3.1.0' } : {}) } })] })
    visits.push({ visit, unit })
  }
  const inUse = async () => (await petroc.call<{ versions: { firmware: string; units: number; homes: number }[] }>('GET', '/advisory/ostrel-tern')).body.versions
  expect(await inUse()).toEqual([{ firmware: '2.8.1', units: 2, homes: 2 }, { firmware: '3.1.0', units: 1, homes: 1 }])
  const { body: first } = await petroc.call<Units>('GET', '/advisory/ostrel-tern/homes?version=2.8.1')
  expect(first.units.map(({ name, phone }) => `${name} ${phone}`).sort()).toEqual(['Node 0 555-0100', 'Node 1 555-0101'])
  expect(first.more).toBe(false)
  const [one, two] = first.units
  const { body: rest } = await petroc.call<Units>('GET', `/advisory/ostrel-tern/homes?version=2.8.1&afterVisit=${one!.visit}&afterUnit=${one!.unit}`)
  expect(rest.units.map(({ unit }) => unit)).toEqual([two!.unit])
  await isolde.call('POST', `/visits/${visits[0]!.visit}/entries`, { entries: [draft(visits[0]!.visit, 'unit.set', { id: visits[0]!.unit, set: { firmwareAfter: '3.1.0' } })] })
  expect((await inUse())[0]).toMatchObject({ firmware: '2.8.1', units: 1 })
  expect((await petroc.call('GET', '/advisory/ostrel-tern/homes')).status).toBe(422)
})

it('both questions are answered from an index', async () => {
  const plan = await rows<{ table: string; key: string | null; type: string }>(company.services.db, `EXPLAIN SELECT STRAIGHT_JOIN u.home_id FROM units u JOIN homes h FORCE INDEX (PRIMARY) ON h.id = u.home_id AND h.latest_visit = u.visit_id WHERE u.model = ? AND u.firmware = ? ORDER BY u.visit_id, u.unit_id LIMIT 100`, ['ostrel-tern', '2.8.1'])
  expect(plan.every(({ type }) => type !== 'ALL')).toBe(true)
  expect(plan.find(({ table }) => table === 'u')!.key).toBe('by_model')
})
