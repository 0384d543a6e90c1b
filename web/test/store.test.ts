import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { localTime } from '../src/app/local-time'
import { opened } from '../../core/test/fixture'
import type * as OutboxModule from '../src/outbox/outbox'
import type * as SendModule from '../src/outbox/send'
import type * as StoreModule from '../src/visit/session/store'

import { FakeServer } from './fake-server'
import { clearStores, inStore } from './idb'

const kept = () => [...inStore('pasado-outbox/rows').values()]
vi.mock('idb-keyval', () => import('./idb'))

let server: FakeServer
let store: typeof StoreModule
let outbox: typeof OutboxModule
let sender: typeof SendModule
const visit = opened().entries[0]!.visit

beforeEach(async () => {
  clearStores()
  vi.resetModules()
  server = new FakeServer()
  store = await import('../src/visit/session/store')
  outbox = await import('../src/outbox/outbox')
  sender = await import('../src/outbox/send')
  await sender.keepSending()
  await store.openVisit(visit)
})
afterEach(() => {
  store.closeVisit()
  vi.unstubAllGlobals()
})

const phone = () => store.useVisit.getState().record.brief.facts.phone
const write = (value: string) => store.write('brief.set', { set: { phone: value } })

describe('what is written', () => {
  it('is shown at once, sent, and then confirmed', async () => {
    write('555-0150')
    expect([phone(), store.useVisit.getState().saving]).toEqual(['555-0150', 'saving'])
    await vi.waitFor(() => expect(store.useVisit.getState().saving).toBe('saved'))
    expect(store.useVisit.getState().confirmed.brief.facts.phone).toBe('555-0150')
  })

  it('is kept on the device while the server is away, and sent once when it is back', async () => {
    server.away = true
    write('555-0151')
    await vi.waitFor(() => expect(store.useVisit.getState().saving).toBe('not saved yet'))
    expect(kept()).toHaveLength(1)
    server.away = false
    await sender.sendNow()
    expect(server.entries.filter(({ kind }) => kind === 'brief.set')).toHaveLength(1)
    await vi.waitFor(() => expect(kept()).toHaveLength(0))
  })

  it('and refused is set aside with the reason, while the rest goes on', async () => {
    server.refuse = (draft) => JSON.stringify(draft.body).includes('666')
    server.away = true
    write('555-0666')
    store.write('brief.set', { set: { secondContact: 'Aunt' } })
    server.away = false
    await vi.waitFor(() => expect(store.useVisit.getState().pending).toHaveLength(0), { timeout: 5_000 })
    expect(outbox.useOutbox.getState().rows.map(({ refused }) => refused)).toEqual([
      expect.stringContaining('is not wanted')
    ])
    expect(store.useVisit.getState().record.brief.facts.secondContact).toBe('Aunt')
    expect(phone()).toBe('555-0101')
  })

  it('can be taken back', () => {
    write('555-0152')
    expect(store.undo()).toBe(true)
    expect(phone()).toBe('555-0101')
    expect(store.undo()).toBe(false)
  })
})

it('the author’s clock is told with its offset', () => {
  const now = new Date('2026-03-01T10:00:00Z')
  expect(Date.parse(localTime(now))).toBe(now.getTime())
  vi.spyOn(Date.prototype, 'getTimezoneOffset').mockReturnValue(-330)
  expect(localTime(now)).toBe('2026-03-01T15:30:00.000+05:30')
  vi.restoreAllMocks()
})
