import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { chainProblem } from '@pasado/core/record/chain'
import type { EntryKind } from '@pasado/core/record/entries/all'
import type { Entry } from '@pasado/core/record/entry'
import { row, rows, run } from '../src/db/pool'
import { listedFindings } from '../src/db/projections'
import { FollowUp } from '../src/logbook/follow-up'
import { listVerdicts } from '../src/logbook/list-verdicts'
import { judgedVisit } from '../src/logbook/read'
import { rebuildProjections } from '../src/logbook/rebuild'
import { serve } from '../src/server'
import { Caller, draft, openAVisit, servicesOn, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
})
afterAll(() => company.stop())

const write = async (visit: string, set: Record<string, unknown>, unit = uuidv7()) => {
  const { status, text } = await isolde.call('POST', `/visits/${visit}/entries`, {
    entries: [draft(visit, 'unit.set', { id: unit, set })]
  })
  if (status !== 200) throw new Error(text)
  return unit
}
const isDue = async (visit: string) =>
  Boolean(
    (await row<{ due: number }>(company.services.db, 'SELECT to_judge AS due FROM visits WHERE id = ?', [visit]))!.due
  )
const listed = async (visit: string) =>
  (await listedFindings(company.services.db, visit))
    .map(({ rule, subject, outcome, level }) => `${rule} ${subject} ${outcome} ${level}`)
    .sort()
const said = async (visit: string) => (await judgedVisit(company.services.logbook, visit)).findings

describe('what the rules say of a visit that is written in', () => {
  it('stands to be judged with the write itself, and is listed once it was', async () => {
    const { followUp } = company.services
    const visit = await openAVisit(isolde)
    const unit = await write(visit, { model: 'ostrel-tern', modelVersion: 1, heightM: 0.1, role: 'router' })
    await followUp.caughtUp(5_000)
    expect(await isDue(visit)).toBe(false)
    const before = await listed(visit)
    expect(before).toContainEqual(expect.stringContaining(`place-height ${unit} breaks`))
    await write(visit, { heightM: 1.4 }, unit)
    await followUp.caughtUp(5_000)
    expect(await listed(visit)).toContainEqual(expect.stringContaining(`place-height ${unit} holds`))
  })

  it('a list that is asked for after a write has it', async () => {
    const visit = await openAVisit(isolde)
    const open = async () => {
      const { body } = await isolde.call<{ visits: { id: string; summary: { next: unknown; open: number } }[] }>(
        'GET',
        '/day?whose=mine'
      )
      return JSON.stringify(body.visits.find(({ id }) => id === visit)?.summary)
    }
    const before = await open()
    await write(visit, { model: 'ostrel-tern', modelVersion: 1, heightM: 0.1 })
    expect(await open()).not.toBe(before)
  })

  it('what a process that died was to judge, another judges', async () => {
    const { followUp, db, logbook } = company.services
    const visit = await openAVisit(isolde)
    const unit = await write(visit, { model: 'ostrel-tern', modelVersion: 1, heightM: 0.1 })
    await followUp.caughtUp(5_000)
    // As it stands where a process ended just after the write: nothing of it is listed.
    await run(db, 'DELETE FROM findings WHERE visit_id = ?', [visit])
    await run(db, "UPDATE visits SET to_judge = TRUE, summary = '{}' WHERE id = ?", [visit])
    const other = new FollowUp(
      db,
      (id) => listVerdicts(logbook, id),
      (error) => {
        throw error
      }
    )
    await other.sweep()
    await other.caughtUp(5_000)
    await other.close()
    expect(await listed(visit)).toContainEqual(expect.stringContaining(`place-height ${unit} breaks`))
    expect(await isDue(visit)).toBe(false)
    expect(await row<{ summary: string }>(db, 'SELECT summary FROM visits WHERE id = ?', [visit])).not.toEqual({
      summary: '{}'
    })
  })

  it('written from many hands at once it ends as a rebuild makes it, and as the rules say', async () => {
    const { followUp, db, logbook } = company.services
    const visit = await openAVisit(isolde)
    const units = await Promise.all([0.1, 0.2, 0.3].map((heightM) => write(visit, { model: 'ostrel-tern', heightM })))
    await Promise.all(
      Array.from({ length: 24 }, (_, at) =>
        write(visit, { heightM: at % 2 ? 0.2 : 1.5, place: `shelf ${at}` }, units[at % 3])
      )
    )
    await followUp.caughtUp(10_000)
    expect(await isDue(visit)).toBe(false)
    const [now, summary] = [
      await listed(visit),
      await rows(db, 'SELECT summary, last_seq FROM visits WHERE id = ?', [visit])
    ]
    const height = (await said(visit)).filter(({ rule }) => rule === 'place-height')
    expect(height).toHaveLength(3)
    for (const { subject, outcome, level } of height)
      expect(now).toContain(`place-height ${subject!.id} ${outcome} ${level}`)
    await rebuildProjections(logbook)
    expect(await listed(visit)).toEqual(now)
    expect(await rows(db, 'SELECT summary, last_seq FROM visits WHERE id = ?', [visit])).toEqual(summary)
  })
})

it('what another process wrote is before whoever writes next: nothing is refused, and nothing taken, by what a process remembers', async () => {
  const { url, folder } = company.database
  const other = await serve(await servicesOn(url, join(folder, 'key')))
  const there = await Caller.at(other.address, 'isolde')
  const visit = await openAVisit(isolde)
  const [unit, nobodys] = [uuidv7(), uuidv7()]
  const send = (who: Caller, kind: EntryKind, body: unknown) =>
    who.call<{ type: string }>('POST', `/visits/${visit}/entries`, { entries: [draft(visit, kind, body as never)] })
  expect((await send(isolde, 'note.written', { text: 'here' })).status).toBe(200)
  expect((await send(there, 'unit.set', { id: unit, set: { model: 'ostrel-tern', modelVersion: 1 } })).status).toBe(200)
  // Here nobody has heard of the unit yet; of the other one nobody has anywhere.
  const waits = (of: string) =>
    send(isolde, 'wait.started', { id: uuidv7(), unit: of, what: 'restart', usualMin: 2, mostMin: 3 })
  expect((await waits(nobodys)).status).toBe(422)
  expect((await waits(unit)).status).toBe(200)
  expect((await there.call('POST', `/visits/${visit}/cancel`, { reason: 'nobody is at home' })).status).toBeLessThan(
    300
  )
  const { status, body } = await send(isolde, 'note.written', { text: 'after it was cancelled' })
  expect([status, body.type]).toEqual([409, 'urn:pasado:problem:cancelled'])
  const { entries } = (await isolde.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)).body
  expect([chainProblem(entries), entries.map(({ kind }) => kind)]).toEqual([
    null,
    ['visit.opened', 'note.written', 'unit.set', 'wait.started', 'visit.cancelled']
  ])
  await other.close()
})
