import { judgedVisit } from '../src/logbook/read'
import { catalogueOf } from '@pasado/core/catalogue/model'
import type { Entry } from '@pasado/core/record/entry'
import { heldAgainstLines } from '@pasado/core/rules/because'
import type { Finding } from '@pasado/core/rules/finding'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { demoVisits } from '@pasado/demo/all'
import { integrityProblems, readRecordFile } from '@pasado/core/documents/record-file'
import { signedDigest } from '@pasado/core/record/seal'
import { loadVisits } from '../../scripts/load-demo'
import { row, run } from '../src/db/pool'
import { waiversDue } from '../src/db/waivers-due'
import { rebuildProjections } from '../src/logbook/rebuild'
import { Caller, draft, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let wenna: Caller
let visit: string
beforeAll(async () => {
  company = await startCompany()
  ;[isolde, wenna] = await Promise.all([Caller.as(company.running, 'isolde'), Caller.as(company.running, 'wenna')])
  const ready = demoVisits().filter(({ brief }) => brief.street === '22 Dulse Road')
  await loadVisits(company.services, ready, new Date())
  visit = ready.at(-1)!.id
})
afterAll(() => company.stop())

const findings = async () => (await judgedVisit(company.services.logbook, visit)).findings
const state = () => company.services.logbook.write(visit, new Date(), (open) => Promise.resolve(open.state))
const write = async (
  kind: 'signature.given' | 'note.written' | 'waiver.granted' | 'brief.set',
  body: Record<string, unknown>,
  who = isolde
) =>
  who.call<{ errors?: { field: string; detail: string }[] }>('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, kind, body as never, { base: (await state()).seq })]
  })
const sign = async () => {
  const digest = signedDigest((await state()).record)
  for (const [who, name] of [
    ['customer', 'Kelp Farm'],
    ['technician', 'Isolde Marram']
  ])
    expect((await write('signature.given', { who, name, strokes: 'M20 110 L60 90 L100 120', digest })).status).toBe(200)
  return digest
}
const seal = (digest: string, who = isolde) => who.call<{ title: string }>('POST', `/visits/${visit}/seal`, { digest })

it('a signature without a stroke and a waiver without a reason are refused, each with its field', async () => {
  const digest = signedDigest((await state()).record)
  for (const strokes of ['', 'M20 110'])
    expect(
      (await write('signature.given', { who: 'customer', name: 'Kelp Farm', strokes, digest })).body.errors
    ).toMatchObject([
      { field: 'entries[0].body.strokes', detail: expect.stringContaining('at least one stroke') as string }
    ])
  for (const reason of ['', '   '])
    expect((await write('waiver.granted', { rule: 'place-height', reason }, wenna)).body.errors).toMatchObject([
      { field: 'entries[0].body.reason' }
    ])
})

it('a seal for a record that an entry has changed meanwhile is refused: it has to be looked at, and signed, again', async () => {
  const digest = await sign()
  await write('brief.set', { set: { secondContact: 'Harbour office, 555-0157' } })
  const { status, body } = await seal(digest)
  expect([status, body.title]).toEqual([409, expect.stringContaining('changed while you were about to seal')])
  const now = signedDigest((await state()).record)
  expect((await seal(now)).body.title).toContain('sign again')
})

it('two people who seal at once: one does, the other is told; after it nothing is taken any more', async () => {
  const unit = Object.values((await state()).record.units).find(({ facts }) => !facts.stayed)!.id
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'unit.set', { id: unit, set: { heightM: 0.1 } }, { base: (await state()).seq })]
  })
  const waiver = { rule: 'place-height', subject: unit, reason: 'The shelf comes later.', until: '2030-01-31' }
  expect((await write('waiver.granted', waiver, wenna)).status).toBe(200)
  await isolde.call('POST', `/visits/${visit}/pack`, {})
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'pack.given', { how: 'printed' }, { base: (await state()).seq })]
  })
  const digest = await sign()
  const answers = await Promise.all([seal(digest), seal(digest, wenna)])
  expect(answers.map(({ status }) => status).sort()).toEqual([204, 409])
  expect(answers.find(({ status }) => status === 409)!.body.title).toContain('sealed already')
  const { record } = await state()
  expect(record.seal).not.toBeNull()
  expect((await write('note.written', { text: 'Too late.' })).status).toBe(409)
  // What the rules said is kept, in the file and under the seal, and shown from now on.
  // The first may come before it is worked out what the verdicts rest on.
  const text = await vi.waitFor(
    async () => {
      const { text: exported } = await isolde.call('GET', `/visits/${visit}/export`)
      expect(readRecordFile(exported).because).toBeDefined()
      return exported
    },
    { timeout: 60_000 }
  )
  const file = readRecordFile(text)
  expect([integrityProblems(file, text), file.verdicts?.length]).toEqual([[], (await findings()).length])
  // Each verdict with the lines it rests on, the same at every export, and borne out by them alone.
  expect((await isolde.call('GET', `/visits/${visit}/export`)).text).toBe(text)
  const before = file.entries.filter(({ seq }) => seq < file.record.seal!.seq) as Entry[]
  const { at } = file.record.seal!
  const held = heldAgainstLines(
    before,
    file.verdicts as Finding[],
    file.because!,
    catalogueOf(file.models),
    file.standard,
    at
  )
  const told = file.verdicts!.filter(({ outcome }) => outcome !== 'not-here').length
  expect(held).toEqual({ borne: told, wrong: [], saidOtherwise: 0 })
  const shown = await isolde.call<{ verdicts: { rule: string }[] }>('GET', `/visits/${visit}`)
  expect(shown.body.verdicts).toEqual(file.verdicts)
  expect(
    await row(company.services.db, "SELECT 1 FROM sealed_verdicts WHERE visit_id = ? AND kept_by = 'seal'", [visit])
  ).not.toBeNull()
  company.services.logbook.states.forget(visit)
  expect(await findings()).toEqual(file.verdicts)
  expect(
    (await isolde.call<{ entries: { kind: string }[] }>('GET', `/visits/${visit}/entries`)).body.entries.filter(
      ({ kind }) => kind === 'sealed'
    )
  ).toHaveLength(1)
})

it('what was let pass until a day is listed for a lead once it has passed, until somebody was there again', async () => {
  const { db } = company.services
  expect(await waiversDue(db, '2030-01-31')).toEqual([])
  expect(await waiversDue(db, '2030-02-01')).toMatchObject([
    { visit, street: '22 Dulse Road', rule: 'place-height', until: '2030-01-31', by: 'Wenna Tarrow' }
  ])
  await rebuildProjections(company.services.logbook)
  expect(await waiversDue(db, '2030-02-01')).toHaveLength(1)
  const listed = await wenna.call<{ waivers: unknown[] }>('GET', '/day')
  expect(listed.body.waivers).toEqual([])
  const { record } = await state()
  const later = uuidv7()
  const { home, customer, technician } = record.visit
  const opening = {
    id: later,
    home,
    customer,
    technician: technician.id,
    brief: { customerName: 'Kelp Farm', street: '22 Dulse Road', town: 'Ness Skerrow' }
  }
  expect((await isolde.call('POST', '/visits', opening)).status).toBe(201)
  expect(await waiversDue(db, '2030-02-01')).toHaveLength(1)
  await run(db, 'UPDATE visits SET sealed_at = UTC_TIMESTAMP() + INTERVAL 1 MINUTE WHERE id = ?', [later])
  expect(await waiversDue(db, '2030-02-01')).toEqual([])
})
