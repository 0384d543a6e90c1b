import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { opened } from '@pasado/testing/logbook'
import type * as LoadModule from '../visit/session/load'
import type * as SessionModule from './session'
import { loadSession, type SessionModules } from '../../test/session-modules'
import { FakeServer } from '../../test/fake-server'
import { clearStores, inStore } from '../../test/idb'

const copies = () => [...inStore('pasado-taken/copies').keys()].sort()
const visit = opened().entries[0]!.visit
let server: FakeServer
let store: SessionModules
let load: typeof LoadModule
let session: typeof SessionModule

/** The program is started anew; the device keeps what it kept. */
async function start(): Promise<void> {
  vi.resetModules()
  store = await loadSession()
  load = await import('../visit/session/load')
  session = await import('./session')
  void (await import('../outbox/send')).keepSending()
  await session.useSession
    .getState()
    .look()
    .catch(() => undefined)
}

beforeEach(async () => {
  clearStores()
  server = new FakeServer()
  await start()
})
afterEach(() => {
  store.closeVisit()
  vi.unstubAllGlobals()
})

const facts = () => store.useVisit.getState().record.brief.facts

describe('without a connection', () => {
  it('a visit that was opened before is opened as it was, written in, and put right once the server is back', async () => {
    await store.openVisit(visit)
    store.closeVisit()
    server.away = true
    await start()
    expect(session.useSession.getState()).toMatchObject({ me: { id: 'x' }, unasked: true })
    await store.openVisit(visit)
    expect(store.useVisit.getState().asOf).toBeGreaterThan(Date.now() - 10_000)
    expect(facts().phone).toBe('555-0101')
    store.write('brief.set', { set: { phone: '555-0177' } })
    await vi.waitFor(() => expect(store.useVisit.getState().saving).toBe('not saved yet'))
    server.writeElsewhere({ secondContact: 'Aunt' })
    server.back()
    await vi.waitFor(() => expect(store.useVisit.getState()).toMatchObject({ asOf: null, pending: [] }))
    expect(facts()).toMatchObject({ phone: '555-0177', secondContact: 'Aunt' })
    expect(
      server.entries.filter(({ kind, body }) => kind === 'brief.set' && JSON.stringify(body).includes('0177'))
    ).toHaveLength(1)
  })

  it('what is sent while the visit is put right is not shown twice, nor taken back', async () => {
    await store.openVisit(visit)
    server.away = true
    await start()
    await store.openVisit(visit)
    server.away = false
    const held: (() => void)[] = []
    vi.stubGlobal('fetch', async (address: string, options?: RequestInit) => {
      const answer = await server.handle(address, options)
      if (/\/visits\/[^/]+$/.test(address)) await new Promise<void>((resolve) => held.push(resolve))
      return answer
    })
    server.back()
    await vi.waitFor(() => expect(held).toHaveLength(1))
    store.write('brief.set', { set: { phone: '555-0181' } })
    await vi.waitFor(() => expect(store.useVisit.getState().confirmed.record.brief.facts.phone).toBe('555-0181'))
    const shown: unknown[] = []
    const stop = store.useVisit.subscribe(({ confirmed }) => shown.push(confirmed.record.brief.facts.phone))
    held[0]!()
    await vi.waitFor(() => expect(store.useVisit.getState()).toMatchObject({ asOf: null, pending: [] }))
    stop()
    expect(new Set(shown)).toEqual(new Set(['555-0181']))
    expect(store.useVisit.getState().entries.map(({ seq }) => seq)).toEqual(server.entries.map(({ seq }) => seq))
  })

  it('and restarted once more, what was written there is still there', async () => {
    await store.openVisit(visit)
    server.away = true
    await start()
    await store.openVisit(visit)
    store.write('brief.set', { set: { phone: '555-0178' } })
    store.closeVisit()
    await start()
    await store.openVisit(visit)
    expect(facts().phone).toBe('555-0178')
    expect(store.useVisit.getState().pending).toHaveLength(1)
  })

  it('what came in while it was open is in the copy as well', async () => {
    await store.openVisit(visit)
    store.write('brief.set', { set: { phone: '555-0179' } })
    await vi.waitFor(() => expect(store.useVisit.getState().saving).toBe('saved'))
    store.closeVisit()
    server.away = true
    await start()
    await store.openVisit(visit)
    expect(store.useVisit.getState().confirmed.record.brief.facts.phone).toBe('555-0179')
  })

  it('one that is not on the device says that the server cannot be reached', async () => {
    server.away = true
    await store.openVisit(visit)
    expect(store.useVisit.getState()).toMatchObject({ problem: 'The server cannot be reached just now.', entries: [] })
  })
})

describe('the visits of the day', () => {
  it('are taken along, each only where the device has not all of it', async () => {
    await load.takeVisitsAlong([{ id: visit, seq: server.entries.length }])
    expect(copies()).toEqual(['catalogue', 'me', `visit ${visit}`])
    const asked = vi.spyOn(server, 'handle')
    vi.stubGlobal('fetch', server.handle)
    await load.takeVisitsAlong([{ id: visit, seq: server.entries.length }])
    expect(asked.mock.calls.map(([address]) => address)).toEqual(['/api/catalogue'])
    await load.takeVisitsAlong([{ id: visit, seq: server.entries.length + 1 }])
    expect(asked.mock.calls.at(-1)![0]).toBe(`/api/visits/${visit}`)
    expect(await load.whichAreTaken([{ id: visit }, { id: 'another' }])).toEqual([{ id: visit }])
  })
})

describe('what was taken along', () => {
  beforeEach(() => store.openVisit(visit))

  it('goes when the session has ended, also while a visit is open', async () => {
    expect(copies()).toEqual(['catalogue', 'me', `visit ${visit}`])
    store.write('brief.set', { set: { phone: '555-0180' } })
    await vi.waitFor(() => expect(store.useVisit.getState().saving).toBe('saved'))
    server.person = null
    await session.useSession.getState().look()
    store.closeVisit()
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(copies()).toEqual([])
    expect(session.useSession.getState().me).toBeNull()
  })

  it('goes when somebody else logs in', async () => {
    server.person = { id: 'y', login: 'y', name: 'Y', role: 'lead' }
    await session.useSession.getState().look()
    expect(copies()).toEqual(['me'])
  })

  it('goes after two weeks', async () => {
    vi.spyOn(Date, 'now').mockReturnValue(Date.now() + 15 * 24 * 3600 * 1000)
    await session.useSession.getState().look()
    expect(copies()).toEqual(['me'])
    vi.restoreAllMocks()
  })

  it('stays while the server is only away', async () => {
    server.away = true
    await session.useSession
      .getState()
      .look()
      .catch(() => undefined)
    expect(copies()).toEqual(['catalogue', 'me', `visit ${visit}`])
  })
})
