import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { signedDigest } from '@pasado/core/record/seal'
import { loadVisits } from '../../scripts/load-demo'
import { run, rows } from '../src/db/pool'
import { Caller, draft, otherDevice, startCompany } from '@pasado/testing/company'

interface Unheard {
  outboxes: { outbox: string; person: string; since: string }[]
}
interface Late {
  lines: { by: string; says: string }[]
}

const tablet = '0199c000-0000-7000-8000-0000000000a1'
const phone = '0199c000-0000-7000-8000-0000000000a2'
let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let corin: Caller
let petroc: Caller
let visit: string
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, corin, petroc] = (await Promise.all(
    ['isolde', 'corin', 'petroc'].map((login) => Caller.as(company.running, login))
  )) as [Caller, Caller, Caller]
  const ready = demoVisits().filter(({ brief }) => brief.street === '22 Dulse Road')
  await loadVisits(company.services, ready, new Date())
  visit = ready.at(-1)!.id
})
afterAll(() => company.stop())
beforeEach(() => run(company.services.db, 'DELETE FROM taken_along'))

const state = () => company.services.logbook.write(visit, new Date(), (open) => Promise.resolve(open.state))

/** Has the visit open from an outbox for a moment, and goes without a word, some minutes ago. */
async function hadOpen(who: Caller, outbox: string, minutesAgo: number): Promise<void> {
  const over = new AbortController()
  const stream = await fetch(`${who.address}/api/visits/${visit}/events?after=0&outbox=${outbox}`, {
    headers: { cookie: who.cookie },
    signal: over.signal
  })
  expect(stream.status).toBe(200)
  over.abort()
  const ago = (from: string) => `${from} - INTERVAL ${minutesAgo} MINUTE`
  await run(
    company.services.db,
    `UPDATE taken_along SET seen_at = ${ago('seen_at')}, said_at = ${ago('said_at')} WHERE outbox_id = ?`,
    [outbox]
  )
}
const unheard = async (asking?: string) =>
  (
    await isolde.call<Unheard>('GET', `/visits/${visit}/not-heard-from${asking ? `?outbox=${asking}` : ''}`)
  ).body.outboxes.map(({ outbox, person }) => [outbox, person])
const nothingWaits = (who: Caller, outbox: string, but: string[] = []) =>
  who.call('POST', `/outboxes/${outbox}/nothing-waits`, { but })

it('a device that has the visit open is there; one that went without a word is not heard from, until it says that nothing waits', async () => {
  await hadOpen(isolde, tablet, 0)
  expect(await unheard()).toEqual([])
  await hadOpen(isolde, phone, 5)
  expect(await unheard()).toEqual([[phone, 'Isolde Marram']])
  // Its own outbox is empty where somebody seals: what it holds goes before.
  expect(await unheard(phone)).toEqual([])
  await nothingWaits(isolde, phone, [visit])
  expect(await unheard()).toEqual([[phone, 'Isolde Marram']])
  // Nobody else says so for it, nor that it is there.
  await nothingWaits(corin, phone)
  const over = new AbortController()
  await fetch(`${corin.address}/api/visits/${visit}/events?after=0&outbox=${phone}`, {
    headers: { cookie: corin.cookie },
    signal: over.signal
  })
  over.abort()
  expect(await unheard()).toEqual([[phone, 'Isolde Marram']])
  await nothingWaits(isolde, phone)
  expect(await unheard()).toEqual([])
  // Whoever opens it once more and goes has to say so once more.
  await hadOpen(isolde, phone, 0)
  await run(company.services.db, 'UPDATE taken_along SET said_at = seen_at - INTERVAL 1 MINUTE WHERE outbox_id = ?', [
    phone
  ])
  await run(
    company.services.db,
    'UPDATE taken_along SET seen_at = seen_at - INTERVAL 5 MINUTE, said_at = said_at - INTERVAL 5 MINUTE WHERE outbox_id = ?',
    [phone]
  )
  expect(await unheard()).toEqual([[phone, 'Isolde Marram']])
})

