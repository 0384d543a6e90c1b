import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { spawnSync } from 'node:child_process'
import type { Entry } from '@pasado/core/record/entry'
import { demoVisits } from '@pasado/demo/all'
import { isolde as isoldeHerself } from '@pasado/demo/company'
import { loadVisits } from '../../scripts/load-demo'
import { makeRecordPdf } from '../src/documents/make'
import { row } from '../src/db/pool'
import { Caller, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let wenna: Caller
let visit: string
let home: string
let customer: string
beforeAll(async () => {
  company = await startCompany()
  wenna = await Caller.as(company.running, 'wenna')
  const sealed = demoVisits().find(({ steps }) => steps.some(({ does }) => does === 'seal'))!
  await loadVisits(company.services, [sealed], new Date())
  visit = sealed.id
  const at = await row<{ home: string; customer: string }>(
    company.services.db,
    'SELECT h.id AS home, h.customer_id AS customer FROM visits v JOIN homes h ON h.id = v.home_id WHERE v.id = ?',
    [visit]
  )
  ;({ home, customer } = at!)
})
afterAll(() => company.stop())

const brokenOf = async () => (await wenna.call<{ broken: string | null }>('GET', `/visits/${visit}`)).body.broken
const paper = async () =>
  spawnSync('pdftotext', ['-layout', '-', '-'], {
    input: await makeRecordPdf(company.services, visit)
  }).stdout.toString()
const begun = async () => {
  const id = uuidv7()
  const opened = await wenna.call('POST', '/visits', {
    id,
    home,
    customer,
    technician: isoldeHerself.id,
    brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
  })
  expect(opened.status).toBe(201)
  const { entries } = (await wenna.call<{ entries: Entry[] }>('GET', `/visits/${id}`)).body
  return entries.flatMap(({ kind, body }) => (kind === 'note.written' ? (body as { text: string }).text : []))
}

it('a sealed visit that was altered in the database is told of on the screen, on paper and where it is carried over', async () => {
  expect(await brokenOf()).toBeNull()
  expect(await paper()).not.toContain('DOES NOT HOLD')
  expect(await begun()).toEqual([])
  const { db } = company.services
  const { seq, doc } = (await row<{ seq: number; doc: string }>(
    db,
    'SELECT seq, doc FROM entries WHERE visit_id = ? AND doc LIKE \'%"measurement.set"%\' LIMIT 1',
    [visit]
  ))!
  const better = doc.replace(/"downMbps":\d+(\.\d+)?/, '"downMbps":990')
  expect(better).not.toBe(doc)
  await db.query('UPDATE entries SET doc = ? WHERE visit_id = ? AND seq = ?', [better, visit, seq])
  company.services.logbook.states.forget(visit)
  expect(await brokenOf()).toContain(`line ${seq} (measurement.set) was altered`)
  expect(await paper()).toContain('THIS RECORD DOES NOT HOLD')
  expect(await begun()).toEqual([expect.stringContaining('taken over from a visit that does not hold')])
})
