import { rows, type Connection } from './pool'

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

const counted = `COUNT(*) AS visits, CAST(SUM(b) AS SIGNED) AS breaks, CAST(SUM(w) AS SIGNED) AS waived, CAST(SUM(u) AS SIGNED) AS unproven`
const outcomes = "MAX(f.outcome = 'breaks') AS b, MAX(f.outcome = 'waived') AS w, MAX(f.outcome = 'unproven') AS u"

/** Every rule, month by month, of visits sealed since a day. */
export function figuresByMonth(db: Connection, since: Date): Promise<RuleMonth[]> {
  return rows<RuleMonth>(
    db,
    `
      SELECT rule, month, ${counted}
      FROM ( SELECT STRAIGHT_JOIN f.rule, DATE_FORMAT(v.sealed_at, '%Y-%m') AS month, ${outcomes} FROM visits v FORCE INDEX (by_seal) JOIN findings f FORCE INDEX (PRIMARY) ON f.visit_id = v.id WHERE v.sealed_at >= ? AND f.outcome <> 'not-here' GROUP BY v.id, f.rule ) visits
      GROUP BY rule, month
      ORDER BY rule, month
    `,
    [since]
  )
}

/** One rule by model, of visits sealed since a day; rules that speak of no unit have none. */
export function figuresByModel(db: Connection, rule: string, since: Date): Promise<RuleModel[]> {
  return rows<RuleModel>(
    db,
    `
      SELECT
      STRAIGHT_JOIN u.model, COUNT(*) AS units, CAST(SUM(f.outcome = 'breaks') AS SIGNED) AS breaks,
        CAST(SUM(f.outcome = 'waived') AS SIGNED) AS waived,
        CAST(SUM(f.outcome = 'unproven') AS SIGNED) AS unproven
      FROM visits v
      FORCE INDEX (by_seal)
      JOIN findings f
      FORCE INDEX (PRIMARY) ON f.visit_id = v.id
        AND f.rule = ?
      JOIN units u
      FORCE INDEX (PRIMARY) ON u.visit_id = f.visit_id
        AND u.unit_id = f.subject
      WHERE v.sealed_at >= ?
        AND f.outcome <> 'not-here'
        AND u.model IS NOT NULL
      GROUP BY u.model
      ORDER BY u.model
    `,
    [rule, since]
  )
}
