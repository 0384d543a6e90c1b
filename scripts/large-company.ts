import { summarise } from '@pasado/core/documents/visit-summary'
import { v7 as uuidv7 } from 'uuid'
import { catalogueOf } from '@pasado/core/catalogue/model'
import { modelsUsed } from '@pasado/core/documents/record-file'
import { chained, chainStart } from '@pasado/core/record/chain'
import type { Entry, Placed } from '@pasado/core/record/entry'
import { digestOf } from '@pasado/core/values/canonical'
import type { VisitRecord } from '@pasado/core/record/record'
import { apply, emptyRecord } from '@pasado/core/record/reduce'
import { sealText } from '@pasado/core/record/seal'
import { historyOf } from '@pasado/core/history/history'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { largeCompany, takenOverStandard, type GeneratedVisit } from '@pasado/demo/large-company'
import { demoModels } from '@pasado/demo/models/all'
import { addModel, addStandard } from '@pasado/server/db/catalogue'
import { insertEntries } from '@pasado/server/db/entries'
import type { Statement } from '@pasado/server/db/pool'
import { shownOf } from '@pasado/server/logbook/logbook'
import { serverDevice } from '@pasado/server/logbook/server-author'
import { project, projectFindings } from '@pasado/server/db/projections'
import { packedVerdicts } from '@pasado/server/logbook/verdicts'
import type { Services } from '@pasado/server/services'
import { signText } from '@pasado/server/vault/master-key'

/** How far loading has come. */
export interface Loaded {
  homes: number
  visits: number
  units: number
}

const AT_ONCE = 250

/**
 * Loads a generated company: every visit with its own chained and sealed logbook and the projections that the server makes of one, some
 * hundreds in a transaction, none held longer. Sealed as taken over from paper: nobody signed them.
 * @param onProgress is told after each transaction
 */
export async function loadLargeCompany(
  services: Services,
  { homes, today }: { homes: number; today: Date },
  onProgress: (loaded: Loaded) => void = () => undefined
): Promise<Loaded> {
  await addStandard(services.db, takenOverStandard)
  for (const model of demoModels) await addModel(services.db, model)
  const loaded: Loaded = { homes: 0, visits: 0, units: 0 }
  let home = ''
  let batch: GeneratedVisit[] = []
  // While the database takes one lot, the next is made.
  let storing: Promise<void> = Promise.resolve()
  const store = async () => {
    await storing
    storing = storeVisits(services, batch)
    storing.catch(() => undefined)
    batch = []
    onProgress({ ...loaded })
  }
  for (const visit of largeCompany({ homes, today })) {
    loaded.visits += 1
    loaded.units += visit.lines.filter(({ kind }) => kind === 'unit.set').length
    if (visit.home !== home) loaded.homes += 1
    home = visit.home
    batch.push(visit)
    if (batch.length >= AT_ONCE) await store()
  }
  if (batch.length) await store()
  await storing
  return loaded
}

const catalogue = catalogueOf(demoModels)

const standardDigest = digestOf(takenOverStandard)
const catalogueDigests = new Map<string, string>()

/** The digest of the models that a record names; there are few ways to furnish these homes. */
function catalogueDigest(record: VisitRecord): string {
  const key = [...new Set(Object.values(record.units).map(({ facts }) => facts.model))].sort().join(' ')
  const digest = catalogueDigests.get(key) ?? digestOf(modelsUsed(record, catalogue))
  catalogueDigests.set(key, digest)
  return digest
}

