import { afterAll, beforeAll, expect, it } from 'vitest'
import { loadLargeCompany } from '../../scripts/large-company'
import { countSealed, countToCount, figuresByModel, figuresByMonth } from '../src/db/figures'
import { rebuildProjections } from '../src/logbook/rebuild'
import { serverAuthor } from '../src/logbook/server-author'
import { setSeal } from '../src/logbook/visits'
import { firstDay } from '../src/http/routes/figures'
import { openPool, rows, writersOf } from '../src/db/pool'
import { countHomesToCount, countStanding } from '../src/db/standing'
import type { RowDataPacket } from 'mysql2/promise'
import { Caller, openAVisit, startCompany } from '@pasado/testing/company'
import { allCounted } from '@pasado/testing/counted'

let company: Awaited<ReturnType<typeof startCompany>>
beforeAll(async () => {
  company = await startCompany()
  await loadLargeCompany(company.services, { homes: 150, today: new Date() })
  // Another may be at it: what it counts is there once it is done.
  await allCounted(company.services.db)
})
afterAll(() => company.stop())

type Month = { rule: string; month: string; visits: number; breaks: number; waived: number }

it('rules are counted by the visits in which they came out so, month by month, from a day on', async () => {
  const { db } = company.services
  const since = firstDay(60, new Date())
  const found = await figuresByMonth(db, since)
  const counted = await rows<{ rule: string; visits: number; broken: number; notHere: number }>(
    db,
    "SELECT rule, COUNT(DISTINCT IF(outcome <> 'not-here', visit_id, NULL)) AS visits, COUNT(DISTINCT IF(outcome = 'breaks', visit_id, NULL)) AS broken, COUNT(DISTINCT IF(outcome = 'not-here', visit_id, NULL)) AS notHere FROM findings GROUP BY rule"
  )
  for (const { rule, visits, broken } of counted) {
    const of = found.filter((ruleMonth) => ruleMonth.rule === rule)
    expect([
      rule,
      of.reduce((sum, ruleMonth) => sum + ruleMonth.visits, 0),
      of.reduce((sum, ruleMonth) => sum + ruleMonth.breaks, 0)
    ]).toEqual([rule, visits, broken])
  }
  expect(counted.find(({ rule }) => rule === 'firm-minimum')!.broken).toBeGreaterThan(0)
  // Where it did not apply at all it is not counted.
  expect(counted.some(({ notHere, visits }) => notHere > 0 && visits > 0)).toBe(true)
  const minimum = found.filter(({ rule }) => rule === 'firm-minimum')
  expect(minimum.every(({ month }) => /^\d{4}-\d\d$/.test(month) && month >= since.toISOString().slice(0, 7))).toBe(
    true
  )
})

it('one rule by model; what speaks of no unit has none', async () => {
  const { db } = company.services
  const [counted] = await rows<{ count: number }>(
    db,
    "SELECT COUNT(*) AS count FROM findings f JOIN units u ON u.visit_id = f.visit_id AND u.unit_id = f.subject WHERE f.rule = 'firm-minimum' AND f.outcome = 'breaks'"
  )
  const models = await figuresByModel(db, 'firm-minimum', new Date(0))
  expect(models.reduce((sum, { breaks }) => sum + breaks, 0)).toBe(counted!.count)
  expect(await figuresByModel(db, 'hand-custody', new Date(0))).toEqual([])
})

it('through the API, and no month out of its range', async () => {
  const wenna = await Caller.as(company.running, 'wenna')
  const { body } = await wenna.call<{ rules: Month[] }>('GET', '/figures?months=60')
  expect(body.rules.length).toBeGreaterThan(5)
  expect((await wenna.call('GET', '/figures?months=0')).status).toBe(422)
  expect(
    (await wenna.call<{ models: unknown[] }>('GET', '/figures/firm-minimum?months=60')).body.models.length
  ).toBeGreaterThan(1)
})

it('a month begins on its first day, this one counted, also across a year’s end', () => {
  expect(firstDay(1, new Date('2026-03-31T22:00:00Z')).toISOString()).toBe('2026-03-01T00:00:00.000Z')
  expect(firstDay(3, new Date('2026-01-15T00:00:00Z')).toISOString()).toBe('2025-11-01T00:00:00.000Z')
})

