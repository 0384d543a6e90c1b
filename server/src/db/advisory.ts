import { rows, type Connection } from './pool'

/** A unit that stands at a home now and runs some firmware, with whom to call. */
export interface AffectedUnit {
  home: string
  visit: string
  unit: string
  name: string | null
  serial: string | null
  customer: string
  street: string
  town: string
  phone: string | null
}

/** From the units of a model by its index, then each home by its key: never the other way round, which would go through every home. */
const PAGE = 100

/** How many units of a model run each version now: by the latest visit of each home. */
export function versionsInUse(db: Connection, model: string): Promise<{ firmware: string | null; units: number; homes: number }[]> {
  return rows(db, `SELECT STRAIGHT_JOIN u.firmware, COUNT(*) AS units, COUNT(DISTINCT u.home_id) AS homes FROM units u JOIN homes h FORCE INDEX (PRIMARY) ON h.id = u.home_id AND h.latest_visit = u.visit_id
    WHERE u.model = ? GROUP BY u.firmware ORDER BY u.firmware LIMIT 500`, [model])
}

/** Units of a model that run a version now, a page after the one that ended with this unit; in the order of the index. */
export function unitsRunning(db: Connection, model: string, firmware: string, after: { visit: string; unit: string } | null): Promise<AffectedUnit[]> {
  return rows(db, `SELECT STRAIGHT_JOIN u.home_id AS home, u.visit_id AS visit, u.unit_id AS unit, u.name, u.serial, h.customer, h.street, h.town, h.phone
    FROM units u JOIN homes h FORCE INDEX (PRIMARY) ON h.id = u.home_id AND h.latest_visit = u.visit_id
    WHERE u.model = ? AND u.firmware = ? ${after ? 'AND (u.visit_id > ? OR (u.visit_id = ? AND u.unit_id > ?))' : ''} ORDER BY u.visit_id, u.unit_id LIMIT ${PAGE}`,
    after ? [model, firmware, after.visit, after.visit, after.unit] : [model, firmware])
}
