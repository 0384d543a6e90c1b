import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Draft } from '@pasado/core/record/entry'
import { opened } from '@pasado/testing/logbook'
import type * as ClockModule from '../app/clock'
import type * as OutboxModule from './outbox'
import type * as SendModule from './send'
import type * as SessionModule from '../app/session'
import { loadSession, type SessionModules } from '../../test/session-modules'
import { FakeServer } from '../../test/fake-server'
import { clearStores, inStore } from '../../test/idb'

/** One tab of the program: its own modules over the device's one store. */
interface Tab {
  store: SessionModules
  outbox: typeof OutboxModule
  send: typeof SendModule
  session: typeof SessionModule
  clock: typeof ClockModule
}

const visit = opened().entries[0]!.visit
const person = (id: string) => ({ id, login: id, name: id.toUpperCase(), role: 'technician' as const })
let server: FakeServer
const tabs: Tab[] = []

async function openTab(): Promise<Tab> {
  vi.resetModules()
  const tab: Tab = {
    outbox: await import('./outbox'),
    send: await import('./send'),
    session: await import('../app/session'),
    store: await loadSession(),
    clock: await import('../app/clock')
  }
  tabs.push(tab)
  tab.send.pace.retryMs = 150
  await tab.session.useSession
    .getState()
    .look()
    .catch(() => undefined)
  await tab.send.keepSending()
  return tab
}

/** The browser is closed: nothing goes on in its tabs; what the device keeps stays. */
const closeBrowser = async () => {
  await vi.waitFor(() => undefined)
  await new Promise((resolve) => setTimeout(resolve, 20))
  for (const tab of tabs.splice(0)) {
    tab.store.closeVisit()
    tab.outbox.leaveOutbox()
  }
}

beforeEach(() => {
  clearStores()
  server = new FakeServer()
})
afterEach(async () => {
  await closeBrowser()
  vi.unstubAllGlobals()
})

const kept = () =>
  [...inStore('pasado-outbox/rows').values()] as {
    owner: { id: string } | null
    refused: string | null
    item: { draft: Draft }
  }[]
const phones = () =>
  server.entries
    .filter(({ kind, body }) => kind === 'brief.set' && 'phone' in (body as { set: object }).set)
    .map(({ body }) => (body as { set: { phone: string } }).set.phone)
const write = (tab: Tab, phone: string) => tab.store.write('brief.set', { set: { phone } })

describe('what one person wrote', () => {
  it('is never sent in the name of the next: it waits, and goes when they are back', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    write(tab, '555-0101 a')
    await vi.waitFor(() => expect(kept()).toHaveLength(1))
    server.away = false
    server.person = person('corin')
    await tab.session.useSession.getState().look()
    await tab.store.openVisit(visit)
    await tab.send.sendNow()
    expect(phones()).toEqual([])
    expect(tab.outbox.useOutbox.getState().rows.map(({ owner }) => owner?.name)).toEqual(['X'])
    // Nor is it shown as theirs.
    expect(tab.store.useVisit.getState().pending).toEqual([])
    write(tab, '555-0102 c')
    await vi.waitFor(() => expect(phones()).toEqual(['555-0102 c']))
    server.person = person('x')
    await tab.session.useSession.getState().look()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0102 c', '555-0101 a']), { timeout: 5_000 })
    await vi.waitFor(() => expect(kept()).toHaveLength(0))
  })

  it('outlives logging out, by oneself and by another', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    write(tab, '555-0103')
    await vi.waitFor(() => expect(kept()).toHaveLength(1))
    server.away = false
    server.person = null
    await tab.session.useSession.getState().look()
    await closeBrowser()
    server.person = person('corin')
    const next = await openTab()
    server.person = null
    await next.session.useSession.getState().look()
    expect(kept()).toHaveLength(1)
    expect(phones()).toEqual([])
  })
})

