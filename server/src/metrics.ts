import { createServer, type Server } from 'node:http'
import type { Pool as CallbackPool } from 'mysql2'
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client'
import { erasuresDue } from './db/erasures'
import { countHomesToCount } from './db/standing'
import { countToCount } from './db/figures'
import { retriesSoFar, writersOf, type Db } from './db/pool'
import { countToJudge } from './db/visits'
import type { LiveFeed } from './http/live'

/** What of a pool is told; mysql2 keeps it to itself. */
interface PoolInside {
  _allConnections: { length: number }
  _freeConnections: { length: number }
  _connectionQueue: { length: number }
}

const insideOf = (db: Db) => (db as unknown as { pool: CallbackPool }).pool as unknown as PoolInside

/** How this process is, for Prometheus: names, counts and times, nothing of what was sent. */
export class Metrics {
  readonly registry = new Registry()
  readonly #calls: Histogram
  readonly #shown: Counter

  constructor(db: Db, live: LiveFeed) {
    const registers = [this.registry]
    this.#calls = new Histogram({
      name: 'pasado_call_seconds',
      help: 'Calls by method, route and status, and how long they took',
      labelNames: ['method', 'route', 'status'],
      buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30],
      registers
    })
    this.#shown = new Counter({
      name: 'pasado_secrets_shown_total',
      help: 'Secrets that were shown, printed or exported',
      registers
    })
    const gauge = (name: string, help: string, value: () => number | Promise<number>) =>
      new Gauge({
        name,
        help,
        registers,
        async collect() {
          // What cannot be asked for just now is not a number; the rest is told all the same.
          this.set(await Promise.resolve(value()).catch(() => Number.NaN))
        }
      })
    for (const [kind, pool] of [
      ['reading', db],
      ['writing', writersOf(db)]
    ] as const) {
      gauge(`pasado_pool_${kind}_used`, `Connections for ${kind} that are in use`, () => {
        const { _allConnections, _freeConnections } = insideOf(pool)
        return _allConnections.length - _freeConnections.length
      })
      gauge(
        `pasado_pool_${kind}_queue`,
        `Calls that wait for a connection for ${kind}`,
        () => insideOf(pool)._connectionQueue.length
      )
    }
    gauge('pasado_transaction_retries', 'Transactions that were begun anew, since the start', retriesSoFar)
    gauge(
      'pasado_news_age_seconds',
      'Since when those who watch a visit have heard nothing of the database',
      () => live.ageMs() / 1_000
    )
    gauge('pasado_visits_to_judge', 'Visits whose findings are not listed yet', () => countToJudge(db))
    gauge('pasado_visits_to_count', 'Sealed visits that are in no figure yet', () => countToCount(db))
    gauge('pasado_homes_to_count', 'Homes where it is not counted yet what stands there', () => countHomesToCount(db))
    gauge('pasado_erasures_due', 'Visits whose secrets were to be erased by now', () => erasuresDue(db, new Date()))
  }

  /** Notes a call that was answered. */
  noteCall(method: string, route: string, status: number, ms: number): void {
    this.#calls.observe({ method, route, status }, ms / 1_000)
  }

  /** Notes that secrets were shown. */
  noteShown(count: number): void {
    if (count > 0) this.#shown.inc(count)
  }
}

/** Serves the metrics on loopback, on a port of their own: what asks for them stands on this machine. @returns ends it */
export async function serveMetrics({ registry }: Metrics, port: number): Promise<() => Promise<void>> {
  collectDefaultMetrics({ register: registry })
  const server: Server = createServer((request, response) => {
    if (request.method !== 'GET' || request.url !== '/metrics') {
      response.writeHead(404).end()
      return
    }
    registry.metrics().then(
      (text) => response.writeHead(200, { 'content-type': registry.contentType }).end(text),
      () => response.writeHead(500).end()
    )
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', resolve)
  })
  return () =>
    new Promise((resolve) => {
      server.close(() => resolve())
      server.closeAllConnections()
    })
}
