import type { VisitRecord } from '@pasado/core/record/record'
import type { Finding } from '@pasado/core/standard/evaluate'
import { putHome } from '../db/homes'
import { insertMany, row, run, type Connection, type Param } from '../db/pool'
import { termsOf } from './terms'

/** A record with its findings: what projections are made from. */
export interface Judged {
  record: VisitRecord
  findings: readonly Finding[]
}

/**
 * Writes what changed from one state of a visit to the next into the tables that things are found by.
 * Called in the transaction that writes the entries. `before` is null where all is to be written.
 */
export async function project(db: Connection, visit: string, home: string, before: Judged | null, after: Judged): Promise<void> {
  const { record } = after
  if (before?.record.brief !== record.brief) await projectHome(db, visit, home, record)
  if (before?.record.units !== record.units) await projectUnits(db, visit, home, before?.record ?? null, record)
  if (before?.record.networks !== record.networks) await projectNetworks(db, visit, before?.record ?? null, record)
  if (before?.record.brief !== record.brief || before?.record.units !== record.units) await projectTerms(db, visit, home, before?.record ?? null, record)
  await projectFindings(db, visit, before?.findings ?? [], after.findings)
}

/** Takes everything projected from a visit away, to write it anew. */
export async function clearProjections(db: Connection, visit: string): Promise<void> {
  for (const table of ['units', 'networks', 'findings', 'home_terms']) await run(db, `DELETE FROM ${table} WHERE visit_id = ?`, [visit])
}

async function projectHome(db: Connection, visit: string, home: string, record: VisitRecord): Promise<void> {
  const latest = await row<{ id: string }>(db, 'SELECT id FROM visits WHERE home_id = ? ORDER BY opened_at DESC, id DESC LIMIT 1', [home])
  if (latest && latest.id !== visit) return
  const { customerName = '', street = '', town = '' } = record.brief.facts
  await putHome(db, { id: home, customerId: record.visit.customer, customer: customerName, street, town, latestVisit: visit })
}

async function projectUnits(db: Connection, visit: string, home: string, before: VisitRecord | null, after: VisitRecord): Promise<void> {
  for (const unit of Object.values(after.units)) {
    const was = before?.units[unit.id]
    if (was && was.facts === unit.facts && was.removedSeq === unit.removedSeq) continue
    if (unit.removedSeq !== null) {
      await run(db, 'DELETE FROM units WHERE visit_id = ? AND unit_id = ?', [visit, unit.id])
      continue
    }
    const { name, model, role, serial, mac, firmwareAfter, firmwareBefore } = unit.facts
    await run(db, `INSERT INTO units (visit_id, unit_id, home_id, name, model, role, serial, mac, firmware) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE name = VALUES(name), model = VALUES(model), role = VALUES(role), serial = VALUES(serial), mac = VALUES(mac), firmware = VALUES(firmware)`,
    [visit, unit.id, home, name ?? null, model ?? null, role ?? null, serial ?? null, mac ?? null, firmwareAfter ?? firmwareBefore ?? null])
  }
}

async function projectNetworks(db: Connection, visit: string, before: VisitRecord | null, after: VisitRecord): Promise<void> {
  for (const network of Object.values(after.networks)) {
    if (before?.networks[network.id] === network) continue
    if (network.removedSeq !== null) {
      await run(db, 'DELETE FROM networks WHERE visit_id = ? AND network_id = ?', [visit, network.id])
      continue
    }
    const ssid = network.facts.ssid === undefined ? null : Buffer.from(network.facts.ssid, 'utf8')
    await run(db, 'INSERT INTO networks (visit_id, network_id, ssid, use_for) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE ssid = VALUES(ssid), use_for = VALUES(use_for)',
      [visit, network.id, ssid, network.facts.use ?? null])
  }
}

async function projectTerms(db: Connection, visit: string, home: string, before: VisitRecord | null, after: VisitRecord): Promise<void> {
  const terms = termsOf(after)
  const key = (list: typeof terms) => list.map(({ term, what }) => `${what} ${term}`).sort().join('\n')
  if (before && key(termsOf(before)) === key(terms)) return
  await run(db, 'DELETE FROM home_terms WHERE visit_id = ?', [visit])
  await insertMany(db, 'INSERT INTO home_terms (term, home_id, visit_id, what)', terms.map(({ term, what }) => [term, home, visit, what]))
}

async function projectFindings(db: Connection, visit: string, before: readonly Finding[], after: readonly Finding[]): Promise<void> {
  const keyOf = (finding: Finding) => `${finding.rule}\n${finding.subject?.id ?? ''}`
  const was = new Map(before.map((finding) => [keyOf(finding), finding]))
  const changed: Param[][] = []
  for (const finding of after) {
    const old = was.get(keyOf(finding))
    was.delete(keyOf(finding))
    if (old?.outcome === finding.outcome && old.level === finding.level) continue
    changed.push([visit, finding.rule, finding.subject?.id ?? '', finding.outcome, finding.level])
  }
  for (const gone of was.values()) {
    await run(db, 'DELETE FROM findings WHERE visit_id = ? AND rule = ? AND subject = ?', [visit, gone.rule, gone.subject?.id ?? ''])
  }
  if (changed.length) {
    await db.query('INSERT INTO findings (visit_id, rule, subject, outcome, level) VALUES ? ON DUPLICATE KEY UPDATE outcome = VALUES(outcome), level = VALUES(level)', [changed])
  }
}
