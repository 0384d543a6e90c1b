import { row, rows, run, transactionOn, type Connection, type Db, type Statement } from './pool'
import { STANDS_NOW } from './stands'

/** How many units of a model run a version at a home now; the key is empty where nobody recorded which. */
interface HomeModel {
  home: string
  model: string
  key: string
  firmware: string | null
  units: number
}

const AT_ONCE = 50

/** How many homes are to be counted again. */
export const countHomesToCount = async (db: Connection): Promise<number> =>
  Number((await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM homes WHERE to_count = TRUE'))!.many)

/** Has homes counted again, after what stands there may have changed. By their ids: an update by a query of others goes through every home. */
export const homesToCount = (homes: readonly string[]): Statement => ({
  sql: `UPDATE homes SET to_count = TRUE WHERE id IN (${homes.map(() => '?').join(', ')})`,
  params: [...homes]
})

/**
 * Counts what stands at homes where that may have changed, fifty at a time, each once whoever does it: what a home had is taken out of the sums, and what it
 * has is put in.
 * @returns whether there may be more
 */
export function countStanding(db: Db): Promise<boolean> {
  const lock = {
    sql: `SELECT id FROM homes FORCE INDEX (to_count) WHERE to_count = TRUE LIMIT ${AT_ONCE} FOR UPDATE SKIP LOCKED`,
    params: []
  }
  return transactionOn<{ id: string }, boolean>(db, lock, async (connection, homes, last) => {
    if (homes.length === 0) return false
    const ids = homes.map(({ id }) => id)
    for (const statement of await countedAnew(connection, ids)) last(statement)
    return homes.length === AT_ONCE
  })
}

/** What stands at homes counted anew, as statements on what is kept of it. */
export async function countedAnew(connection: Connection, homes: readonly string[]): Promise<Statement[]> {
  const these = homes.map(() => '?').join(', ')
  const before = await rows<HomeModel>(connection, countedAt(these), [...homes])
  const now = await rows<HomeModel>(connection, standingAt(these), [...homes])
  const [gone, come] = [otherThan(before, now), otherThan(now, before)]
  const sums = sumsOf(gone, come)
  return [
    ...gone.map(({ home, model, key }) => ({
      sql: 'DELETE FROM home_models WHERE home_id = ? AND model = ? AND firmware_key = ?',
      params: [home, model, key]
    })),
    ...(come.length ? [insertCounted(come)] : []),
    ...(sums.length ? [addToSums(sums)] : []),
    { sql: `UPDATE homes SET to_count = FALSE WHERE id IN (${these})`, params: [...homes] }
  ]
}

/** What was counted of homes. */
const countedAt = (homes: string): string => `
  SELECT home_id AS home, model, firmware_key AS \`key\`, firmware, units
  FROM home_models
  WHERE home_id IN (${homes})
`

/** What stands at homes now, from their visits. */
const standingAt = (homes: string): string => `
  SELECT STRAIGHT_JOIN v.home_id AS home, u.model, COALESCE(u.firmware_key, '') AS \`key\`, MIN(u.firmware) AS firmware,
    COUNT(*) AS units
  FROM visits v FORCE INDEX (by_home)
  JOIN units u FORCE INDEX (PRIMARY) ON u.visit_id = v.id
  WHERE v.home_id IN (${homes})
    AND u.model IS NOT NULL
    AND ${STANDS_NOW}
  GROUP BY v.home_id, u.model, COALESCE(u.firmware_key, '')
`

const lineOf = ({ home, model, key, firmware, units }: HomeModel) => JSON.stringify([home, model, key, firmware, units])

/** Those of one list that do not stand in the other the same. */
function otherThan(list: readonly HomeModel[], others: readonly HomeModel[]): HomeModel[] {
  const known = new Set(others.map(lineOf))
  return list.filter((line) => !known.has(lineOf(line)))
}

const insertCounted = (come: readonly HomeModel[]): Statement => ({
  sql: 'INSERT INTO home_models (home_id, model, firmware_key, firmware, units) VALUES ?',
  params: [come.map(({ home, model, key, firmware, units }) => [home, model, key, firmware, units])]
})

/** What is to be added to the sums of each version, in their order, so that two who add wait for each other and for nothing else. */
function sumsOf(gone: readonly HomeModel[], come: readonly HomeModel[]): (string | number)[][] {
  const sums = new Map<string, { model: string; key: string; units: number; homes: number }>()
  const add = ({ model, key, units }: HomeModel, sign: 1 | -1) => {
    const at = JSON.stringify([model, key])
    const sum = sums.get(at) ?? { model, key, units: 0, homes: 0 }
    sums.set(at, { model, key, units: sum.units + sign * units, homes: sum.homes + sign })
  }
  for (const line of gone) add(line, -1)
  for (const line of come) add(line, 1)
  return [...sums]
    .filter(([, { units, homes }]) => units !== 0 || homes !== 0)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, { model, key, units, homes }]) => [model, key, units, homes])
}

const addToSums = (sums: (string | number)[][]): Statement => ({
  sql: `
    INSERT INTO model_versions (model, firmware_key, units, homes)
    VALUES ?
    ON DUPLICATE KEY UPDATE units = units + VALUES(units), homes = homes + VALUES(homes)
  `,
  params: [sums]
})

/** Forgets what was counted: every home is counted anew. */
export async function forgetStanding(connection: Connection): Promise<void> {
  await run(connection, 'DELETE FROM home_models')
  await run(connection, 'DELETE FROM model_versions')
  await run(connection, 'UPDATE homes SET to_count = TRUE WHERE to_count = FALSE')
}

/** How many units of a model run each version now; null for those of which nobody recorded it. Versions that are one are listed as one, in the spelling of one of them. */
export function versionsInUse(
  db: Connection,
  model: string
): Promise<{ firmware: string | null; units: number; homes: number }[]> {
  return rows(
    db,
    `
      SELECT
        (
          SELECT h.firmware
          FROM home_models h FORCE INDEX (by_version)
          WHERE h.model = s.model
            AND h.firmware_key = s.firmware_key
          LIMIT 1
        ) AS firmware, s.units, s.homes
      FROM model_versions s
      WHERE s.model = ?
        AND s.units > 0
      ORDER BY s.firmware_key
      LIMIT 500
    `,
    [model]
  )
}
