import { versionKey } from '@pasado/core/values/version'
import { rows, type Connection } from './pool'
import { STANDS_NOW } from './stands'

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

const STANDING =
  'FROM units u JOIN visits v FORCE INDEX (PRIMARY) ON v.id = u.visit_id JOIN homes h FORCE INDEX (PRIMARY) ON h.id = u.home_id'

/** Units of a model that run a version now (null: one that nobody recorded), a page after the one that ended with this unit; in the order of the index. */
export function unitsRunning(
  db: Connection,
  model: string,
  version: string | null,
  after: { visit: string; unit: string } | null
): Promise<AffectedUnit[]> {
  return rows(
    db,
    `
      SELECT
      STRAIGHT_JOIN u.home_id AS home, u.visit_id AS visit, u.unit_id AS unit, u.name, u.serial, h.customer,
        h.street, h.town, h.phone ${STANDING}
      WHERE u.model = ?
        AND u.firmware_key <=> ? ${after ? 'AND (u.visit_id > ? OR (u.visit_id = ? AND u.unit_id > ?))' : ''}
        AND ${STANDS_NOW}
      ORDER BY u.visit_id, u.unit_id
      LIMIT ${PAGE}
    `,
    [model, version === null ? null : versionKey(version), ...(after ? [after.visit, after.visit, after.unit] : [])]
  )
}