it('are kept as visits are sealed: each is in them once, whoever counts, and counting anew gives the same', async () => {
  const { db, logbook, followUp } = company.services
  const all = async () => ({
    months: await rows(db, 'SELECT * FROM rule_months ORDER BY rule, month'),
    models: await rows(db, 'SELECT * FROM rule_models ORDER BY rule, month, model')
  })
  const before = await all()
  await Promise.all([1, 2, 3].map(() => countSealed(db)))
  expect(await all()).toEqual(before)
  const visit = await openAVisit(await Caller.as(company.running, 'isolde'))
  await followUp.caughtUp(5_000)
  await countSealed(db)
  // An open visit is in no figure.
  expect(await all()).toEqual(before)
  await logbook.write(visit, new Date(), (open) => setSeal(logbook, open, serverAuthor))
  await followUp.caughtUp(5_000)
  await Promise.all([1, 2, 3].map(() => countSealed(db)))
  expect(await countToCount(db)).toBe(0)
  const after = await all()
  const total = (months: Awaited<ReturnType<typeof all>>['months']) =>
    (months as unknown as Month[])
      .filter(({ rule }) => rule === 'hand-custody')
      .reduce((sum, { visits }) => sum + visits, 0)
  expect(total(after.months)).toBe(total(before.months) + 1)
  await rebuildProjections(logbook)
  expect(await all()).toEqual(after)
})

it('are read from what is kept, with no look at visits or findings', async () => {
  for (const sql of [
    "SELECT rule FROM rule_months WHERE month >= '2026-01' ORDER BY rule, month",
    "SELECT model FROM rule_models WHERE rule = 'firm-minimum' AND month >= '2026-01' GROUP BY model"
  ])
    expect((await rows<{ table: string }>(company.services.db, `EXPLAIN ${sql}`)).map(({ table }) => table)).toEqual([
      /FROM (\w+)/.exec(sql)![1]
    ])
  // What is to be counted is found by its index.
  const [plan] = await rows<{ key: string }>(
    company.services.db,
    'EXPLAIN SELECT id FROM visits FORCE INDEX (to_count) WHERE counted = FALSE AND sealed_at IS NOT NULL AND to_judge = FALSE ORDER BY sealed_at LIMIT 50'
  )
  expect(plan!.key).toBe('to_count')
})

it('counting a visit, and what stands at its home, goes through no other: thousands of homes more are not read', async () => {
  const { db, config } = company.services
  await db.query(`
    INSERT INTO homes (id, customer_id, customer, street, town, latest_visit, to_count)
    SELECT UUID(), UUID(), 'Somebody', 'A street', 'A town', UUID(), FALSE
    FROM seq_1_to_4000
  `)
  await db.query('ANALYZE TABLE homes')
  // One connection for all it does, so that what it read can be asked.
  const one = openPool(config.DATABASE_URL, 1)
  const readSoFar = async () => {
    const [found] = await writersOf(one).query<RowDataPacket[]>("SHOW SESSION STATUS LIKE 'Handler_read%'")
    return found.reduce((sum, { Value }) => sum + Number(Value), 0)
  }
  await db.query('UPDATE visits SET counted = FALSE WHERE sealed_at IS NOT NULL ORDER BY id LIMIT 1')
  const before = await readSoFar()
  await countSealed(one)
  await countStanding(one)
  const read = (await readSoFar()) - before
  await one.end()
  expect([await countToCount(db), await countHomesToCount(db)]).toEqual([0, 0])
  expect(read).toBeGreaterThan(50)
  expect(read).toBeLessThan(2_000)
})

it('many who ask at once share an answer, and never hold more than two connections', async () => {
  const { Sparing } = await import('../src/db/sparing')
  const sparing = new Sparing(2, 3)
  let [now, most, asked] = [0, 0, 0]
  const find = async () => {
    asked++
    now++
    most = Math.max(most, now)
    await new Promise((resolve) => setTimeout(resolve, 20))
    now--
    return asked
  }
  const answers = await Promise.allSettled([
    ...Array.from({ length: 12 }, () => sparing.ask('months 12', find)),
    ...[1, 2, 3, 4, 5, 6].map((months) => sparing.ask(`months ${months}`, find))
  ])
  expect(most).toBe(2)
  expect(new Set(answers.slice(0, 12).map((answer) => (answer as { value: number }).value)).size).toBe(1)
  expect(answers.filter(({ status }) => status === 'rejected').length).toBeGreaterThan(0)
  expect(
    answers
      .filter(({ status }) => status === 'rejected')
      .map((answer) => ((answer as PromiseRejectedResult).reason as { kind: string }).kind)
  ).toContain('busy')
  expect(await sparing.ask('months 1', () => Promise.resolve('again'))).toBe('again')
})
