import mysql from 'mysql2/promise'
import { Caller, draft, openAVisit } from '@pasado/testing/company'
import type { Entry } from '@pasado/core/record/entry'
import type { Services } from '@pasado/server/services'
import { entriesAfter } from '@pasado/server/archive/archived'
import { lightCaller } from './light-caller'
import { median, report } from './timing'

const PER_CLIENT = { 1: 400, 8: 150 } as const
const ROUNDS = 3

/** Entries as a technician writes them: mostly facts, some lamps. */
function drafts(visit: string, many: number) {
  const unit = '00000000-0000-4000-8000-0000000000aa'
  return Array.from({ length: many }, (_, at) =>
    at % 3 === 0
      ? draft(visit, 'unit.set', { id: unit, set: { place: `shelf ${at}` } })
      : draft(visit, 'note.written', { text: `line ${at} of the day` })
  )
}

/** Entries a second through HTTP, each client on a visit of its own, so many entries a request. */
async function throughHttp(
  address: string,
  clients: 1 | 8,
  aRequest: number
): Promise<{ rate: number; visits: string[] }> {
  const callers = await Promise.all(Array.from({ length: clients }, () => Caller.at(address, 'isolde')))
  const visits = await Promise.all(callers.map((caller) => openAVisit(caller)))
  const work = visits.map((visit) => drafts(visit, PER_CLIENT[clients]))
  const posts = callers.map((caller) => lightCaller(caller))
  const began = performance.now()
  await Promise.all(
    posts.map(async (post, at) => {
      for (let from = 0; from < work[at]!.length; from += aRequest) {
        const status = await post(`/visits/${visits[at]}/entries`, {
          entries: work[at]!.slice(from, from + aRequest)
        })
        if (status !== 200) throw new Error(`an entry was not taken: ${status}`)
      }
    })
  )
  return { rate: (clients * PER_CLIENT[clients] * 1000) / (performance.now() - began), visits }
}

/** The same rows by bare INSERTs, one a statement, on as many connections. */
async function bareInserts(url: string, rows: Entry[][]): Promise<number> {
  const connections = await Promise.all(rows.map(() => mysql.createConnection({ uri: url })))
  await connections[0]!.query(
    'CREATE TABLE IF NOT EXISTS bench_entries (visit_id CHAR(36) CHARACTER SET ascii NOT NULL, seq INT NOT NULL, id CHAR(36) CHARACTER SET ascii NOT NULL UNIQUE, doc LONGTEXT NOT NULL, PRIMARY KEY (visit_id, seq)) ENGINE=InnoDB'
  )
  await connections[0]!.query('TRUNCATE bench_entries')
  const began = performance.now()
  await Promise.all(
    connections.map(async (connection, at) => {
      for (const entry of rows[at]!)
        await connection.execute('INSERT INTO bench_entries (visit_id, seq, id, doc) VALUES (?, ?, ?, ?)', [
          entry.visit,
          entry.seq,
          entry.id,
          JSON.stringify(entry)
        ])
    })
  )
  const rate = (rows.reduce((sum, list) => sum + list.length, 0) * 1000) / (performance.now() - began)
  await Promise.all(connections.map((connection) => connection.end()))
  return rate
}

/** Appending through HTTP against bare INSERTs of the same rows. */
export async function benchAppend(services: Services, address: string, url: string): Promise<void> {
  for (const [clients, aRequest] of [
    [1, 1],
    [8, 1],
    [1, 50],
    [8, 50]
  ] as const) {
    const ratios: number[] = []
    const rates: number[] = []
    const bare: number[] = []
    for (let round = 0; round <= ROUNDS; round++) {
      const { rate, visits } = await throughHttp(address, clients, aRequest)
      const rows = await Promise.all(visits.map(async (visit) => await entriesAfter(services.db, visit, 1)))
      const plain = await bareInserts(url, rows)
      if (round === 0) continue
      rates.push(rate)
      bare.push(plain)
      ratios.push(plain / rate)
    }
    report(
      `appending through HTTP, ${clients} client${clients > 1 ? 's' : ''}, ${aRequest} a request (baseline: bare INSERTs, ${median(bare).toFixed(0)} a second)`,
      `${median(rates).toFixed(0)} entries a second, ${median(ratios).toFixed(2)} times the baseline’s time`
    )
  }
}
