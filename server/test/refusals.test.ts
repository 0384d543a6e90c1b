import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import type { Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { signedDigest } from '@pasado/core/record/seal'
import { demoModels } from '@pasado/demo/models/all'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  wenna = await Caller.as(company.running, 'wenna')
})
afterAll(() => company.stop())

type Refused = { errors: { field: string; detail: string }[] }

describe('a waiver', () => {
  it('until a day that has passed is not taken; one until today is', async () => {
    const visit = await openAVisit(isolde)
    const day = (from: number) => new Date(Date.now() + from * 86_400_000).toISOString().slice(0, 10)
    const grant = (until: string) =>
      wenna.call<Refused>('POST', `/visits/${visit}/entries`, {
        entries: [
          draft(
            visit,
            'waiver.granted',
            { rule: 'kit-identity', reason: 'Agreed with the customer.', until },
            { at: new Date().toISOString() }
          )
        ]
      })
    expect((await grant('2020-01-01')).body.errors).toEqual([
      expect.objectContaining({
        field: 'entries[0].body.until',
        detail: expect.stringContaining('has passed') as string
      })
    ])
    expect((await grant(day(-1))).status).toBe(422)
    expect([(await grant(day(0))).status, (await grant(day(30))).status]).toEqual([200, 200])
  })
})

describe('a model', () => {
  const bare = {
    ...demoModels[0]!,
    id: 'maker-model',
    version: 1,
    maker: 'Maker',
    name: 'Model',
    ports: [],
    radios: [],
    box: [],
    methods: [],
    kits: undefined
  }

  it('that nobody filled in is not published', async () => {
    const { status, body } = await wenna.call<Refused>('POST', '/models', { model: JSON.parse(JSON.stringify(bare)) })
    expect([status, body.errors.map(({ field }) => field)]).toEqual([
      422,
      expect.arrayContaining(['model.maker', 'model.name', 'model.id', 'model.ports'])
    ])
  })

  it('is taken out of what is offered, and put back; its records keep it', async () => {
    const id = 'ostrel-tern'
    const retired = async () =>
      (await isolde.call<{ retired: string[]; models: { id: string }[] }>('GET', '/catalogue')).body
    expect((await isolde.call('POST', `/models/${id}/offered`, { offered: false })).status).toBe(403)
    expect((await wenna.call('POST', '/models/no-such-model/offered', { offered: false })).status).toBe(404)
    for (let twice = 0; twice < 2; twice++)
      expect((await wenna.call('POST', `/models/${id}/offered`, { offered: false })).status).toBe(204)
    expect((await retired()).retired).toEqual([id])
    expect((await retired()).models.map((model) => model.id)).toContain(id)
    const visit = await openAVisit(isolde)
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'unit.set', { id: uuidv7(), set: { model: id, modelVersion: 1 } })]
    })
    expect(
      (await isolde.call<{ models: { id: string }[] }>('GET', `/visits/${visit}`)).body.models.map((model) => model.id)
    ).toContain(id)
    await wenna.call('POST', `/models/${id}/offered`, { offered: true })
    expect((await retired()).retired).toEqual([])
  })
})

it('a lead’s own visit does not wait for their own review', async () => {
  const own = await openAVisit(wenna)
  const { id: lead } = (await wenna.call<{ person: { id: string } }>('GET', '/session')).body.person
  await wenna.call('POST', `/visits/${own}/hand`, { technician: lead, reason: 'I go myself.' })
  await wenna.call('POST', `/visits/${own}/entries`, {
    entries: [draft(own, 'review.asked', { remark: 'Look, please.' })]
  })
  const other = await openAVisit(isolde)
  await isolde.call('POST', `/visits/${other}/entries`, {
    entries: [draft(other, 'review.asked', { remark: 'Look, please.' })]
  })
  const waiting = (await wenna.call<{ review: { id: string; technician: string }[] }>('GET', '/day')).body.review
  expect(waiting.map(({ id }) => id)).toContain(other)
  expect(waiting.filter(({ technician }) => technician === lead)).toEqual([])
})

it('an empty new installation is not sealed', async () => {
  const visit = await openAVisit(isolde, { reason: 'new' })
  const { entries } = (await isolde.call<{ entries: Placed[] }>('GET', `/visits/${visit}`)).body
  const { body } = await isolde.call<{ hindrances: string[] }>('POST', `/visits/${visit}/seal`, {
    digest: signedDigest(reduce(entries))
  })
  expect(body.hindrances).toContainEqual(expect.stringContaining('no unit is recorded'))
})