describe('a page that is left in the very moment of writing', () => {
  /** The store takes nothing any more, as where the page is gone. */
  const storeStops = () =>
    vi.spyOn(inStore('pasado-outbox/rows'), 'set').mockImplementation(() => {
      throw new Error('gone')
    })

  it('keeps a line that the store had not taken yet, and sends it once', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    const stopped = storeStops()
    write(tab, '555-0190')
    await closeBrowser()
    expect(kept()).toHaveLength(0)
    stopped.mockRestore()
    server.away = false
    await openTab()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0190']))
    await vi.waitFor(() => expect(kept()).toHaveLength(0))
    await closeBrowser()
    const next = await openTab()
    await next.send.sendNow()
    expect(next.outbox.useOutbox.getState().rows).toEqual([])
    expect(localStorage).toHaveLength(0)
  })

  it('asks before it goes where a secret is not sealed yet', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    const leave = () => !globalThis.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    expect(leave()).toBe(false)
    tab.store.secretForVault(
      { purpose: 'provider-login', thing: 'brief', id: 'brief', origin: 'typed' },
      'made-up-wren-1'
    )
    await vi.waitFor(() => expect(tab.outbox.useOutbox.getState().rows).toHaveLength(1))
    expect(leave()).toBe(true)
    expect(JSON.stringify(localStorage)).not.toContain('made-up-wren-1')
    await vi.waitFor(() => expect(leave()).toBe(false))
  })
})

describe('what waits', () => {
  it('is sent from any view, without its visit being opened', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    write(tab, '555-0104')
    write(tab, '555-0105')
    await vi.waitFor(() => expect(kept()).toHaveLength(2))
    await closeBrowser()
    server.away = false
    await openTab()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0104', '555-0105']))
    await vi.waitFor(() => expect(kept()).toHaveLength(0))
  })

  it('has one id whatever tab and start it was written in, so that nobody is in conflict with themselves', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    write(tab, '555-0106')
    await vi.waitFor(() => expect(kept()).toHaveLength(1))
    await closeBrowser()
    const two = await openTab()
    await two.store.openVisit(visit)
    server.away = false
    write(two, '555-0107')
    await vi.waitFor(() => expect(phones()).toEqual(['555-0106', '555-0107']), { timeout: 5_000 })
    expect(new Set(server.entries.slice(-2).map(({ from }) => from)).size).toBe(1)
    await two.store.openVisit(visit)
    expect(two.store.useVisit.getState().record.conflicts).toEqual([])
  })

  it('is one queue for two tabs: neither writes over the other’s', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    const two = await openTab()
    await two.store.openVisit(visit)
    server.away = true
    write(tab, '555-0108')
    two.store.write('brief.set', { set: { secondContact: 'Aunt' } })
    write(tab, '555-0109')
    await vi.waitFor(() => expect(kept()).toHaveLength(3))
    await vi.waitFor(() => expect(tab.store.useVisit.getState().record.brief.facts.secondContact).toBe('Aunt'))
    expect(two.store.useVisit.getState().record.brief.facts.phone).toBe('555-0109')
    server.away = false
    await vi.waitFor(() => expect(server.entries.filter(({ kind }) => kind === 'brief.set')).toHaveLength(3), {
      timeout: 5_000
    })
    expect(phones()).toEqual(['555-0108', '555-0109'])
  })

  it('and cannot be read back stays, until it was seen in the logbook', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    const told = server.handle
    vi.stubGlobal('fetch', (address: string, options: RequestInit = {}) =>
      options.method === 'POST'
        ? Promise.resolve(new Response(JSON.stringify({ receipts: [] })))
        : told(address, options)
    )
    write(tab, '555-0110')
    await vi.waitFor(() => expect(tab.outbox.useOutbox.getState().stuckSince).not.toBeNull())
    expect(kept()).toHaveLength(1)
    vi.stubGlobal('fetch', told)
    await vi.waitFor(() => expect(phones()).toEqual(['555-0110']), { timeout: 5_000 })
  })

  it('tells what had been seen at the look: the last line, and how many of one’s own', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    const look = tab.store.takeLook()
    expect(look).toEqual({ base: 1, own: 0 })
    server.away = true
    write(tab, '555-0111')
    tab.store.write('brief.set', { set: { secondContact: 'Aunt' } }, { look })
    write(tab, '555-0112')
    await vi.waitFor(() => expect(kept()).toHaveLength(3))
    expect(kept().map(({ item: { draft } }) => [draft.base, draft.own])).toEqual([
      [1, 0],
      [1, 0],
      [1, 2]
    ])
    server.away = false
    await vi.waitFor(() => expect(phones()).toEqual(['555-0111', '555-0112']), { timeout: 5_000 })
    expect(tab.store.takeLook()).toEqual({ base: 4, own: 3 })
  })
})

