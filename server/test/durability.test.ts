import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { chainProblem } from '@pasado/core/record/chain'
import type { Draft, Entry } from '@pasado/core/record/entry'
import { startMariaDb } from '../../scripts/mariadb'
import { Caller, companyOn, draft, openAVisit } from '@pasado/testing/company'
import { freePort, ownMariaDb } from '@pasado/testing/database'
import { serverProcess } from '@pasado/testing/server-process'

const start = () => companyOn(ownMariaDb)
let company: Awaited<ReturnType<typeof start>>
beforeAll(async () => {
  company = await start()
})
afterAll(() => company.stop())

it('killed in a burst of 500 entries and started again, the server has lost none it acknowledged and doubled none', async () => {
  const port = await freePort()
  let server = await serverProcess(company.database.url, join(company.database.folder, 'key'), port)
  const caller = new Caller(server.address)
  await caller.call('POST', '/session', { login: 'isolde', password: 'skerrow-demo-lantern' })
  const visit = await openAVisit(caller)
  const drafts = Array.from({ length: 500 }, (_, at) => draft(visit, 'note.written', { text: `burst ${at}` }))
  const acknowledged = new Set<string>()
  let killed = false

  const sendOnce = async (item: Draft) => {
    const { status } = await caller.call('POST', `/visits/${visit}/entries`, { entries: [item] })
    if (status === 200) acknowledged.add(item.id)
    return status === 200
  }
  const queue = [...drafts]
  await Promise.all(
    Array.from({ length: 6 }, async () => {
      for (let item = queue.shift(); item; item = queue.shift()) {
        if (!killed && acknowledged.size >= 150) {
          killed = true
          server.child.kill('SIGKILL')
        }
        await sendOnce(item).catch(() => false)
      }
    })
  )
  expect(killed).toBe(true)
  const before = new Set(acknowledged)
  expect(before.size).toBeGreaterThanOrEqual(150)
  expect(before.size).toBeLessThan(500)

  server = await serverProcess(company.database.url, join(company.database.folder, 'key'), port)
  for (const written of drafts) expect(await sendOnce(written)).toBe(true)
  const { body } = await caller.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
  const ids = body.entries.map(({ id }) => id)
  expect(new Set(ids).size).toBe(ids.length)
  expect(ids).toHaveLength(501)
  for (const id of before) expect(ids).toContain(id)
  expect(chainProblem(body.entries)).toBeNull()
  server.child.kill('SIGKILL')
})

it('while the database is away a write is told to try again, and goes through when it is back', async () => {
  const caller = await Caller.as(company.running, 'isolde')
  const visit = await openAVisit(caller)
  const written = draft(visit, 'note.written', { text: 'while it was away' })
  await company.database.kill()
  const { status, body, headers } = await caller.call<{ type: string }>('POST', `/visits/${visit}/entries`, {
    entries: [written]
  })
  expect([status, body.type, headers.get('retry-after')]).toEqual([503, 'urn:pasado:problem:database-away', '2'])
  const back = await startMariaDb(company.database.folder, company.database.port)
  company.database.kill = back.kill
  company.database.drop = async () => {
    await back.kill()
  }
  expect((await caller.call('POST', `/visits/${visit}/entries`, { entries: [written] })).status).toBe(200)
  const { body: after } = await caller.call<{ entries: Entry[] }>('GET', `/visits/${visit}`)
  expect(after.entries.filter(({ id }) => id === written.id)).toHaveLength(1)
})
