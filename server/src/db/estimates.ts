import { rows, run, type Connection } from './pool'

/** What a visit takes by its run plan, as of a line of its logbook. */
export interface KeptEstimate {
  visit: string
  seq: number
  handsOnMin: number
  likelyMin: number
  cautiousMin: number
}

/** The last line of each visit's logbook. */
export async function lastLines(db: Connection, visits: readonly string[]): Promise<Map<string, number>> {
  const marks = visits.map(() => '?').join(', ')
  const found = await rows<{ id: string; seq: number }>(
    db,
    `SELECT id, last_seq AS seq FROM visits WHERE id IN (${marks})`,
    [...visits]
  )
  return new Map(found.map(({ id, seq }) => [id, seq]))
}

/** The estimates that are kept of visits, by visit. */
export async function keptEstimates(db: Connection, visits: readonly string[]): Promise<Map<string, KeptEstimate>> {
  const found = await rows<KeptEstimate>(
    db,
    `
      SELECT visit_id AS visit, seq, hands_on_min AS handsOnMin, likely_min AS likelyMin, cautious_min AS cautiousMin
      FROM estimates
      WHERE visit_id IN (${visits.map(() => '?').join(', ')})
        AND hands_on_min IS NOT NULL
    `,
    [...visits]
  )
  return new Map(found.map((estimate) => [estimate.visit, estimate]))
}

/** Keeps an estimate in place of the one before. */
export async function keepEstimate(
  db: Connection,
  { visit, seq, handsOnMin, likelyMin, cautiousMin }: KeptEstimate
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO estimates (visit_id, seq, hands_on_min, likely_min, cautious_min)
      VALUES (?, ?, ?, ?, ?)
      ON DUPLICATE KEY UPDATE seq = VALUES(seq), hands_on_min = VALUES(hands_on_min), likely_min = VALUES(likely_min),
        cautious_min = VALUES(cautious_min)
    `,
    [visit, seq, handsOnMin, likelyMin, cautiousMin]
  )
}
