import { vi } from 'vitest'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Draft, Entry, Placed } from '@pasado/core/record/entry'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { opened } from '@pasado/testing/logbook'
import type { Me } from '../src/app/session'

/** A server of one visit that can be away or refuse. */
export class FakeServer {
  entries: Entry[] = []
  away = false
  /** Takes calls and answers none, as at the other end of a line that died. */
  silent = false
  refuse: (draft: Draft) => boolean = () => false
  posts = 0
  /** How often a stream of news was asked for. */
  listened = 0
  person: Me | null = { id: 'x', login: 'x', name: 'X', role: 'technician' }
  readonly streams = new Set<() => void>()
  /** Each refuses a stream: it does not come back by itself. */
  readonly refusals = new Set<() => void>()
  readonly #beats = new Set<() => void>()

  constructor() {
    for (const placed of opened().entries) this.#take(placed)
    vi.stubGlobal('fetch', this.handle)
    const { streams, refusals } = this
    const beats = this.#beats
    const listen = () => this.listened++
    vi.stubGlobal(
      'EventSource',
      class {
        static CLOSED = 2
        readyState = 1
        constructor() {
          listen()
        }
        addEventListener(name: string, heard: () => void) {
          if (name === 'open') streams.add(heard)
          if (name === 'beat') beats.add(heard)
          if (name !== 'error') return
          refusals.add(() => {
            this.readyState = 2
            heard()
          })
        }
        close() {
          streams.clear()
        }
      }
    )
  }

  /** Is there again: the streams come back by themselves. */
  back(): void {
    this.away = false
    for (const opened of this.streams) opened()
  }

  /** The streams say that they are alive. */
  beat(): void {
    for (const heard of this.#beats) heard()
  }

  /** Somebody else writes. */
  writeElsewhere(body: object): void {
    this.#take({ ...opened().entries[0]!, id: crypto.randomUUID(), kind: 'brief.set', body: { set: body } } as Placed)
  }

  #take(placed: Placed): void {
    this.entries.push(chained(this.entries.at(-1)?.hash ?? chainStart, { ...placed, seq: this.entries.length + 1 }))
  }

  handle = (address: string, options: RequestInit = {}): Promise<Response> => {
    if (this.away) return Promise.reject(new TypeError('away'))
    if (this.silent)
      return new Promise((_, reject) => {
        options.signal?.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError')))
      })
    const json = (body: unknown, status = 200) => Promise.resolve(new Response(JSON.stringify(body), { status }))
    if (options.method === 'POST') {
      this.posts++
      const { entries } = JSON.parse(String(options.body)) as { entries: Draft[] }
      const wrong = entries.findIndex((draft) => this.refuse(draft))
      if (wrong >= 0)
        return json(
          {
            title: 'Something is not acceptable.',
            status: 422,
            errors: [{ pointer: '', field: `entries[${wrong}]`, detail: 'is not wanted' }]
          },
          422
        )
      for (const draft of entries)
        if (!this.entries.some(({ id }) => id === draft.id))
          this.#take({
            ...draft,
            by: { id: 'x', name: 'X', role: 'technician' },
            received: draft.at
          } as unknown as Placed)
      return json({ receipts: [] })
    }
    const after = /entries\?after=(\d+)/.exec(address)
    if (after) return json({ entries: this.entries.filter(({ seq }) => seq > Number(after[1])) })
    if (address.endsWith('/catalogue')) return json({ models: [] })
    if (address.endsWith('/session')) return json({ person: this.person })
    if (/\/visits\/[^/]+$/.test(address)) return json({ entries: this.entries, standard: firstStandard, models: [] })
    return json({ title: 'There is nothing at this address.', status: 404 }, 404)
  }
}
