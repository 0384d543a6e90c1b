import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { reduce } from '@pasado/core/record/reduce'
import { corin as corinHimself } from '@pasado/demo/company'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
let wenna: Caller
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, corin, wenna] = (await Promise.all(
    ['isolde', 'corin', 'wenna'].map((login) => Caller.as(company.running, login))
  )) as [Caller, Caller, Caller]
})
afterAll(() => company.stop())

const [ofIsolde, ofCorin, ofWenna] = [uuidv7(), uuidv7(), uuidv7()]
const send = (caller: Caller, visit: string, ...entries: ReturnType<typeof draft>[]) =>
  caller.call<{ title: string }>('POST', `/visits/${visit}/entries`, { entries })
const note = (visit: string, from: string, base: number) =>
  draft(visit, 'note.written', { text: 'The loft hatch sticks.' }, { from, base })
const joined = (visit: string, from: string, reason = 'Two pairs of hands.') =>
  draft(visit, 'visit.joined', { reason }, { from, base: 1 })
const recordOf = async (visit: string) =>
  reduce((await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body.entries as Placed[])

it('another technician writes only once they joined, with why; a lead writes anyway', async () => {
  const visit = await openAVisit(isolde)
  const refused = await send(corin, visit, note(visit, ofCorin, 1))
  expect([refused.status, refused.body.title]).toEqual([
    403,
    'Isolde Marram has this visit. Join it first, and say why.'
  ])
  expect((await send(wenna, visit, note(visit, ofWenna, 1))).status).toBe(200)
  // In the line after they joined it is theirs to write, also in the same request.
  expect((await send(corin, visit, joined(visit, ofCorin), note(visit, ofCorin, 1))).status).toBe(200)
  expect((await send(corin, visit, note(visit, ofCorin, 2))).status).toBe(200)
  expect((await recordOf(visit)).visit.joined).toEqual([{ id: corinHimself.id, name: corinHimself.name }])
  expect((await send(isolde, visit, note(visit, ofIsolde, 1))).status).toBe(200)
})

it('what comes before joining in the same request is refused with all of it', async () => {
  const visit = await openAVisit(isolde)
  expect((await send(corin, visit, note(visit, ofCorin, 1), joined(visit, ofCorin))).status).toBe(403)
  expect((await recordOf(visit)).notes).toEqual([])
})

it('secrets, photographs and the pack of an open visit are for who works on it', async () => {
  const visit = await openAVisit(isolde)
  const secret = () => ({
    ref: uuidv7(),
    purpose: 'provider-login',
    thing: 'brief',
    id: 'brief',
    value: 'demo-gannet-slate-78',
    origin: 'typed'
  })
  expect((await corin.call('POST', `/visits/${visit}/secrets`, secret())).status).toBe(403)
  expect((await send(corin, visit, joined(visit, ofCorin))).status).toBe(200)
  expect((await corin.call('POST', `/visits/${visit}/secrets`, secret())).status).toBeLessThan(300)
})

it('only a lead turns a unit of the visit into something that stays; what it is then anybody who works there writes down', async () => {
  const visit = await openAVisit(isolde)
  const unit = uuidv7()
  const turned = (from: string) => draft(visit, 'stays.set', { id: unit, set: { kind: 'router' } }, { from, base: 2 })
  expect(
    (await send(isolde, visit, draft(visit, 'unit.set', { id: unit, set: { name: 'Router' } }, { from: ofIsolde })))
      .status
  ).toBe(200)
  expect((await send(isolde, visit, turned(ofIsolde))).status).toBe(403)
  expect((await send(wenna, visit, turned(ofWenna))).status).toBe(200)
  expect((await send(isolde, visit, turned(ofIsolde))).status).toBe(200)
})

it('who had it sends what was written then, for so long after it was handed on; what they write since is not taken', async () => {
  const visit = await openAVisit(isolde)
  const had = (await recordOf(visit)).lastSeq
  await isolde.call('POST', `/visits/${visit}/technician`, { technician: corinHimself.id, reason: 'She is ill.' })
  expect((await send(isolde, visit, note(visit, ofIsolde, had))).status).toBe(200)
  const since = await send(isolde, visit, note(visit, ofIsolde, had + 1))
  expect([since.status, since.body.title]).toEqual([403, 'Corin Saltway has this visit. Join it first, and say why.'])
  // Four days later it is too late, whatever its base says.
  const { logbook } = company.services
  const author = {
    id: (await recordOf(visit)).visit.before![0]!.id,
    name: 'Isolde Marram',
    role: 'technician' as const
  }
  const late = new Date(Date.now() + 96 * 3_600_000)
  await expect(logbook.append(visit, [note(visit, ofIsolde, had)], author, late)).rejects.toMatchObject({
    message: expect.stringContaining('more than 72 hours ago')
  })
})

it('what was never so is taken back by whoever wrote it, also in the request that wrote it, and by nobody else', async () => {
  const visit = await openAVisit(isolde)
  const unit = uuidv7()
  const reset = draft(visit, 'unit.event', { unit, what: 'reset' }, { from: ofIsolde, base: 1 })
  const undoing = (from: string, of = reset) =>
    draft(
      visit,
      'slip.undone',
      { undoes: of.id, kind: 'unit.event', at: of.at, unit, what: 'reset' },
      { from, base: from === ofIsolde ? 1 : 3 }
    )
  const made = draft(visit, 'unit.set', { id: unit, set: { name: 'Node' } }, { from: ofIsolde, base: 1 })
  expect((await send(isolde, visit, made, reset)).status).toBe(200)
  const byLead = await wenna.call<{ errors: { pointer: string; detail: string }[] }>(
    'POST',
    `/visits/${visit}/entries`,
    {
      entries: [undoing(ofWenna)]
    }
  )
  expect([byLead.status, byLead.body.errors[0]]).toMatchObject([
    422,
    { pointer: '/entries/0/body/undoes', detail: expect.stringContaining('only whoever wrote it') as string }
  ])
  const again = draft(visit, 'unit.event', { unit, what: 'reset' }, { from: ofIsolde, base: 1 })
  expect((await send(isolde, visit, undoing(ofIsolde), again, undoing(ofIsolde, again))).status).toBe(200)
  expect((await send(isolde, visit, undoing(ofIsolde))).status).toBe(422)
  expect((await recordOf(visit)).units[unit]!.events).toEqual([])
})

it('which came first of two lines that did not know of each other is taken from who wrote one of them, and from nobody else', async () => {
  const visit = await openAVisit(isolde)
  const unit = uuidv7()
  const made = draft(visit, 'unit.set', { id: unit, set: { name: 'Node' } }, { from: ofIsolde, base: 1 })
  expect((await send(isolde, visit, made, joined(visit, ofIsolde))).status).toBe(200)
  expect((await send(corin, visit, joined(visit, ofCorin))).status).toBe(200)
  const moved = draft(visit, 'unit.event', { unit, what: 'moved' }, { from: ofCorin, base: 4 })
  const tested = draft(visit, 'unit.event', { unit, what: 'tested-good' }, { from: ofIsolde, base: 4 })
  expect((await send(corin, visit, moved)).status).toBe(200)
  expect((await send(isolde, visit, tested)).status).toBe(200)
  const said = (from: string, change = moved.id, proof = tested.id) =>
    draft(visit, 'order.said', { change, proof, came: 'before' }, { from, base: 6 })
  expect((await send(wenna, visit, said(ofWenna))).status).toBe(422)
  expect((await send(corin, visit, said(ofCorin))).status).toBe(200)
  // A lead confirms what was said by who was there.
  expect((await send(wenna, visit, said(ofWenna))).status).toBe(200)
  // Of what had seen the other it is known.
  expect((await send(isolde, visit, said(ofIsolde, made.id, tested.id))).status).toBe(422)
  expect((await recordOf(visit)).words).toHaveLength(2)
})