it('who only looks at another’s visit holds nothing of it; who joined it does', async () => {
  await hadOpen(corin, otherDevice, 5)
  expect(await unheard()).toEqual([])
  const joined = draft(visit, 'visit.joined', { reason: 'Lends a hand.' }, { base: (await state()).seq })
  expect((await corin.call('POST', `/visits/${visit}/entries`, { entries: [joined] })).status).toBe(200)
  expect(await unheard()).toEqual([[otherDevice, 'Corin Saltway']])
})

it('is not sealed without them unless it is said why; then the record tells, and what comes later is kept beside it', async () => {
  await hadOpen(isolde, phone, 5)
  await isolde.call('POST', `/visits/${visit}/pack`, {})
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'pack.given', { how: 'printed' }, { base: (await state()).seq })]
  })
  const digest = signedDigest((await state()).record)
  for (const [who, name] of [
    ['customer', 'Kelp Farm'],
    ['technician', 'Isolde Marram']
  ] as const) {
    const signature = { who, name, strokes: 'M20 110 L60 90 L100 120', digest }
    await isolde.call('POST', `/visits/${visit}/entries`, {
      entries: [draft(visit, 'signature.given', signature, { base: (await state()).seq })]
    })
  }
  const seal = (more: object) =>
    isolde.call<{ title: string; errors?: { field: string }[] }>('POST', `/visits/${visit}/seal`, { digest, ...more })
  const refusal = await seal({})
  expect([refusal.status, refusal.body.title]).toEqual([
    409,
    'A device of Isolde Marram took this visit along and was not heard from since: wait for it, or say why it is sealed without.'
  ])
  expect((await seal({ without: '  ' })).body.errors).toMatchObject([{ field: 'without' }])
  expect((await state()).record.seal).toBeNull()
  const base = (await state()).seq
  expect((await seal({ without: 'The old phone fell into the harbour.' })).status).toBe(204)
  const { record } = await state()
  expect(record.unheard).toMatchObject({
    by: { name: 'Isolde Marram' },
    outboxes: [{ person: 'Isolde Marram' }],
    reason: 'The old phone fell into the harbour.'
  })
  const { text } = await isolde.call('GET', `/visits/${visit}/export`)
  expect(integrityProblems(readRecordFile(text), text)).toEqual([])

  const router = Object.keys(record.units)[0]!
  const late = draft(visit, 'note.written', { text: 'The lamp went red again.' }, { base, from: phone })
  for (const _ of ['first', 'again']) {
    const { status, body } = await isolde.call<{ title: string }>('POST', `/visits/${visit}/entries`, {
      entries: [late]
    })
    expect([status, body.title]).toEqual([409, expect.stringContaining('kept beside it') as string])
  }
  // What they could not have written before leaves nothing beside it either.
  const strange = draft(
    visit,
    'unit.set',
    { id: router, set: { heightM: 1 } },
    { base, from: 'ac000000-0000-4000-8000-000000000001' }
  )
  expect((await petroc.call('POST', `/visits/${visit}/entries`, { entries: [strange] })).status).toBe(409)
  expect((await isolde.call<Late>('GET', `/visits/${visit}/after-seal`)).body.lines).toMatchObject([
    { by: 'Isolde Marram', says: 'Note: The lamp went red again.' }
  ])
  expect((await state()).record).toEqual(record)
})

it('no secret of the visit is kept beside the seal', async () => {
  const { secrets } = (await state()).record
  const ref = Object.keys(secrets)[0]!
  const shown = await isolde.call<{ value: string }>('POST', `/visits/${visit}/secrets/${ref}/show`, {
    why: 'checking it'
  })
  const base = (await state()).seq
  const leak = draft(visit, 'note.written', { text: `It is ${shown.body.value}` }, { base, from: phone })
  const { body } = await isolde.call<{ errors: { detail: string }[] }>('POST', `/visits/${visit}/entries`, {
    entries: [leak]
  })
  expect(body.errors[0]!.detail).toContain('holds a secret')
  expect(await rows(company.services.db, 'SELECT id FROM lines_after_seal WHERE id = ?', [leak.id])).toEqual([])
})
