import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { rows } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  corin = await Caller.as(company.running, 'corin')
})
afterAll(() => company.stop())

const hours = (count: number) => new Date(Date.now() + count * 3_600_000).toISOString()
type Day = { checks: { id: string; street: string; from: string }[] }

/** A visit with a measured room and a check that is booked. */
async function booked(from: string, to: string): Promise<{ visit: string; check: string; room: string }> {
  const visit = await openAVisit(isolde)
  const [check, room] = [uuidv7(), uuidv7()]
  const entries = [
    draft(visit, 'room.set', { id: room, set: { name: 'Loft', listed: true } }),
    draft(visit, 'measurement.set', { id: uuidv7(), set: { at: 'source', runs: [{ downMbps: 200, idleMs: 9 }] } }),
    draft(visit, 'measurement.set', {
      id: uuidv7(),
      set: { at: 'room', room, band: '5', dbm: -60, runs: [{ downMbps: 150, idleMs: 14 }] }
    }),
    draft(visit, 'check.booked', { id: check, from, to })
  ]
  expect((await isolde.call('POST', `/visits/${visit}/entries`, { entries })).status).toBe(200)
  return { visit, check, room }
}

describe('a check that is booked', () => {
  it('stands in the day of who booked it until it is done, with the rooms as they were; the first result stands', async () => {
    const { check, room } = await booked(hours(20), hours(26))
    const day = async (who: Caller) => (await who.call<Day>('GET', '/day?whose=mine')).body.checks.map(({ id }) => id)
    expect(await day(isolde)).toContain(check)
    expect(await day(corin)).not.toContain(check)
    const { body } = await isolde.call<{ rooms: unknown[]; sourceMbps: number; result: unknown }>(
      'GET',
      `/checks/${check}`
    )
    expect(body).toMatchObject({
      rooms: [{ room, name: 'Loft', band: '5', dbm: -60, downMbps: 150, idleMs: 14 }],
      sourceMbps: 200,
      result: null
    })
    const result = { rooms: [{ room, dbm: -63, run: { downMbps: 140, idleMs: 15 } }] }
    const bad = await isolde.call<{ errors: { detail: string }[] }>('POST', `/checks/${check}/result`, {
      rooms: [{ room, dbm: -63, run: { idleMs: -1 } }]
    })
    expect([bad.status, bad.body.errors[0]!.detail]).toEqual([422, expect.stringContaining('never negative')])
    expect((await isolde.call('POST', `/checks/${check}/result`, result)).status).toBe(201)
    await corin.call('POST', `/checks/${check}/result`, { rooms: [{ room, run: { downMbps: 1 } }] })
    expect(
      (await isolde.call<{ result: unknown; check: { by: string } }>('GET', `/checks/${check}`)).body
    ).toMatchObject({ result, check: { by: 'Isolde Marram' } })
    expect(await day(isolde)).not.toContain(check)
    expect((await isolde.call('GET', `/checks/${uuidv7()}`)).status).toBe(404)
  })

  it('far ahead it does not crowd the day, taken back it is gone, and nobody moves another visit’s', async () => {
    const far = await booked(hours(24 * 9), hours(24 * 9 + 4))
    const near = await booked(hours(3), hours(9))
    const ids = async () => (await isolde.call<Day>('GET', '/day?whose=mine')).body.checks.map(({ id }) => id)
    expect(await ids()).not.toContain(far.check)
    await isolde.call('POST', `/visits/${far.visit}/entries`, {
      entries: [draft(far.visit, 'check.booked', { id: near.check, from: hours(24 * 20), to: hours(24 * 21) })]
    })
    expect(await ids()).toContain(near.check)
    await isolde.call('POST', `/visits/${near.visit}/entries`, {
      entries: [draft(near.visit, 'check.cancelled', { id: near.check })]
    })
    expect(await ids()).not.toContain(near.check)
    const wrong = await isolde.call<{ errors: { detail: string }[] }>('POST', `/visits/${near.visit}/entries`, {
      entries: [draft(near.visit, 'check.booked', { id: uuidv7(), from: hours(9), to: hours(3) })]
    })
    expect(wrong.body.errors[0]!.detail).toContain('later than its beginning')
  })

  it('the day finds them by an index', async () => {
    const [plan] = await rows<{ key: string | null }>(
      company.services.db,
      'EXPLAIN SELECT checks.check_id FROM checks FORCE INDEX (by_due) WHERE checks.due_from < ? ORDER BY checks.due_from, checks.check_id LIMIT 100',
      [new Date()]
    )
    expect(plan!.key).toBe('by_due')
  })
})

describe('the speed source that ships', () => {
  const at = (path: string) => `${company.running.address}/stand-ins/speed/${path}`
  it('sends and takes what is asked, not compressed, to who is logged in only', async () => {
    expect((await fetch(at('ping'))).status).toBe(401)
    const headers = { cookie: isolde.cookie }
    const down = await fetch(at('down?octets=200000'), { headers: { ...headers, 'accept-encoding': 'gzip' } })
    expect((await down.arrayBuffer()).byteLength).toBe(200_000)
    expect(down.headers.get('content-encoding')).toBeNull()
    expect(down.headers.get('cache-control')).toContain('no-store')
    const up = await fetch(at('up'), { method: 'POST', headers, body: new Uint8Array(300_000) })
    expect(await up.json()).toEqual({ octets: 300_000 })
    expect((await fetch(at('ping'), { headers })).status).toBe(204)
    for (const octets of ['0', '-4', 'many', '1e12'])
      expect((await fetch(at(`down?octets=${octets}`), { headers })).status).toBe(422)
  })
})
