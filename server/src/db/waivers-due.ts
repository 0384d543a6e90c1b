import { rows, type Connection } from './pool'

/** A waiver of a sealed visit whose day has passed: what was let pass is still to be put right. */
export interface ListedWaiver {
  visit: string
  home: string
  street: string
  customer: string
  rule: string
  subject: string
  /** What was let pass, in a few words. */
  about: string
  until: string
  by: string
}

const MOST_LISTED = 50

/**
 * Waivers whose day is before another one, the longest passed first. A later sealed visit of the home has judged anew: those of
 * visits before it are not listed.
 * @param today an ISO date
 */
export function waiversDue(db: Connection, today: string): Promise<ListedWaiver[]> {
  return rows<ListedWaiver>(
    db,
    `
      SELECT w.visit_id AS visit, w.home_id AS home, h.street, h.customer, w.rule, w.subject, w.about,
        DATE_FORMAT(w.until_on, '%Y-%m-%d') AS until, w.by_name AS \`by\`
      FROM waivers_due w
      JOIN visits v ON v.id = w.visit_id
      JOIN homes h ON h.id = w.home_id
      WHERE w.until_on < ?
        AND NOT EXISTS (
          SELECT 1 FROM visits later WHERE later.home_id = w.home_id AND later.sealed_at > v.sealed_at
        )
      ORDER BY w.until_on, w.visit_id, w.rule, w.subject
      LIMIT ${MOST_LISTED}
    `,
    [today]
  )
}
