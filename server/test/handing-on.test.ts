import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { corin, isolde as isoldeHerself, petroc as petrocHimself } from '@pasado/demo/company'
import { Caller, openAVisit, startCompany } from '@pasado/testing/company'

interface ProblemBody {
  title: string
  errors?: { field: string; detail: string }[]
}

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let other: Caller
let petroc: Caller
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, other, petroc] = await Promise.all([
    Caller.as(company.running, 'isolde'),
    Caller.as(company.running, 'corin'),
    Caller.as(company.running, 'petroc')
  ])
})
afterAll(() => company.stop())

const hand = (by: Caller, visit: string, technician: string, reason = 'She is ill.') =>
  by.call<ProblemBody>('POST', `/visits/${visit}/technician`, { technician, reason })
const dayOf = async (caller: Caller) =>
  (await caller.call<{ visits: { id: string }[] }>('GET', '/day?whose=mine')).body.visits.map(({ id }) => id)
const recordOf = async (visit: string) =>
  reduce((await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body.entries as Placed[])

it('a visit moves to another’s day, and the logbook says who did it and why', async () => {
  const visit = await openAVisit(isolde)
  expect((await hand(isolde, visit, corin.id)).status).toBe(204)
  expect([(await dayOf(isolde)).includes(visit), (await dayOf(other)).includes(visit)]).toEqual([false, true])
  expect((await recordOf(visit)).visit).toMatchObject({
    technician: { id: corin.id, name: corin.name },
    before: [{ id: isoldeHerself.id }]
  })
  const { body } = await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
  expect(body.entries.at(-1)).toMatchObject({
    kind: 'visit.handed',
    by: { id: isoldeHerself.id },
    body: { reason: 'She is ill.' }
  })
  // To the same one once more changes nothing.
  expect((await hand(other, visit, corin.id)).status).toBe(204)
  expect((await recordOf(visit)).lastSeq).toBe(body.entries.length)
})

it('a technician takes one over or gives their own away, but does not send others; the office does', async () => {
  const visit = await openAVisit(isolde)
  expect((await hand(other, visit, (await recordOf(visit)).visit.technician.id)).status).toBe(403)
  expect((await hand(other, visit, corin.id, 'I am next door.')).status).toBe(204)
  expect((await hand(petroc, visit, isoldeHerself.id, 'The customer asked for her.')).status).toBe(204)
  const { body } = await hand(isolde, visit, petrocHimself.id)
  expect(body.errors![0]).toMatchObject({
    field: 'technician',
    detail: expect.stringContaining('nobody who can be sent') as string
  })
  expect((await hand(isolde, visit, corin.id, ' ')).body.errors![0]!.field).toBe('reason')
})

it('a reason holds no secret of the visit', async () => {
  const visit = await openAVisit(isolde)
  const kept = await isolde.call('POST', `/visits/${visit}/secrets`, {
    ref: crypto.randomUUID(),
    purpose: 'provider-login',
    thing: 'brief',
    id: 'brief',
    value: 'demo-gannet-slate-77',
    origin: 'typed'
  })
  expect(kept.status).toBeLessThan(300)
  const { status, body } = await hand(isolde, visit, corin.id, 'Its password is demo-gannet-slate-77.')
  expect([status, body.errors![0]!.field]).toEqual([422, 'reason'])
  expect(JSON.stringify(body)).not.toContain('gannet')
})

it('a sealed visit stays with who sealed it', async () => {
  const visit = await openAVisit(isolde)
  await company.services.db.query('UPDATE visits SET sealed_at = NOW(3) WHERE id = ?', [visit])
  expect((await hand(isolde, visit, corin.id)).status).toBe(409)
})
