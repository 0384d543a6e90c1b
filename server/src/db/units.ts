import type { Elsewhere } from '@pasado/core/record/answers'
import { rows, type Connection } from './pool'
import { STANDS_NOW } from './stands'

/** A unit as it is looked for at other homes. */
export interface SoughtUnit {
  model: string | undefined
  serial: string | undefined
  mac: string | undefined
}

/** Where a unit stands now at another home, and is not said to have moved away since. */
const STANDS_THERE = `FROM units u
  JOIN visits v ON v.id = u.visit_id
  WHERE u.home_id <> ? AND ${STANDS_NOW}
    AND NOT EXISTS (SELECT 1 FROM units m JOIN visits mv ON mv.id = m.visit_id WHERE m.moved_from = u.home_id AND m.home_id <> ? AND mv.opened_at > v.opened_at AND`

/** Since when: the first visit of that home which recorded it. */
const since = (same: string) =>
  `(SELECT MIN(fv.opened_at) FROM units f JOIN visits fv ON fv.id = f.visit_id WHERE f.home_id = u.home_id AND ${same})`

/** Other homes where a unit with this serial (of its model) or MAC address stands; the longest there first. */
export async function unitElsewhere(db: Connection, home: string, unit: SoughtUnit): Promise<Elsewhere[]> {
  type Found = { by: 'serial' | 'mac'; home: string; visit: string; since: Date; sealed: number }
  const found: Found[] = []
  const columns = (by: string, same: string) =>
    `
      SELECT '${by}' AS 'by', u.home_id AS home, u.visit_id AS visit, ${since(same)} AS since,
        v.sealed_at IS NOT NULL AS sealed
    `
  if (unit.mac !== undefined) {
    found.push(
      ...(await rows<Found>(
        db,
        `${columns('mac', 'f.mac = u.mac')} ${STANDS_THERE} m.mac = u.mac) AND u.mac = ? LIMIT 5`,
        [home, home, unit.mac]
      ))
    )
  }
  if (unit.serial !== undefined && unit.model !== undefined) {
    found.push(
      ...(await rows<Found>(
        db,
        `${columns('serial', 'f.serial = u.serial AND f.model = u.model')} ${STANDS_THERE} m.serial = u.serial AND m.model = u.model) AND u.serial = ? AND u.model = ? LIMIT 5`,
        [home, home, unit.serial, unit.model]
      ))
    )
  }
  const homes = new Set<string>()
  return found
    .sort((a, b) => a.since.getTime() - b.since.getTime() || (a.by < b.by ? -1 : 1))
    .filter((candidate) => !homes.has(candidate.home) && homes.add(candidate.home))
    .map((unit) => ({ ...unit, since: unit.since.toISOString(), sealed: Boolean(unit.sealed) }))
}

/** An open visit that has a unit of a model. */
export interface OpenVisitWithModel {
  visit: string
  customer: string
  street: string
  technician: string
}

/** Visits that are not sealed and have a unit of a model. */
export function openVisitsWithModel(db: Connection, model: string): Promise<OpenVisitWithModel[]> {
  return rows<OpenVisitWithModel>(
    db,
    `
      SELECT DISTINCT v.id AS visit, h.customer, h.street, v.technician_name AS technician
      FROM units u
      JOIN visits v ON v.id = u.visit_id
      JOIN homes h ON h.id = v.home_id
      WHERE u.model = ?
        AND v.sealed_at IS NULL
        AND v.cancelled_at IS NULL
      ORDER BY h.street, v.id
      LIMIT 200
    `,
    [model]
  )
}
