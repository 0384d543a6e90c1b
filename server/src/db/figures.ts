import { row, rows, run, transactionOn, type Connection, type Db } from './pool'
import { homesToCount } from './standing'

/** How a rule came out in the visits that were sealed in a month: visits in which it applied, and those in which it broke, was waived or stayed unproven somewhere. */
export interface RuleMonth {
  rule: string
  month: string
  visits: number
  breaks: number
  waived: number
  unproven: number
}

/** The same of one rule, by the model of the unit it spoke of. */
export interface RuleModel {
  model: string
  units: number
  breaks: number
  waived: number
  unproven: number
}

const monthOf = (day: Date): string => day.toISOString().slice(0, 7)
const AT_ONCE = 50

/** Every rule, month by month, of visits sealed since the month of a day. */
export function figuresByMonth(db: Connection, since: Date): Promise<RuleMonth[]> {
  return rows<RuleMonth>(
    db,
    `
      SELECT rule, month, visits, breaks, waived, unproven
      FROM rule_months
      WHERE month >= ?
      ORDER BY rule, month
    `,
    [monthOf(since)]
  )
}

/** One rule by model, of visits sealed since the month of a day; rules that speak of no unit have none. */
export function figuresByModel(db: Connection, rule: string, since: Date): Promise<RuleModel[]> {
  const summed = ['units', 'breaks', 'waived', 'unproven'].map((name) => `CAST(SUM(${name}) AS SIGNED) AS ${name}`)
  return rows<RuleModel>(
    db,
    `
      SELECT model, ${summed.join(', ')}
      FROM rule_models
      WHERE rule = ?
        AND month >= ?
      GROUP BY model
      ORDER BY model
    `,
    [rule, monthOf(since)]
  )
}

/** Visits that are sealed, listed, and in no figure yet. */
const TO_COUNT = 'counted = FALSE AND sealed_at IS NOT NULL AND to_judge = FALSE'

/** How many sealed visits are in no figure yet. */
export const countToCount = async (db: Connection): Promise<number> =>
  Number((await row<{ many: number }>(db, `SELECT COUNT(*) AS many FROM visits WHERE ${TO_COUNT}`))!.many)

/**
 * Adds visits that were sealed to the figures, fifty at a time, each once whoever does it.
 * @returns whether there may be more
 */
export function countSealed(db: Db): Promise<boolean> {
  const lock = {
    sql: `SELECT id, home_id AS home FROM visits FORCE INDEX (to_count) WHERE ${TO_COUNT} ORDER BY sealed_at LIMIT ${AT_ONCE} FOR UPDATE SKIP LOCKED`,
    params: []
  }
  return transactionOn<{ id: string; home: string }, boolean>(db, lock, async (_, visits, last) => {
    if (visits.length === 0) return false
    const params = visits.map(({ id }) => id)
    const these = params.map(() => '?').join(', ')
    last({ sql: byMonth(these), params })
    last({ sql: byModel(these), params })
    // A visit that is sealed may tell otherwise what stands at its home.
    last(homesToCount(visits.map(({ home }) => home)))
    last({ sql: `UPDATE visits SET counted = TRUE WHERE id IN (${these})`, params, touches: visits.length })
    return visits.length === AT_ONCE
  })
}

/** What is counted is added to what was. */
const addedTo = (table: string, names: readonly string[]): string =>
  names.map((name) => `${table}.${name} = ${table}.${name} + VALUES(${name})`).join(', ')

const byMonth = (visits: string): string => `
  INSERT INTO rule_months (rule, month, visits, breaks, waived, unproven)
  SELECT each_visit.rule, each_visit.month, COUNT(*), SUM(b), SUM(w), SUM(u)
  FROM (
    SELECT STRAIGHT_JOIN f.rule, DATE_FORMAT(v.sealed_at, '%Y-%m') AS month, MAX(f.outcome = 'breaks') AS b,
      MAX(f.outcome = 'waived') AS w, MAX(f.outcome = 'unproven') AS u
    FROM visits v FORCE INDEX (PRIMARY)
    JOIN findings f FORCE INDEX (PRIMARY) ON f.visit_id = v.id
    WHERE v.id IN (${visits})
      AND f.outcome <> 'not-here'
    GROUP BY v.id, f.rule
  ) each_visit
  GROUP BY each_visit.rule, each_visit.month
  ON DUPLICATE KEY UPDATE ${addedTo('rule_months', ['visits', 'breaks', 'waived', 'unproven'])}
`

const byModel = (visits: string): string => `
  INSERT INTO rule_models (rule, month, model, units, breaks, waived, unproven)
  SELECT STRAIGHT_JOIN f.rule, DATE_FORMAT(v.sealed_at, '%Y-%m'), u.model, COUNT(*), SUM(f.outcome = 'breaks'),
    SUM(f.outcome = 'waived'), SUM(f.outcome = 'unproven')
  FROM visits v FORCE INDEX (PRIMARY)
  JOIN findings f FORCE INDEX (PRIMARY) ON f.visit_id = v.id
  JOIN units u FORCE INDEX (PRIMARY) ON u.visit_id = f.visit_id
    AND u.unit_id = f.subject
  WHERE v.id IN (${visits})
    AND f.outcome <> 'not-here'
    AND u.model IS NOT NULL
  GROUP BY f.rule, DATE_FORMAT(v.sealed_at, '%Y-%m'), u.model
  ON DUPLICATE KEY UPDATE ${addedTo('rule_models', ['units', 'breaks', 'waived', 'unproven'])}
`

/** Forgets all figures: every sealed visit is counted anew. */
export async function forgetFigures(connection: Connection): Promise<void> {
  await run(connection, 'DELETE FROM rule_months')
  await run(connection, 'DELETE FROM rule_models')
  await run(connection, 'UPDATE visits SET counted = FALSE WHERE counted = TRUE')
}
