import { isDeepStrictEqual } from 'node:util'
import { versionKey } from '@pasado/core/values/version'
import type { Unit, VisitRecord } from '@pasado/core/record/record'
import { durationKey } from '@pasado/core/work/run/duration-keys'
import { nextErasure } from '@pasado/core/work/erasure/erasure'
import type { Finding } from '@pasado/core/rules/finding'
import { heaviestFirst } from '@pasado/core/rules/weigh'
import { putHome } from './homes'
import { homesToCount } from './standing'
import { row, rows, run, type Connection, type Param, type Statement } from './pool'
import { termsOf } from './terms'

/** What is written, and after how many days the standard of the visit erases secrets. */
export interface Projected {
  record: VisitRecord
  eraseAfterDays: number
}

/** Takes a statement that is carried out before the transaction ends. */
type Last = (statement: Statement) => void

/**
 * What changed from one state of a visit to the next, as statements on the tables that things are found by.
 * They belong to the transaction that writes the entries. `was` is null where all is to be written.
 */
export async function project(
  db: Connection,
  visit: string,
  home: string,
  was: VisitRecord | null,
  after: Projected,
  last: Last
): Promise<void> {
  const { record } = after
  const differs = (...parts: (keyof VisitRecord)[]) => parts.some((part) => was?.[part] !== record[part])
  if (differs('brief')) await projectHome(db, visit, home, record, last)
  if (differs('units')) projectUnits(visit, home, was, record, last)
  if (differs('networks')) projectNetworks(visit, was, record, last)
  if (differs('checks')) projectChecks(visit, home, was, record, last)
  if (differs('waits')) projectDurations(visit, was, record, last)
  if (differs('brief', 'units')) projectTerms(visit, home, was, record, last)
  const isOver = record.seal ?? record.visit.cancelled ?? was?.visit.cancelled
  if (isOver && differs('visit', 'seal', 'secrets', 'secretsErased')) projectErasure(visit, home, after, last)
}

/** A finding as it is listed: of what a rule says of one thing several times, the heaviest. */
export interface ListedFinding {
  rule: string
  subject: string
  outcome: string
  level: string
}

/** The findings of a visit as they are listed now. */
export const listedFindings = (db: Connection, visit: string): Promise<ListedFinding[]> =>
  rows<ListedFinding>(db, 'SELECT rule, subject, outcome, level FROM findings WHERE visit_id = ?', [visit])

/** What the rules say, as statements on the tables that it is found by. @param listed what is there now */
export function projectFindings(
  visit: string,
  home: string,
  { record, findings }: { record: VisitRecord; findings: readonly Finding[] },
  listed: readonly ListedFinding[],
  last: Last
): void {
  listFindings(visit, listed, findings, last)
  if (record.seal) projectWaivers(visit, home, findings, last)
}

/** Takes everything projected from a visit away, to write it anew. */
export async function clearProjections(db: Connection, visit: string): Promise<void> {
  for (const table of ['units', 'networks', 'findings', 'home_terms', 'durations', 'checks', 'erasures', 'waivers_due'])
    await run(db, `DELETE FROM ${table} WHERE visit_id = ?`, [visit])
}

async function projectHome(
  db: Connection,
  visit: string,
  home: string,
  record: VisitRecord,
  last: Last
): Promise<void> {
  // What came as a file tells how a home of ours is called only where nothing else does.
  const latest = await row<{ id: string }>(
    db,
    `
      SELECT id
      FROM visits
      WHERE home_id = ?
      ORDER BY is_foreign, opened_at DESC, id DESC
      LIMIT 1
    `,
    [home]
  )
  if (latest && latest.id !== visit) return
  const { customerName = '', street = '', town = '', phone = null } = record.brief.facts
  last(
    putHome({
      id: home,
      customerId: record.visit.customer,
      customer: customerName,
      street,
      town,
      phone,
      latestVisit: visit
    })
  )
}

/** What is listed of a unit. */
function listedOf({ facts, transfer }: Unit): Param[] {
  const { name, model, role, serial, mac, firmwareAfter, firmwareBefore } = facts
  const firmware = firmwareAfter ?? firmwareBefore ?? null
  return [
    name ?? null,
    model ?? null,
    role ?? null,
    serial ?? null,
    mac ?? null,
    firmware,
    firmware === null ? null : versionKey(firmware),
    transfer?.from ?? null
  ]
}

