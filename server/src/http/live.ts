import { PassThrough } from 'node:stream'
import { entriesAfter } from '../archive/archived'
import type { Db } from '../db/pool'
import { headsOf } from '../db/visits'

interface Listener {
  visit: string
  seq: number
  stream: PassThrough
}

const POLL_MS = 700
/** Heard by the program too: a line that died without a word is noticed by its silence. */
const HEARTBEAT_MS = 20_000
const BEAT = 'event: beat\ndata: still here\n\n'
/** A stream ends after this long; the browser comes back at once, with a session that still lasts or not at all. */
const LASTS_MS = 60_000

/**
 * Tells open browsers of new entries by server-sent events. What this process writes goes out at once; what another
 * process writes is found by asking the database for the heads of the visits that are being watched.
 */
export class LiveFeed {
  readonly #listeners = new Set<Listener>()
  #timer: NodeJS.Timeout | null = null
  #beat: NodeJS.Timeout | null = null
  #busy: Promise<void> | null = null
  #lookedAt = performance.now()

  constructor(
    private readonly db: Db,
    private readonly onError: (error: unknown) => void,
    private readonly lastsMs = LASTS_MS
  ) {}

  /** A stream of a visit's entries after a line. */
  listen(visit: string, seq: number): PassThrough {
    const stream = new PassThrough()
    const listener: Listener = { visit, seq, stream }
    this.#listeners.add(listener)
    const end = setTimeout(() => stream.end(), this.lastsMs)
    stream.on('close', () => {
      clearTimeout(end)
      this.#leave(listener)
    })
    stream.write(`retry: 1000\n\n${BEAT}`)
    if (this.#listeners.size === 1) this.#lookedAt = performance.now()
    this.#timer ??= setInterval(() => void this.poll(), POLL_MS)
    this.#beat ??= setInterval(() => {
      for (const listener of this.#listeners) listener.stream.write(BEAT)
    }, HEARTBEAT_MS)
    void this.poll()
    return stream
  }

  /** Looks for news now. */
  poll(): Promise<void> {
    this.#busy ??= this.#look()
      .catch(this.onError)
      .finally(() => {
        this.#busy = null
      })
    return this.#busy
  }

  /** Since when whoever watches a visit has heard nothing of the database, ms; 0 where nobody does. */
  ageMs(): number {
    return this.#listeners.size === 0 ? 0 : performance.now() - this.#lookedAt
  }

  /** Ends every stream. */
  close(): void {
    for (const { stream } of this.#listeners) stream.end()
    for (const listener of [...this.#listeners]) this.#leave(listener)
  }

  #leave(listener: Listener): void {
    this.#listeners.delete(listener)
    if (this.#listeners.size > 0) return
    for (const timer of [this.#timer, this.#beat]) if (timer) clearInterval(timer)
    this.#timer = this.#beat = null
  }

  async #look(): Promise<void> {
    const began = performance.now()
    const heads = await headsOf(this.db, [...new Set([...this.#listeners].map(({ visit }) => visit))])
    for (const listener of this.#listeners) {
      if ((heads.get(listener.visit) ?? 0) <= listener.seq) continue
      const news = await entriesAfter(this.db, listener.visit, listener.seq)
      if (news.length === 0) continue
      listener.seq = news.at(-1)!.seq
      listener.stream.write(`id: ${listener.seq}\nevent: entries\ndata: ${JSON.stringify(news)}\n\n`)
    }
    this.#lookedAt = began
  }
}
