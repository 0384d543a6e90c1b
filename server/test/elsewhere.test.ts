import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { rows } from '../src/db/pool'
import { STANDS_NOW } from '../src/db/stands'
import { Caller, demoModels, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, wenna] = await Promise.all([Caller.as(company.running, 'isolde'), Caller.as(company.running, 'wenna')])
})
afterAll(() => company.stop())

async function put(visit: string, unit: string, set: Record<string, unknown>) {
  const { status, text } = await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'unit.set', { id: unit, set })]
  })
  if (status !== 200) throw new Error(text)
}
async function stateOf(visit: string) {
  const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
  await company.services.followUp.caughtUp(5_000)
  const [state] = await rows<{ outcome: string }>(
    company.services.db,
    "SELECT outcome FROM findings WHERE visit_id = ? AND rule = 'kit-identity' ORDER BY outcome LIMIT 1",
    [visit]
  )
  return { record: reduce(body.entries as Placed[]), outcome: state?.outcome }
}
const tern = { model: 'ostrel-tern', modelVersion: 1 }

describe('a unit that stands at another home', () => {
  it('is called out at once by MAC address and by serial, with where and since when', async () => {
    const [first, second] = [await openAVisit(isolde), await openAVisit(isolde)]
    const [item, two, three] = [uuidv7(), uuidv7(), uuidv7()]
    await put(first, item, { ...tern, serial: 'TE1-1000-ACDE', mac: '00:00:5e:00:53:c1' })
    await put(second, two, { ...tern, serial: 'TE1-9999-ACDE', mac: '00-00-5E-00-53-C1' })
    await put(second, three, { ...tern, serial: 'TE1-1000-ACDE', mac: '00:00:5e:00:53:c3' })
    const { record, outcome } = await stateOf(second)
    const there = (await stateOf(first)).record.visit
    expect(record.units[two]!.elsewhere).toMatchObject([{ by: 'mac', home: there.home, visit: first, sealed: false }])
    expect(record.units[three]!.elsewhere).toMatchObject([{ by: 'serial', home: there.home }])
    expect(outcome).toBe('breaks')
    expect((await stateOf(first)).record.units[item]!.elsewhere).toBeUndefined()
  })

  it('is so no longer once the label was read right', async () => {
    const [first, second] = [await openAVisit(isolde), await openAVisit(isolde)]
    const two = uuidv7()
    await put(first, uuidv7(), { ...tern, serial: 'TE2-1000-ACDE', mac: '00:00:5e:00:53:d1' })
    await put(second, two, { ...tern, serial: 'TE2-2000-ACDE', mac: '00:00:5e:00:53:d1' })
    await put(second, two, { mac: '00:00:5e:00:53:d2' })
    const { record, outcome } = await stateOf(second)
    expect([record.units[two]!.elsewhere, outcome]).toEqual([[], 'holds'])
  })

  it('the same serial on another model is another unit', async () => {
    const [first, second] = [await openAVisit(isolde), await openAVisit(isolde)]
    const two = uuidv7()
    await put(first, uuidv7(), { ...tern, serial: '100200' })
    await put(second, two, { model: 'quillet-reed', modelVersion: 1, serial: '100200' })
    expect((await stateOf(second)).record.units[two]!.elsewhere).toBeUndefined()
  })

  it('that was brought from there holds, and a third home is told of where it stands now', async () => {
    const [first, second, third] = [await openAVisit(isolde), await openAVisit(isolde), await openAVisit(isolde)]
    const [item, two, three] = [uuidv7(), uuidv7(), uuidv7()]
    const mac = '00:00:5e:00:53:e1'
    await put(first, item, { ...tern, serial: 'TE3-1000-ACDE', mac })
    await put(second, two, { ...tern, serial: 'TE3-1000-ACDE', mac })
    const from = (await stateOf(first)).record.visit.home
    const moved = await isolde.call('POST', `/visits/${second}/entries`, {
      entries: [draft(second, 'unit.transferred', { unit: two, from, reason: 'The customer moved house.' })]
    })
    expect([moved.status, (await stateOf(second)).outcome]).toEqual([200, 'holds'])
    await put(third, three, { ...tern, serial: 'TE3-1000-ACDE', mac })
    expect((await stateOf(third)).record.units[three]!.elsewhere!.map(({ home }) => home)).toEqual([
      (await stateOf(second)).record.visit.home
    ])
    const here = (await stateOf(second)).record.visit.home
    const wrong = await isolde.call<{ errors: { field: string }[] }>('POST', `/visits/${second}/entries`, {
      entries: [draft(second, 'unit.transferred', { unit: two, from: here, reason: 'no' })]
    })
    expect([wrong.status, wrong.body.errors[0]!.field]).toEqual([422, 'entries[0].body.from'])
  })

  it('is looked for by an index, not by going through every unit', async () => {
    for (const by of ['u.mac = ?', 'u.serial = ? AND u.model = ?']) {
      const plan = await rows<{ table: string; type: string; key: string | null }>(
        company.services.db,
        `EXPLAIN SELECT u.home_id FROM units u JOIN visits v ON v.id = u.visit_id WHERE u.home_id <> 'x' AND ${STANDS_NOW} AND ${by}`,
        by.includes('model') ? ['a', 'b'] : ['a']
      )
      expect(plan.filter(({ type }) => type === 'ALL' || type === 'index')).toEqual([])
    }
  })
})

