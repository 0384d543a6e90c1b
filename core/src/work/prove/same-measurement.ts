import type { Catalogue } from '../../catalogue/model'
import type { Facts } from '../../record/facts'
import type { Folded } from '../../history/fold'
import { standing, thingsOf, type Measurement } from '../../record/record'
import { staleMeasurement } from './stale'

/** Runs so soon after each other at one spot are runs of one measurement. */
const TOGETHER_MS = 30 * 60_000
export const MOST_RUNS = 20

/** Where runs were taken, and how they came. */
export type Spot = Pick<Facts<'measurement'>, 'at' | 'room' | 'unit' | 'band' | 'how'>

/**
 * The measurement that further runs of a spot belong to; undefined where they are a new one: another spot or way, too long
 * ago, or what was measured through was moved, reset, updated or set otherwise since. Runs from before and after a change
 * are never drawn together.
 */
export function measurementOf(
  folded: Folded,
  catalogue: Catalogue,
  spot: Spot,
  runs: number,
  nowMs: number
): Measurement | undefined {
  return standing(thingsOf(folded.record, 'measurement')).findLast((measurement) => {
    const { facts, meta } = measurement
    const last = meta.runs
    if (
      !last ||
      facts.at !== spot.at ||
      facts.room !== spot.room ||
      facts.unit !== spot.unit ||
      facts.band !== spot.band ||
      facts.how !== spot.how
    )
      return false
    if (nowMs - Date.parse(last.at) >= TOGETHER_MS || (facts.runs?.length ?? 0) + runs > MOST_RUNS) return false
    return staleMeasurement(folded, measurement, catalogue) === null
  })
}
