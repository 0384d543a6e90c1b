import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Draft, Entry, Placed } from '@pasado/core/record/entry'
import { localTime } from '../src/app/local-time'
import { opened } from '../../core/test/fixture'
import type * as StoreModule from '../src/visit/store'

import { clearStores, inStore } from './idb'

const kept = inStore()
vi.mock('idb-keyval', () => import('./idb'))

/** A server of one visit that can be away or refuse. */
class FakeServer {
  entries: Entry[] = []
  away = false
  refuse: (draft: Draft) => boolean = () => false
  posts = 0

  constructor() {
    for (const placed of opened().entries) this.#take(placed)
  }

  #take(placed: Placed): void {
    this.entries.push(chained(this.entries.at(-1)?.hash ?? chainStart, { ...placed, seq: this.entries.length + 1 }))
  }

  handle = (address: string, options: RequestInit = {}): Promise<Response> => {
    if (this.away) return Promise.reject(new TypeError('away'))
    const json = (body: unknown, status = 200) => Promise.resolve(new Response(JSON.stringify(body), { status }))
    if (options.method === 'POST') {
      this.posts++
      const { entries } = JSON.parse(String(options.body)) as { entries: Draft[] }
      const wrong = entries.findIndex((draft) => this.refuse(draft))
      if (wrong >= 0) return json({ title: 'Something is not acceptable.', status: 422, errors: [{ pointer: '', field: `entries[${wrong}]`, detail: 'is not wanted' }] }, 422)
      for (const draft of entries) if (!this.entries.some(({ id }) => id === draft.id)) this.#take({ ...draft, by: { id: 'x', name: 'X', role: 'technician' }, received: draft.at } as unknown as Placed)
      return json({ receipts: [] })
    }
    const after = /entries\?after=(\d+)/.exec(address)
    if (after) return json({ entries: this.entries.filter(({ seq }) => seq > Number(after[1])) })
    if (address.endsWith('/catalogue')) return json({ models: [] })
    return json({ entries: this.entries, standard: undefined, models: [] })
  }
}

let server: FakeServer
let store: typeof StoreModule
const visit = opened().entries[0]!.visit

beforeEach(async () => {
  clearStores()
  vi.resetModules()
  server = new FakeServer()
  vi.stubGlobal('EventSource', class { static CLOSED = 2; readyState = 1; addEventListener() {} close() {} })
  const { firstStandard } = await import('@pasado/core/standard/standard')
  vi.stubGlobal('fetch', (address: string, options?: RequestInit) => server.handle(address, options).then(async (response) => {
    if (!/\/visits\/[^/]+$/.test(address)) return response
    return new Response(JSON.stringify({ ...(await response.json()), standard: firstStandard }))
  }))
  store = await import('../src/visit/store')
  await store.openVisit(visit)
})
afterEach(() => { store.closeVisit(); vi.unstubAllGlobals() })

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
    expect([...kept.values()].flat()).toHaveLength(1)
    server.away = false
    await store.send()
    expect(server.entries.filter(({ kind }) => kind === 'brief.set')).toHaveLength(1)
    expect([...kept.values()].flat()).toHaveLength(0)
  })

  it('and refused is set aside with the reason, while the rest goes on', async () => {
    server.refuse = (draft) => JSON.stringify(draft.body).includes('666')
    server.away = true
    write('555-0666')
    store.write('brief.set', { set: { secondContact: 'Aunt' } })
    server.away = false
    await vi.waitFor(() => expect(store.useVisit.getState().pending).toHaveLength(0), { timeout: 5_000 })
    expect(store.useVisit.getState().refused.map(({ words }) => words)).toEqual([expect.stringContaining('is not wanted')])
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
