import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { serve, type Running } from '../src/server'
import { freePort } from '@pasado/testing/database'
import { Caller, draft, openAVisit, servicesOn, startCompany } from '@pasado/testing/company'

let company: Awaited<ReturnType<typeof startCompany>>
let running: Running
let isolde: Caller
let port: number
beforeAll(async () => {
  company = await startCompany()
  const services = await servicesOn(company.database.url, join(company.database.folder, 'key'))
  port = await freePort()
  const config = { ...services.config, PORT: 0, METRICS_PORT: port, TRUST_PROXY: '1' as const }
  running = await serve({ ...services, config })
  isolde = await Caller.at(running.address, 'isolde')
})
afterAll(async () => {
  await running.close()
  await company.stop()
})

const metrics = async () => (await fetch(`http://127.0.0.1:${port}/metrics`)).text()

it('calls by route and outcome, secrets shown and what waits are told on a port of their own, without an id or a name', async () => {
  const visit = await openAVisit(isolde)
  const write = (body: unknown) => isolde.call('POST', `/visits/${visit}/entries`, body)
  await write({ entries: [draft(visit, 'note.written', { text: 'gull' })] })
  await write({ entries: [] })
  const ref = draft(visit, 'note.written', { text: '' }).id
  const network = draft(visit, 'note.written', { text: '' }).id
  await write({ entries: [draft(visit, 'network.set', { id: network, set: { ssid: 'Gull', use: 'main' } })] })
  await isolde.call('POST', `/visits/${visit}/secrets`, {
    ref,
    purpose: 'wifi-passphrase',
    thing: 'network',
    id: network,
    origin: 'typed',
    value: 'lantern-kelp-harbour-12'
  })
  expect((await isolde.call('POST', `/visits/${visit}/secrets/${ref}/show`, { why: 'checking it' })).status).toBe(200)
  await isolde.call('GET', `/visits/${visit}`)
  const text = await metrics()
  const of = (route: string, method: string, status: number) =>
    new RegExp(`pasado_call_seconds_count\\{method="${method}",route="${route}",status="${status}"\\} (\\d+)`).exec(
      text
    )?.[1]
  expect([of('/api/visits/:id/entries', 'POST', 200), of('/api/visits/:id/entries', 'POST', 422)]).toEqual(['2', '1'])
  expect(text).toContain('pasado_secrets_shown_total 1')
  for (const name of [
    'pool_reading_queue',
    'pool_writing_queue',
    'visits_to_judge',
    'visits_to_count',
    'homes_to_count',
    'erasures_due',
    'news_age_seconds'
  ])
    expect(text).toMatch(new RegExp(`^pasado_${name} \\d`, 'm'))
  expect(text).toMatch(/^process_resident_memory_bytes \d/m)
  expect(text).not.toMatch(/[\da-f]{8}-[\da-f]{4}-|isolde|lantern/i)
  expect((await fetch(`${running.address}/metrics`)).status).toBe(404)
})

it('a call keeps the id that the proxy gave it, else gets one; a fault names it', async () => {
  const id = async (headers: Record<string, string>) =>
    (await isolde.call('GET', '/session', undefined, headers)).headers.get('x-request-id')
  expect(await id({ 'X-Request-Id': 'proxy-0001-abcd' })).toBe('proxy-0001-abcd')
  expect(await id({ 'X-Request-Id': 'a b<script>' })).toMatch(/^[\da-f-]{36}$/)
  const { db } = running.services
  const execute = db.getConnection.bind(db)
  db.getConnection = () => Promise.reject(Object.assign(new Error('gone'), { code: 'ECONNREFUSED' }))
  const { status, body } = await isolde.call('GET', '/day', undefined, { 'X-Request-Id': 'proxy-0002-abcd' })
  db.getConnection = execute
  expect([status, body.instance]).toEqual([503, 'urn:pasado:request:proxy-0002-abcd'])
})