/** The logbook of a generated visit, chained and sealed with the company's key, the record that it amounts to, and what the rules said when it was sealed. */
export function sealedLogbook(
  { keys }: Pick<Services, 'keys'>,
  visit: GeneratedVisit
): { entries: Entry[]; record: VisitRecord; findings: Finding[] } {
  const entries: Entry[] = []
  let record = emptyRecord
  const add = (line: Pick<Entry, 'kind' | 'body' | 'by' | 'at'>) => {
    const { id, name, role } = line.by
    const placed = {
      id: uuidv7({ msecs: Date.parse(line.at) }),
      visit: visit.id,
      at: line.at,
      from: serverDevice,
      base: entries.length,
      kind: line.kind,
      body: line.body,
      by: { id, name, role },
      seq: entries.length + 1,
      received: line.at
    } as Placed
    entries.push(chained(entries.at(-1)?.hash ?? chainStart, placed))
    record = apply(record, placed)
  }
  for (const line of visit.lines) add(line)
  const findings = evaluate({ record, history: historyOf(entries) }, catalogue, takenOverStandard)
  const parts = {
    chain: entries.at(-1)!.hash,
    record: digestOf(record),
    standard: standardDigest,
    catalogue: catalogueDigest(record),
    verdicts: digestOf(findings),
    key: keys.keyName
  }
  add({
    kind: 'sealed',
    body: { ...parts, signature: signText(keys, sealText(visit.id, parts)) },
    by: visit.technician,
    at: visit.sealedAt
  })
  return { entries, record, findings }
}

async function storeVisits(services: Services, visits: readonly GeneratedVisit[]): Promise<void> {
  const states = visits.map((visit) => ({ visit, ...sealedLogbook(services, visit) }))
  const connection = await services.db.getConnection()
  try {
    await connection.query('SET SESSION unique_checks = 0, foreign_key_checks = 0')
    await connection.query('START TRANSACTION')
    await connection.query(
      'INSERT INTO visits (id, home_id, technician_id, technician_name, planned_at, opened_at, sealed_at, last_seq, last_hash, summary) VALUES ?',
      [
        states.map(({ visit, entries, record, findings }) => {
          const shown = shownOf(record)
          return [
            visit.id,
            visit.home,
            visit.technician.id,
            visit.technician.name,
            shown.plannedAt,
            new Date(visit.openedAt),
            shown.sealedAt,
            entries.length,
            entries.at(-1)!.hash,
            JSON.stringify(summarise(record, findings))
          ]
        })
      ]
    )
    await connection.query('INSERT INTO entries (visit_id, seq, id, doc) VALUES ?', [
      states.flatMap(({ entries }) => insertEntries(entries).params[0] as unknown[])
    ])
    const statements: Statement[] = []
    const keep = (statement: Statement) => statements.push(statement)
    const { eraseAfterDays } = takenOverStandard.policy
    for (const { visit, record, findings } of states) {
      await project(connection, visit.id, visit.home, null, { record, eraseAfterDays }, keep)
      projectFindings(visit.id, visit.home, { record, findings }, [], keep)
    }
    // Nothing of these visits is there yet, so there is nothing to delete; homes that come are counted as they are.
    for (const { sql, params } of together(statements.filter(({ sql }) => !/^(DELETE|UPDATE)/.test(sql))))
      await connection.query(sql, params)
    await connection.query('INSERT INTO sealed_verdicts (visit_id, digest, kept_by, kept_at, packed) VALUES ?', [
      states.map(({ visit, findings }) => {
        const { digest, packed } = packedVerdicts(findings)
        return [visit.id, digest, 'seal', new Date(visit.sealedAt), packed]
      })
    ])
    await connection.query('COMMIT')
  } catch (error) {
    await connection.query('ROLLBACK')
    throw error
  } finally {
    await connection.query('SET SESSION unique_checks = 1, foreign_key_checks = 1')
    connection.release()
  }
}

/** Inserts of one kind as one statement of many rows, in the order they came. */
function together(statements: readonly Statement[]): Statement[] {
  const rows = new Map<string, unknown[]>()
  for (const { sql, params } of statements) {
    const many = sql.replace(/VALUES \((?:\?, )*\?\)/, 'VALUES ?')
    const list = rows.get(many) ?? []
    list.push(...(many === sql ? (params[0] as unknown[]) : [params]))
    rows.set(many, list)
  }
  return [...rows].map(([sql, list]) => ({ sql, params: [list] }))
}
