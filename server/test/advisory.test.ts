import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { isolde as person } from '@pasado/demo/company'
import { rows } from '../src/db/pool'
import { STANDS_NOW } from '../src/db/stands'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'
import { allCounted } from '@pasado/testing/counted'

let company: Awaited<ReturnType<typeof startCompany>>
let petroc: Caller
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  petroc = await Caller.as(company.running, 'petroc')
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

/** What stands where is counted a moment after it was written. */
async function counted() {
  await allCounted(company.services.db)
}

type Units = { units: { visit: string; unit: string; name: string; phone: string }[]; more: boolean }

it('a version with a hole leads to every home that runs it now, a page at a time, with whom to call; an update takes the home off', async () => {
  const visits: { visit: string; unit: string }[] = []
  for (let at = 0; at < 3; at++) {
    const [visit, unit] = [await openAVisit(isolde), uuidv7()]
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [
        draft(visit, 'brief.set', { set: { phone: `555-010${at}` } }),
        draft(visit, 'unit.set', {
          id: unit,
          set: {
            name: `Node ${at}`,
            model: 'ostrel-tern',
            modelVersion: 1,
            firmwareBefore: '2.8.1',
            ...(at === 2 ? { firmwareAfter: '3.1.0' } : {})
          }
        })
      ]
    })
    visits.push({ visit, unit })
  }
  const inUse = async () => {
    await counted()
    return (
      await petroc.call<{ versions: { firmware: string; units: number; homes: number }[] }>(
        'GET',
        '/advisory/ostrel-tern'
      )
    ).body.versions
  }
  expect(await inUse()).toEqual([
    { firmware: '2.8.1', units: 2, homes: 2 },
    { firmware: '3.1.0', units: 1, homes: 1 }
  ])
  const { body: first } = await petroc.call<Units>('GET', '/advisory/ostrel-tern/homes?version=2.8.1')
  expect(first.units.map(({ name, phone }) => `${name} ${phone}`).sort()).toEqual([
    'Node 0 555-0100',
    'Node 1 555-0101'
  ])
  expect(first.more).toBe(false)
  const [item, two] = first.units
  const { body: rest } = await petroc.call<Units>(
    'GET',
    `/advisory/ostrel-tern/homes?version=2.8.1&afterVisit=${item!.visit}&afterUnit=${item!.unit}`
  )
  expect(rest.units.map(({ unit }) => unit)).toEqual([two!.unit])
  await isolde.call('POST', `/visits/${visits[0]!.visit}/entries`, {
    entries: [draft(visits[0]!.visit, 'unit.set', { id: visits[0]!.unit, set: { firmwareAfter: '3.1.0' } })]
  })
  expect((await inUse())[0]).toMatchObject({ firmware: '2.8.1', units: 1 })
  expect((await petroc.call('GET', '/advisory/ostrel-tern/homes')).status).toBe(422)
})

it('no home is forgotten because somebody is to go there, and versions that are one are one', async () => {
  const model = 'fenmarrow-lattice-3'
  const known = async () => {
    await counted()
    return (
      await petroc.call<{ versions: { firmware: string | null; units: number; homes: number }[] }>(
        'GET',
        `/advisory/${model}`
      )
    ).body.versions
  }
  const [home, other] = [uuidv7(), uuidv7()]
  const open = async (at: string) => {
    const id = uuidv7()
    const { status, text } = await isolde.call('POST', '/visits', {
      id,
      home: at,
      customer: at,
      technician: person.id,
      brief: { customerName: 'Cressa Oakum', street: '8 Recall Row', town: 'Ness Skerrow' }
    })
    expect([status, text]).toEqual([201, expect.anything()])
    return id
  }
  const stands = await open(home)
  const units = { withdrawn: uuidv7(), same: uuidv7(), unread: uuidv7() }
  for (const [id, set] of [
    [units.withdrawn, { firmwareBefore: 'v3.0.0' }],
    [units.same, { firmwareBefore: '3.0' }],
    [units.unread, {}]
  ] as const)
    await isolde.call('POST', `/visits/${stands}/entries`, {
      entries: [draft(stands, 'unit.set', { id, set: { name: id.slice(0, 4), model, modelVersion: 1, ...set } })]
    })
  const wanted = [
    { firmware: null, units: 1, homes: 1 },
    { firmware: expect.stringMatching(/^v?3\.0(\.0)?$/) as string, units: 2, homes: 1 }
  ]
  expect(await known()).toEqual(wanted)
  const booked = await open(home)
  await open(other)
  expect(await known()).toEqual(wanted)
  for (const spelling of ['3.0.0', 'V3.0', '3'])
    expect(
      (await petroc.call<Units>('GET', `/advisory/${model}/homes?version=${spelling}`)).body.units
        .map(({ unit }) => unit)
        .sort()
    ).toEqual([units.withdrawn, units.same].sort())
  expect(
    (await petroc.call<Units>('GET', `/advisory/${model}/homes?unknown=true`)).body.units.map(({ unit }) => unit)
  ).toEqual([units.unread])
  expect((await petroc.call('GET', `/advisory/${model}/homes?unknown=true&version=3`)).status).toBe(422)
  for (const query of [`model=${model}`, `model=${model}&firmware=3.0.0`, `q=recall&model=${model}&firmware=v3`])
    expect(
      (await petroc.call<{ homes: { id: string }[] }>('GET', `/homes?${query}`)).body.homes.map(({ id }) => id)
    ).toEqual([home])
  // The visit that is opened last says what a unit of it runs now.
  await isolde.call('POST', `/visits/${booked}/entries`, {
    entries: [
      draft(booked, 'unit.set', { id: units.withdrawn, set: { model, modelVersion: 1, firmwareAfter: '3.1.0' } })
    ]
  })
  expect(await known()).toEqual([
    wanted[0],
    { firmware: '3.0', units: 1, homes: 1 },
    { firmware: '3.1.0', units: 1, homes: 1 }
  ])
})

it('both questions are answered from an index', async () => {
  const plan = await rows<{ table: string; key: string | null; type: string }>(
    company.services.db,
    `EXPLAIN SELECT STRAIGHT_JOIN u.home_id FROM units u JOIN visits v FORCE INDEX (PRIMARY) ON v.id = u.visit_id JOIN homes h FORCE INDEX (PRIMARY) ON h.id = u.home_id WHERE u.model = ? AND u.firmware_key <=> ? AND ${STANDS_NOW} ORDER BY u.visit_id, u.unit_id LIMIT 100`,
    ['ostrel-tern', '2.8.1']
  )
  expect(plan.filter(({ type }) => type === 'ALL')).toEqual([])
  expect(plan.find(({ table }) => table === 'u')!.key).toBe('by_version')
})
