import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { dueErasures } from '../src/db/erasures'
import { eraseAsAnswered } from '../src/logbook/secrets'
import { serverAuthor } from '../src/logbook/server-author'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
let wenna: Caller
let petroc: Caller
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, corin, wenna, petroc] = (await Promise.all(
    ['isolde', 'corin', 'wenna', 'petroc'].map((login) => Caller.as(company.running, login))
  )) as [Caller, Caller, Caller, Caller]
})
afterAll(() => company.stop())

const outbox = uuidv7()
const set = (caller: Caller, visit: string, what: 'cancel' | 'reopen', reason = 'The customer moved the day.') =>
  caller.call<{ title: string }>('POST', `/visits/${visit}/${what}`, { reason })
const recordOf = async (visit: string) =>
  reduce((await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body.entries as Placed[])
const note = (visit: string) =>
  draft(visit, 'note.written', { text: 'The loft hatch sticks.' }, { from: outbox, base: 1 })
const isListed = async (visit: string) => {
  const { body } = await isolde.call<{ visits: { id: string }[] }>('GET', '/day?whose=mine')
  return body.visits.some(({ id }) => id === visit)
}

it('a visit that takes place no more is cancelled with why, stands in nobody’s day, and is reopened', async () => {
  const visit = await openAVisit(isolde)
  expect(await isListed(visit)).toBe(true)
  expect((await set(isolde, visit, 'cancel')).status).toBe(204)
  expect((await recordOf(visit)).visit.cancelled).toMatchObject({
    reason: 'The customer moved the day.',
    by: { name: 'Isolde Marram' }
  })
  expect(await isListed(visit)).toBe(false)
  // Twice is once.
  expect((await set(petroc, visit, 'cancel', 'Again.')).status).toBe(204)
  expect((await recordOf(visit)).visit.cancelled!.reason).toBe('The customer moved the day.')
  const refused = await isolde.call<{ title: string }>('POST', `/visits/${visit}/entries`, { entries: [note(visit)] })
  expect([refused.status, refused.body.title]).toEqual([
    409,
    'This visit was cancelled by Isolde Marram: reopen it first, with why.'
  ])
  expect((await set(petroc, visit, 'reopen', 'They called again.')).status).toBe(204)
  expect((await recordOf(visit)).visit).not.toHaveProperty('cancelled')
  expect(await isListed(visit)).toBe(true)
  expect((await isolde.call('POST', `/visits/${visit}/entries`, { entries: [note(visit)] })).status).toBe(200)
})

it('is for who has it, leads and the office; with why, and without a secret in it', async () => {
  const visit = await openAVisit(isolde)
  expect((await set(corin, visit, 'cancel')).status).toBe(403)
  expect((await set(wenna, visit, 'cancel', ' ')).status).toBe(422)
  await isolde.call('POST', `/visits/${visit}/secrets`, {
    ref: uuidv7(),
    purpose: 'provider-login',
    thing: 'brief',
    id: 'brief',
    origin: 'typed',
    value: 'demo-gannet-slate-79'
  })
  expect((await set(wenna, visit, 'cancel', 'It is demo-gannet-slate-79.')).status).toBe(422)
  expect((await set(wenna, visit, 'cancel')).status).toBe(204)
  expect((await set(corin, visit, 'reopen')).status).toBe(403)
})

it('its secrets are erased after the standard’s days, unless it was reopened before', async () => {
  const visit = await openAVisit(isolde)
  const keep = () =>
    isolde.call('POST', `/visits/${visit}/secrets`, {
      ref: uuidv7(),
      purpose: 'provider-login',
      thing: 'brief',
      id: 'brief',
      origin: 'typed',
      value: 'demo-gannet-slate-81'
    })
  expect((await keep()).status).toBe(201)
  const { logbook } = company.services
  const after = (days: number) => new Date(Date.now() + days * 24 * 3_600_000)
  const erase = (days: number) => eraseAsAnswered(logbook, visit, serverAuthor, after(days))
  expect(await erase(400)).toBe(false)
  await set(isolde, visit, 'cancel')
  expect((await dueErasures(company.services.db, after(29), 100)).includes(visit)).toBe(false)
  expect((await dueErasures(company.services.db, after(31), 100)).includes(visit)).toBe(true)
  await set(isolde, visit, 'reopen')
  expect((await dueErasures(company.services.db, after(400), 100)).includes(visit)).toBe(false)
  await set(isolde, visit, 'cancel')
  expect(await erase(29)).toBe(false)
  expect(await erase(31)).toBe(true)
  expect((await recordOf(visit)).secretsErased).toBe(true)
})

it('a look that it booked stands in nobody’s day any more', async () => {
  const visit = await openAVisit(isolde)
  const check = uuidv7()
  const at = (hours: number) => new Date(Date.now() + hours * 3_600_000).toISOString()
  const booked = draft(visit, 'check.booked', { id: check, from: at(1), to: at(5) }, { from: outbox, base: 1 })
  expect((await isolde.call('POST', `/visits/${visit}/entries`, { entries: [booked] })).status).toBe(200)
  const isDue = async () => {
    const { body } = await isolde.call<{ checks: { id: string }[] }>('GET', '/day?whose=mine')
    return body.checks.some(({ id }) => id === check)
  }
  expect(await isDue()).toBe(true)
  await set(isolde, visit, 'cancel')
  expect(await isDue()).toBe(false)
})

it('no secret is kept in what is cancelled', async () => {
  const visit = await openAVisit(isolde)
  await set(isolde, visit, 'cancel')
  const kept = await isolde.call('POST', `/visits/${visit}/secrets`, {
    ref: uuidv7(),
    purpose: 'provider-login',
    thing: 'brief',
    id: 'brief',
    origin: 'typed',
    value: 'demo-gannet-slate-80'
  })
  expect(kept.status).toBe(409)
})
