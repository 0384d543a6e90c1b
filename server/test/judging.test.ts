import { afterAll, beforeAll, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { join } from 'node:path'
import { readConfig } from '../src/config'
import { rows, run } from '../src/db/pool'
import { serverAuthor } from '../src/logbook/server-author'
import { setSeal } from '../src/logbook/visits'
import { makeServices } from '../src/server'
import type { Services } from '../src/services'
import { Caller, draft, openAVisit, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let isolde: Caller
let other: Services
const said: string[] = []
beforeAll(async () => {
  company = await startCompany()
  isolde = await Caller.as(company.running, 'isolde')
  const { url, folder } = company.database
  // The process that serves in the test is to leave all of it to the other.
  await company.services.followUp.close()
  other = await makeServices(
    readConfig({ DATABASE_URL: url, KEY_FILE: join(folder, 'key'), LOG_LEVEL: 'silent', JUDGE_THREAD: '1' })
  )
  other.log.warn = (...words: unknown[]) => said.push(JSON.stringify(words))
})
afterAll(async () => {
  await other.followUp.close()
  await other.judging?.end()
  await other.db.end()
  await company.stop()
})

const listed = (visit: string) =>
  rows(company.services.db, 'SELECT rule, subject, outcome, level FROM findings WHERE visit_id = ? ORDER BY 1, 2', [
    visit
  ])
const judged = async (visit: string) => {
  other.followUp.note(visit)
  await other.followUp.caughtUp(20_000)
}
const heightOf = async (visit: string) =>
  (await listed(visit)).filter((finding) => (finding as { rule: string }).rule === 'place-height')

it('a thread beside the one that serves lists what the rules say, line after line, as they say it in one that serves', async () => {
  const visit = await openAVisit(isolde)
  const id = uuidv7()
  for (const [heightM, outcome] of [
    [0.1, 'breaks'],
    [1.5, 'holds'],
    [0.1, 'breaks']
  ] as const) {
    const set = { name: 'Router', model: 'ostrel-tern', modelVersion: 1, heightM }
    await isolde.call('POST', `/visits/${visit}/entries`, { entries: [draft(visit, 'unit.set', { id, set })] })
    await judged(visit)
    expect(await heightOf(visit)).toEqual([expect.objectContaining({ subject: id, outcome })])
  }
  expect(await rows(company.services.db, 'SELECT 1 FROM visits WHERE to_judge')).toEqual([])
  await company.services.logbook.write(visit, new Date(), (open) =>
    setSeal(company.services.logbook, open, serverAuthor)
  )
  await run(company.services.db, 'UPDATE visits SET to_judge = TRUE WHERE id = ?', [visit])
  await judged(visit)
  expect(await rows(company.services.db, 'SELECT counted FROM visits WHERE id = ?', [visit])).toEqual([{ counted: 1 }])
  expect(said).toEqual([])
})

it('what goes wrong in the thread is told with its code, and tried again', async () => {
  const { db } = company.services
  const visit = await openAVisit(isolde)
  const id = uuidv7()
  const set = { name: 'Router', model: 'ostrel-tern', modelVersion: 1, heightM: 0.1 }
  await isolde.call('POST', `/visits/${visit}/entries`, { entries: [draft(visit, 'unit.set', { id, set })] })
  await db.query('RENAME TABLE findings TO findings_away')
  try {
    await judged(visit)
    expect(said).toEqual([expect.stringContaining('ER_NO_SUCH_TABLE')])
  } finally {
    await db.query('RENAME TABLE findings_away TO findings')
  }
  await other.followUp.sweep()
  await other.followUp.caughtUp(20_000)
  expect(await heightOf(visit)).toHaveLength(1)
})