function projectUnits(visit: string, home: string, before: VisitRecord | null, after: VisitRecord, last: Last): void {
  let isOther = false
  for (const unit of Object.values(after.units)) {
    const was = before?.units[unit.id]
    if (was && was.facts === unit.facts && was.removedSeq === unit.removedSeq && was.transfer === unit.transfer)
      continue
    if (unit.removedSeq !== null) {
      last({ sql: 'DELETE FROM units WHERE visit_id = ? AND unit_id = ?', params: [visit, unit.id] })
      isOther = true
      continue
    }
    const listed = listedOf(unit)
    if (was && was.removedSeq === null && isDeepStrictEqual(listedOf(was), listed)) continue
    isOther = true
    last({
      sql: `
        INSERT INTO units (visit_id, unit_id, home_id, name, model, role, serial, mac, firmware, firmware_key, moved_from)
        VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
        ON DUPLICATE KEY UPDATE name = VALUES(name), model = VALUES(model), role = VALUES(role),
          serial = VALUES(serial), mac = VALUES(mac), firmware = VALUES(firmware),
          firmware_key = VALUES(firmware_key), moved_from = VALUES(moved_from)
      `,
      params: [visit, unit.id, home, ...listed]
    })
  }
  if (isOther) last(homesToCount([home]))
}

function projectNetworks(visit: string, before: VisitRecord | null, after: VisitRecord, last: Last): void {
  for (const network of Object.values(after.networks)) {
    if (before?.networks[network.id] === network) continue
    if (network.removedSeq !== null) {
      last({ sql: 'DELETE FROM networks WHERE visit_id = ? AND network_id = ?', params: [visit, network.id] })
      continue
    }
    const ssid = network.facts.ssid === undefined ? null : Buffer.from(network.facts.ssid, 'utf8')
    last({
      sql: `
        INSERT INTO networks (visit_id, network_id, ssid, use_for)
        VALUES (?, ?, ?, ?)
        ON DUPLICATE KEY UPDATE ssid = VALUES(ssid), use_for = VALUES(use_for)
      `,
      params: [visit, network.id, ssid, network.facts.use ?? null]
    })
  }
}

/** Looks at the home that are booked, to stand in the day when they are due. */
function projectChecks(visit: string, home: string, before: VisitRecord | null, after: VisitRecord, last: Last): void {
  for (const check of Object.values(after.checks ?? {})) {
    if (before?.checks?.[check.id] === check) continue
    if (check.cancelled)
      last({ sql: 'DELETE FROM checks WHERE check_id = ? AND visit_id = ?', params: [check.id, visit] })
    else
      last({
        sql: `
          INSERT INTO checks (check_id, visit_id, home_id, due_from, due_to)
          VALUES (?, ?, ?, ?, ?)
          ON DUPLICATE KEY UPDATE due_from = IF(visit_id = VALUES(visit_id), VALUES(due_from), due_from),
            due_to = IF(visit_id = VALUES(visit_id), VALUES(due_to), due_to)
        `,
        params: [check.id, visit, home, new Date(check.from), new Date(check.to)]
      })
  }
}

/** When secrets of a sealed or cancelled visit are erased next. */
function projectErasure(visit: string, home: string, { record, eraseAfterDays }: Projected, last: Last): void {
  const next = nextErasure(record, eraseAfterDays)
  if (next)
    last({
      sql: `
        INSERT INTO erasures (visit_id, home_id, due_at)
        VALUES (?, ?, ?)
        ON DUPLICATE KEY UPDATE due_at = VALUES(due_at)
      `,
      params: [visit, home, new Date(next.at)]
    })
  else last({ sql: 'DELETE FROM erasures WHERE visit_id = ?', params: [visit] })
}

