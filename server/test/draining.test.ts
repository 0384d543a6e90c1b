import { join } from 'node:path'
import { request, type ClientRequest, type IncomingMessage } from 'node:http'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { serve, type Running } from '../src/server'
import { Caller, draft, openAVisit, servicesOn, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let running: Running
let isolde: Caller
let visit: string
beforeAll(async () => {
  company = await startCompany()
  // A process of its own beside the company's.
  const services = await servicesOn(company.database.url, join(company.database.folder, 'key'))
  running = await serve({ ...services, config: { ...services.config, PORT: 0, DRAIN_S: 1, DRAIN_LIMIT_S: 8 } })
  isolde = await Caller.at(running.address, 'isolde')
  visit = await openAVisit(isolde)
})
afterAll(() => company.stop())

/** Begins to send entries, as over a bad line: the rest comes when the test says so. */
function slowly(text: string): {
  rest: () => void
  answer: Promise<{ status: number; connection: string | undefined }>
} {
  let call: ClientRequest
  const answer = new Promise<IncomingMessage>((resolve, reject) => {
    call = request(
      `${running.address}/api/visits/${visit}/entries`,
      {
        method: 'POST',
        headers: {
          cookie: isolde.cookie,
          'content-type': 'application/json',
          'content-length': Buffer.byteLength(text)
        }
      },
      resolve
    )
    call.once('error', reject)
    call.write(text.slice(0, 10))
  }).then((response) => {
    response.resume()
    return { status: response.statusCode ?? 0, connection: response.headers.connection }
  })
  return { rest: () => call.end(text.slice(10)), answer }
}

it('told to end it says so to the proxy, goes on answering for a while, and waits for what is under way', async () => {
  const entry = draft(visit, 'note.written', { text: 'written over a bad line' })
  const under = slowly(JSON.stringify({ entries: [{ ...entry, from: isolde.outbox }] }))
  await new Promise((resolve) => setTimeout(resolve, 100))
  let isClosed = false
  const closing = running.close().then(() => {
    isClosed = true
  })
  const ready = await fetch(`${running.address}/readyz`)
  expect([ready.status, ((await ready.json()) as { process: string }).process]).toEqual([503, 'stopping'])
  const alive = await isolde.call('GET', '/session')
  expect([alive.status, alive.headers.get('connection')]).toEqual([200, 'close'])
  expect((await isolde.call('GET', `/visits/${visit}/events?after=0`)).status).toBe(503)
  // Past the time in which it still takes calls.
  await new Promise((resolve) => setTimeout(resolve, 1_500))
  await expect(fetch(`${running.address}/healthz`)).rejects.toThrow()
  expect(isClosed).toBe(false)
  under.rest()
  expect(await under.answer).toEqual({ status: 200, connection: 'close' })
  await closing
})
