import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { localTime } from '../../app/local-time'
import { opened } from '@pasado/testing/logbook'
import type * as OutboxModule from '../../outbox/outbox'
import type * as SendModule from '../../outbox/send'
import { loadSession, type SessionModules } from '../../../test/session-modules'

import { FakeServer } from '../../../test/fake-server'
import { clearStores, inStore } from '../../../test/idb'

const kept = () => [...inStore('pasado-outbox/rows').values()]
let server: FakeServer
let store: SessionModules
let outbox: typeof OutboxModule
let sender: typeof SendModule
const visit = opened().entries[0]!.visit

beforeEach(async () => {
  clearStores()
  vi.resetModules()
  server = new FakeServer()
  store = await loadSession()
  outbox = await import('../../outbox/outbox')
  sender = await import('../../outbox/send')
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
    expect(store.useVisit.getState().confirmed.record.brief.facts.phone).toBe('555-0150')
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

describe('a visit that was left', () => {
  it('and opened another, is not shown by an answer that comes late', async () => {
    store.closeVisit()
    let answer = () => {}
    const slow = new Promise<void>((resolve) => (answer = resolve))
    const { handle } = server
    vi.stubGlobal('fetch', async (address: string, options?: RequestInit) => {
      if (address.endsWith(`/visits/${visit}`)) await slow
      return handle(address, options)
    })
    const first = store.openVisit(visit)
    await store.openVisit('another')
    expect(store.useVisit.getState().id).toBe('another')
    const { entries } = store.useVisit.getState()
    const asked = server.listened
    answer()
    await first
    expect([store.useVisit.getState().id, store.useVisit.getState().entries, server.listened]).toEqual([
      'another',
      entries,
      asked
    ])
  })

  it('does not ask for news again; one that is open does, when its stream was refused', async () => {
    vi.useFakeTimers()
    try {
      const refuse = () => server.refusals.forEach((refused) => refused())
      const before = server.listened
      refuse()
      await vi.advanceTimersByTimeAsync(2_100)
      expect(server.listened).toBe(before + 1)
      refuse()
      store.closeVisit()
      await vi.advanceTimersByTimeAsync(10_000)
      expect(server.listened).toBe(before + 1)
    } finally {
      vi.useRealTimers()
    }
  })

  it('takes in nothing that is written, until it is opened again', async () => {
    store.closeVisit()
    const { record } = store.useVisit.getState()
    server.writeElsewhere({ phone: '555-0199' })
    server.back()
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(store.useVisit.getState().record).toBe(record)
    await store.openVisit(visit)
    expect(phone()).toBe('555-0199')
  })
})

it('the author’s clock is told with its offset', () => {
  const now = new Date('2026-03-01T10:00:00Z')
  expect(Date.parse(localTime(now))).toBe(now.getTime())
  vi.spyOn(Date.prototype, 'getTimezoneOffset').mockReturnValue(-330)
  expect(localTime(now)).toBe('2026-03-01T15:30:00.000+05:30')
  vi.restoreAllMocks()
})