/** What was let pass until a day as the visit was sealed. */
function projectWaivers(visit: string, home: string, findings: readonly Finding[], last: Last): void {
  const named = new Set<string>()
  /** Of one thing a rule may have said several, each let pass for itself. */
  const once = (rule: string, subject: string, name: string) => {
    const isFirst = !named.has(`${rule} ${subject}`)
    named.add(`${rule} ${subject}`)
    return isFirst ? subject : `${subject} ${name}`.slice(0, 80)
  }
  const granted = findings.flatMap(({ granted, rule, subject, name }) =>
    granted?.kind === 'waived' && granted.until !== undefined
      ? [
          [
            visit,
            rule,
            once(rule, subject?.id ?? '', subject?.name ?? ''),
            home,
            granted.until,
            (subject ? `${subject.name}: ${name.toLowerCase()}` : name).slice(0, 300),
            granted.by
          ]
        ]
      : []
  )
  if (granted.length)
    last({
      sql: `
        INSERT IGNORE INTO waivers_due (visit_id, rule, subject, home_id, until_on, about, by_name)
        VALUES ?
      `,
      params: [granted]
    })
}

/** Waits that ended, by what was waited for: later visits plan with them. Simulated houses teach nothing. */
function projectDurations(visit: string, before: VisitRecord | null, after: VisitRecord, last: Last): void {
  if (after.house) return
  for (const wait of Object.values(after.waits)) {
    const model = wait.unit === null ? undefined : after.units[wait.unit]?.facts.model
    if (
      wait.endedAt === null ||
      wait.task === undefined ||
      model === undefined ||
      before?.waits[wait.id]?.endedAt === wait.endedAt
    )
      continue
    const minutes = Math.round((Date.parse(wait.endedAt) - Date.parse(wait.at)) / 600) / 100
    // A clock that was set meanwhile tells nothing.
    if (minutes <= 0 || minutes > wait.mostMin * 3) continue
    last({
      sql: `
        INSERT INTO durations (visit_id, wait_id, of_what, minutes, ended_at)
        VALUES (?, ?, ?, ?, ?)
        ON DUPLICATE KEY UPDATE minutes = VALUES(minutes), ended_at = VALUES(ended_at)
      `,
      params: [visit, wait.id, durationKey(model, wait.task), minutes, new Date(wait.endedAt)]
    })
  }
}

function projectTerms(visit: string, home: string, before: VisitRecord | null, after: VisitRecord, last: Last): void {
  const terms = termsOf(after)
  const key = (list: typeof terms) =>
    list
      .map(({ term, what }) => `${what} ${term}`)
      .sort()
      .join('\n')
  if (before && key(termsOf(before)) === key(terms)) return
  last({ sql: 'DELETE FROM home_terms WHERE visit_id = ?', params: [visit] })
  if (terms.length)
    last({
      sql: 'INSERT INTO home_terms (term, home_id, visit_id, what) VALUES ?',
      params: [terms.map(({ term, what }) => [term, home, visit, what])]
    })
}

/** Of what a rule says of one unit several times, one a band, what is heaviest, by its key. */
function heaviestOf(findings: readonly Finding[], keyOf: (finding: Finding) => string): Map<string, Finding> {
  // The heaviest comes last, and stays.
  return new Map(
    heaviestFirst(findings)
      .reverse()
      .map((finding) => [keyOf(finding), finding])
  )
}

function listFindings(visit: string, listed: readonly ListedFinding[], findings: readonly Finding[], last: Last): void {
  const keyOf = ({ rule, subject }: Pick<ListedFinding, 'rule' | 'subject'>) => `${rule}\n${subject}`
  const was = new Map(listed.map((finding) => [keyOf(finding), finding]))
  const changed: Param[][] = []
  for (const [key, { rule, subject, outcome, level }] of heaviestOf(findings, ({ rule, subject }) =>
    keyOf({ rule, subject: subject?.id ?? '' })
  )) {
    const old = was.get(key)
    was.delete(key)
    if (old?.outcome !== outcome || old.level !== level) changed.push([visit, rule, subject?.id ?? '', outcome, level])
  }
  for (const { rule, subject } of was.values())
    last({
      sql: 'DELETE FROM findings WHERE visit_id = ? AND rule = ? AND subject = ?',
      params: [visit, rule, subject]
    })
  if (changed.length)
    last({
      sql: `
        INSERT INTO findings (visit_id, rule, subject, outcome, level)
        VALUES ?
        ON DUPLICATE KEY UPDATE outcome = VALUES(outcome), level = VALUES(level)
      `,
      params: [changed]
    })
}
