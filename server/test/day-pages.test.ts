import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { isolde as person } from '@pasado/demo/company'
import { row, rows, run } from '../src/db/pool'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let petroc: Caller
type Day = {
  visits: { id: string; plannedAt: string | null }[]
  more: Record<string, string | null>
  checks: { id: string; from: string }[]
}
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  petroc = await Caller.as(company.running, 'petroc')
})
afterAll(() => company.stop())

const HOUR_MS = 3_600_000

it('today’s visit stands in the day, however many are older; what is older goes on page by page, each once', async () => {
  const { db } = company.services
  const today = await openAVisit(isolde, { plannedAt: new Date(Date.now() + HOUR_MS).toISOString() })
  const { home_id: home } = (await row<{ home_id: string }>(db, 'SELECT home_id FROM visits WHERE id = ?', [today]))!
  for (let at = 0; at < 430; at++) {
    await run(
      db,
      "INSERT INTO visits (id, home_id, technician_id, technician_name, planned_at, opened_at, last_seq, last_hash, summary) VALUES (?, ?, ?, ?, ?, ?, 1, ?, '{}')",
      [
        uuidv7(),
        home,
        person.id,
        person.name,
        new Date(Date.now() - (30 + (at % 40)) * 24 * HOUR_MS),
        new Date(),
        '0'.repeat(64)
      ]
    )
  }
  for (const caller of [isolde, petroc]) {
    const { body } = await caller.call<Day>('GET', '/day')
    expect(body.visits.map(({ id }) => id)).toContain(today)
    const seen = new Set(body.visits.map(({ id }) => id))
    let after = body.more.overdue
    expect([body.more.upcoming, body.more.unplanned, typeof after]).toEqual([null, null, 'string'])
    for (let pages = 0; after && pages < 10; pages++) {
      const { body: page } = await caller.call<{ visits: { id: string }[]; next: string | null }>(
        'GET',
        `/day/visits?part=overdue&after=${after}`
      )
      for (const { id } of page.visits) {
        expect(seen.has(id)).toBe(false)
        seen.add(id)
      }
      after = page.next
    }
    expect(seen.size).toBe((await rows(db, 'SELECT id FROM visits WHERE sealed_at IS NULL')).length)
  }
  expect((await isolde.call('GET', '/day/visits?part=overdue&after=nonsense')).status).toBe(422)
  for (const sql of [
    "v.planned_at >= '2026-01-01' ORDER BY v.planned_at, v.id",
    "v.planned_at < '2026-01-01' AND (v.planned_at, v.id) < ('2025-01-01', 'x') ORDER BY v.planned_at DESC, v.id DESC"
  ]) {
    for (const { type } of await rows<{ type: string }>(
      db,
      `EXPLAIN SELECT v.id FROM visits v FORCE INDEX (by_plan) WHERE v.sealed_at IS NULL AND ${sql} LIMIT 201`
    ))
      expect(type).not.toBe('ALL')
  }
})

it('checks of today stand in the day, however many were never done', async () => {
  const { db } = company.services
  const visit = await openAVisit(isolde)
  const { home_id: home } = (await row<{ home_id: string }>(db, 'SELECT home_id FROM visits WHERE id = ?', [visit]))!
  for (let at = 0; at < 130; at++)
    await run(db, 'INSERT INTO checks (check_id, visit_id, home_id, due_from, due_to) VALUES (?, ?, ?, ?, ?)', [
      uuidv7(),
      visit,
      home,
      new Date(Date.now() - (10 + at) * 24 * HOUR_MS),
      new Date(Date.now() - (9 + at) * 24 * HOUR_MS)
    ])
  const due = uuidv7()
  await run(db, 'INSERT INTO checks (check_id, visit_id, home_id, due_from, due_to) VALUES (?, ?, ?, ?, ?)', [
    due,
    visit,
    home,
    new Date(),
    new Date(Date.now() + HOUR_MS)
  ])
  const { body } = await isolde.call<Day>('GET', '/day')
  expect(body.checks.at(-1)!.id).toBe(due)
  expect([...body.checks].sort((a, b) => (a.from < b.from ? -1 : 1))).toEqual(body.checks)
})

it('whoever has a visit sees that somebody else moved it', async () => {
  const wenna = await Caller.as(company.running, 'wenna')
  const visit = await openAVisit(isolde, { plannedAt: new Date(Date.now() + 5 * HOUR_MS).toISOString() })
  const movedBy = async () =>
    (await isolde.call<{ visits: { id: string; summary: { movedBy?: string } }[] }>('GET', '/day')).body.visits.find(
      ({ id }) => id === visit
    )!.summary.movedBy
  expect(await movedBy()).toBeUndefined()
  await wenna.call('POST', `/visits/${visit}/entries`, {
    entries: [
      draft(
        visit,
        'brief.set',
        { set: { plannedAt: new Date(Date.now() + 7 * HOUR_MS).toISOString() } },
        {
          from: wenna.outbox ?? uuidv7()
        }
      )
    ]
  })
  expect(await movedBy()).toBe('Wenna Tarrow')
  await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'brief.set', { set: { plannedAt: new Date(Date.now() + 8 * HOUR_MS).toISOString() } })]
  })
  expect(await movedBy()).toBeUndefined()
})