describe('models', () => {
  const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
  const next = (change: (model: typeof heron) => void) => {
    const model = structuredClone(heron)
    model.version = 2
    change(model)
    return model
  }

  it('the effect of a new version on open visits is told before it is published', async () => {
    const visit = await openAVisit(isolde, { street: '77 Effect Lane' })
    await put(visit, uuidv7(), { model: 'ostrel-heron', modelVersion: 1, name: 'Hall', role: 'router', method: 'app' })
    const { body } = await wenna.call<{
      visits: { street: string; units: { name: string; version: number; breaks: string[] }[] }[]
    }>('POST', '/models/effect', {
      model: next((model) => {
        model.methods[0]!.id = 'other-app'
      })
    })
    expect(body.visits).toMatchObject([
      {
        street: '77 Effect Lane',
        units: [{ name: 'Hall', version: 1, breaks: [expect.stringContaining('method app')] }]
      }
    ])
    expect(
      (
        await wenna.call<{ visits: { units: { breaks: string[] }[] }[] }>('POST', '/models/effect', {
          model: next(() => undefined)
        })
      ).body.visits[0]!.units[0]!.breaks
    ).toEqual([])
    expect((await isolde.call('POST', '/models/effect', { model: heron })).status).toBe(403)
  })

  it('a whole catalogue goes out and comes in: what is here stays, the next is published, all or none', async () => {
    const all = { format: 'pasado.catalogue/1', models: demoModels }
    expect((await wenna.call('POST', '/models/import', { catalogue: all })).body).toEqual({
      published: [],
      known: demoModels.length
    })
    const good = next((model) => {
      model.twin = 'The router is the one with the blue port.'
    })
    const bad = { ...structuredClone(demoModels[1]!), version: 2, start: 'nowhere' }
    const none = await wenna.call<{ errors: { field: string }[] }>('POST', '/models/import', {
      catalogue: { ...all, models: [good, bad] }
    })
    expect([none.status, none.body.errors[0]!.field]).toEqual([422, 'catalogue.models[1].start'])
    expect((await wenna.call('POST', '/models/import', { catalogue: { ...all, models: [good] } })).body).toEqual({
      published: ['ostrel-heron@2'],
      known: 0
    })
    const changed = await wenna.call<{ errors: { detail: string }[] }>('POST', '/models/import', {
      catalogue: { ...all, models: [{ ...good, twin: 'other' }] }
    })
    expect(changed.body.errors[0]!.detail).toContain('give it version 3')
    const later = await wenna.call<{ errors: { field: string }[] }>('POST', '/models/import', {
      catalogue: { ...all, format: 'pasado.catalogue/2' }
    })
    expect(later.body.errors[0]!.field).toBe('catalogue.format')
    const unknown = await wenna.call<{ errors: { field: string }[] }>('POST', '/models', {
      model: { ...good, version: 3, glitter: true }
    })
    expect(unknown.body.errors.map(({ field }) => field)).toContain('model.glitter')
  })

  it('that was published just now can be recorded at once, by its box and by itself', async () => {
    const visit = await openAVisit(isolde)
    await put(visit, uuidv7(), tern)
    const sill = { ...demoModels.find(({ id }) => id === 'karstine-sill')!, version: 2 }
    expect((await wenna.call('POST', '/models', { model: sill })).status).toBe(201)
    await put(visit, uuidv7(), { model: 'karstine-sill', modelVersion: 2 })
    expect((await wenna.call('POST', '/models', { model: { ...sill, version: 3 } })).status).toBe(201)
    const box = await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'box.set', { id: uuidv7(), set: { model: 'karstine-sill', modelVersion: 3 } })]
    })
    expect(box.status).toBe(200)
    await expect(put(visit, uuidv7(), { model: 'karstine-sill', modelVersion: 4 })).rejects.toThrow(
      'no model karstine-sill of version 4 is in the catalogue'
    )
  })
})
