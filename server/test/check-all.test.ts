import { afterAll, beforeAll, expect, it } from 'vitest'
import { demoVisits } from '@pasado/demo/all'
import { loadVisits } from '../../scripts/load-demo'
import { row, run } from '../src/db/pool'
import { checkAll } from '../src/logbook/check-all'
import { rebuildProjections } from '../src/logbook/rebuild'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
let sealed: string
let open: string
beforeAll(async () => {
  company = await startCompany()
  wenna = await Caller.as(company.running, 'wenna')
  const visit = demoVisits().find(({ steps }) => steps.some(({ does }) => does === 'seal'))!
  await loadVisits(company.services, [visit], new Date())
  sealed = visit.id
  const isolde = await Caller.as(company.running, 'isolde')
  open = await openAVisit(isolde)
  for (let at = 0; at < 3; at++)
    await isolde.call('POST', `/visits/${open}/entries`, {
      entries: [draft(open, 'unit.set', { id: open, set: { model: 'ostrel-tern', place: `shelf ${at}` } })]
    })
})
afterAll(() => company.stop())

const look = () => checkAll(company.services.logbook)
const onTheDay = async (who = wenna) =>
  (await who.call<{ faults: { visit: string; what: string }[] }>('GET', '/day')).body.faults

/** Alters the database, looks, and puts it back. */
async function altered(alter: string, back: string, params: string[]): Promise<{ visit: string; what: string }[]> {
  const { db } = company.services
  await run(db, alter, params)
  const faults = await look()
  expect((await onTheDay()).map(({ visit, what }) => ({ visit, what }))).toEqual(faults)
  await run(db, back, params)
  return faults
}

it('a company that nobody altered holds, and looking changes nothing', async () => {
  expect(await look()).toEqual([])
  expect(await onTheDay()).toEqual([])
  await rebuildProjections(company.services.logbook)
  expect(await look()).toEqual([])
})

it('a line that was altered is found, in an open visit and in a sealed one', async () => {
  for (const [visit, word] of [
    [open, 'shelf'],
    [sealed, 'set']
  ] as const) {
    const where = 'WHERE visit_id = ? AND seq = 2'
    const faults = await altered(
      `UPDATE entries SET doc = REPLACE(doc, '"${word}', '"${word}  ') ${where}`,
      `UPDATE entries SET doc = REPLACE(doc, '"${word}  ', '"${word}') ${where}`,
      [visit]
    )
    expect(faults).toEqual([{ visit, what: expect.stringMatching(/altered|cannot be read/) }])
  }
})

it('a line that was taken out at the end is, and a head that was moved', async () => {
  expect(
    await altered(
      'UPDATE visits SET last_seq = last_seq + 1 WHERE id = ?',
      'UPDATE visits SET last_seq = last_seq - 1 WHERE id = ?',
      [open]
    )
  ).toEqual([{ visit: open, what: expect.stringContaining('its head says line 5') }])
})

it('a list that says otherwise than the logbook is, and stays as it is until it is made anew', async () => {
  const { db } = company.services
  expect(
    await altered(
      "UPDATE findings SET outcome = 'holds' WHERE visit_id = ? AND rule = 'kit-identity'",
      "UPDATE findings SET outcome = 'unproven' WHERE visit_id = ? AND rule = 'kit-identity'",
      [open]
    )
  ).toEqual([{ visit: open, what: expect.stringContaining('(findings) is not what its logbook says') }])
  await run(db, 'DELETE FROM units WHERE visit_id = ?', [open])
  expect(await look()).toMatchObject([{ visit: open, what: expect.stringContaining('units') }])
  expect(await row(db, 'SELECT 1 FROM units WHERE visit_id = ?', [open])).toBeNull()
  await rebuildProjections(company.services.logbook)
  expect(await look()).toEqual([])
})

it('nobody but a lead is told on the Day', async () => {
  await run(company.services.db, "INSERT INTO faults_found (visit_id, found_at, what) VALUES (?, NOW(), 'gull')", [
    open
  ])
  expect(await onTheDay()).toHaveLength(1)
  expect(await onTheDay(await Caller.as(company.running, 'corin'))).toEqual([])
  expect(await look()).toEqual([])
})