describe('what was refused', () => {
  it('is still there, with why, after a reload and in every view, until it is put away', async () => {
    server.refuse = (draft) => JSON.stringify(draft.body).includes('666')
    const tab = await openTab()
    await tab.store.openVisit(visit)
    write(tab, '555-0666')
    await vi.waitFor(() =>
      expect(kept().map(({ refused }) => refused)).toEqual([expect.stringContaining('is not wanted')])
    )
    await closeBrowser()
    const again = await openTab()
    await vi.waitFor(() => expect(again.outbox.useOutbox.getState().rows).toHaveLength(1))
    const [row] = again.outbox.useOutbox.getState().rows
    expect(row).toMatchObject({ refused: expect.stringContaining('is not wanted') as string, street: '6 Trawl Street' })
    again.outbox.putRowAway(row!.key)
    await vi.waitFor(() => expect(kept()).toEqual([]))
  })

  it('is not counted among the lines that later ones had before them', async () => {
    server.refuse = (draft) => JSON.stringify(draft.body).includes('666')
    const tab = await openTab()
    await tab.store.openVisit(visit)
    server.away = true
    write(tab, '555-0113')
    write(tab, '555-0666')
    write(tab, '555-0114')
    await vi.waitFor(() => expect(kept()).toHaveLength(3))
    server.away = false
    await vi.waitFor(() => expect(phones()).toEqual(['555-0113', '555-0114']), { timeout: 5_000 })
    expect(server.entries.slice(-2).map((entry) => entry.own)).toEqual([0, 1])
  })

  it('by the end of a session is not: the queue waits for the next log-in', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    const told = server.handle
    vi.stubGlobal('fetch', (address: string, options: RequestInit = {}) =>
      options.method === 'POST'
        ? Promise.resolve(
            new Response(JSON.stringify({ type: 'urn:pasado:problem:log-in', title: 'Log in first.', status: 401 }), {
              status: 401
            })
          )
        : told(address, options)
    )
    server.person = null
    write(tab, '555-0115')
    write(tab, '555-0116')
    await vi.waitFor(() => expect(tab.session.useSession.getState().me).toBeNull())
    expect(kept().map(({ refused }) => refused)).toEqual([null, null])
    vi.stubGlobal('fetch', told)
    server.person = person('x')
    await tab.session.useSession.getState().look()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0115', '555-0116']), { timeout: 5_000 })
  })
})

describe('what an earlier version could not send', () => {
  const draftOf = (phone: string, at: number): Draft => ({
    id: `019a0000-0000-7000-8000-00000000000${at}`,
    visit,
    at: '2026-01-05T10:00:00.000Z',
    from: '0199c000-0000-7000-8000-0000000000f1',
    base: 1,
    kind: 'brief.set',
    body: { set: { phone } }
  })

  it('is taken over for who was here last, and sent', async () => {
    inStore('').set(`pasado-queue-${visit}`, [draftOf('555-0117', 1), draftOf('555-0118', 2)])
    const { createStore } = await import('../../test/idb')
    createStore('pasado-taken', 'copies')
    inStore('pasado-taken/copies').set('me', { at: Date.now(), value: person('x') })
    await openTab()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0117', '555-0118']), { timeout: 5_000 })
    expect(inStore('').size).toBe(0)
  })

  it('waits for somebody to say whose it is, where nobody knows', async () => {
    inStore('').set(`pasado-queue-${visit}`, [draftOf('555-0119', 3)])
    const tab = await openTab()
    await tab.send.sendNow()
    expect(phones()).toEqual([])
    expect(tab.outbox.useOutbox.getState().rows).toMatchObject([{ owner: null }])
    tab.outbox.claimRows()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0119']), { timeout: 5_000 })
  })
})

describe('a line that died without a word', () => {
  it('is given up after a while, and what was sent on it is sent again, once', async () => {
    const tab = await openTab()
    await tab.store.openVisit(visit)
    const { patience } = await import('./attempt')
    patience.ms = 100
    server.silent = true
    write(tab, '555-0121')
    await vi.waitFor(() => expect(tab.outbox.useOutbox.getState().stuckSince).not.toBeNull())
    server.silent = false
    await vi.waitFor(() => expect(phones()).toEqual(['555-0121']), { timeout: 5_000 })
    await vi.waitFor(() => expect(kept()).toHaveLength(0))
  })

  it('is given up at once where the device says that it is connected again', async () => {
    const listeners = new Map<string, () => void>()
    vi.stubGlobal('addEventListener', (name: string, heard: () => void) => listeners.set(name, heard))
    const tab = await openTab()
    const online = listeners.get('online')!
    await tab.store.openVisit(visit)
    server.silent = true
    write(tab, '555-0122')
    await vi.waitFor(() => expect(kept()).toHaveLength(1))
    server.silent = false
    tab.send.pace.retryMs = 60_000
    online()
    await vi.waitFor(() => expect(phones()).toEqual(['555-0122']), { timeout: 5_000 })
  })
})

describe('the live feed', () => {
  it('that beats no more is dead, though nobody said so: another is begun', async () => {
    const tab = await openTab()
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    try {
      await tab.store.openVisit(visit)
      const begun = server.listened
      await vi.advanceTimersByTimeAsync(30_000)
      server.beat()
      await vi.advanceTimersByTimeAsync(30_000)
      expect(server.listened).toBe(begun)
      await vi.advanceTimersByTimeAsync(25_000)
      expect(server.listened).toBe(begun + 1)
    } finally {
      vi.useRealTimers()
    }
  })

  it('comes back although something is written and sent while it is away', async () => {
    const tab = await openTab()
    let made = 0
    let refused: (() => void) | undefined
    vi.stubGlobal(
      'EventSource',
      class {
        static CLOSED = 2
        readyState = 2
        constructor() {
          made++
        }
        addEventListener(name: string, heard: () => void) {
          if (name === 'error') refused = heard
        }
        close() {}
      }
    )
    await tab.store.openVisit(visit)
    expect(made).toBe(1)
    refused!()
    write(tab, '555-0120')
    await tab.send.sendNow()
    await vi.waitFor(() => expect(made).toBe(2), { timeout: 4_000 })
  })
})

it('a clock that is wrong is told, with by how much', async () => {
  const tab = await openTab()
  const { holdClockAgainst, offWords, useClock } = tab.clock
  const now = Date.parse('2026-11-27T10:00:00Z')
  holdClockAgainst('Fri, 27 Nov 2026 10:01:00 GMT', now)
  expect(useClock.getState().aheadMs).toBeNull()
  holdClockAgainst('Tue, 24 Nov 2026 10:00:00 GMT', now)
  expect(offWords(useClock.getState().aheadMs!)).toBe('3 days fast')
  holdClockAgainst('Fri, 27 Nov 2026 13:00:00 GMT', now)
  expect(offWords(useClock.getState().aheadMs!)).toBe('3 hours slow')
  holdClockAgainst(null, now)
  holdClockAgainst('Fri, 27 Nov 2026 10:00:00 GMT', now)
  expect(useClock.getState().aheadMs).toBeNull()
})
