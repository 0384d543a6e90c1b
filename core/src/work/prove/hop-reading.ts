import type { Catalogue } from '../../catalogue/model'
import type { Folded } from '../../history/fold'
import { proofOf, whyStale } from '../../history/proof'
import type { Unit } from '../../record/record'
import { restsOfMeasurement } from './rests'

/** What is read of a unit's way up: the signal of its hop, dBm, or the rate that a powerline adapter tells, Mbit/s. */
export type HopReading = 'hopDbm' | 'mainsMbps'

/** A reading of a unit's way up, as long as nothing on that way was changed since; null where none stands. */
export function hopReading(folded: Folded, unit: Unit, field: HopReading, catalogue: Catalogue): number | null {
  const value = unit.facts[field]
  const line = unit.meta[field]
  if (value === undefined || line === undefined) return null
  const proof = proofOf(folded.history, [line], () =>
    restsOfMeasurement(folded, line.seq, { unit: unit.id, overTheAir: false }, catalogue)
  )
  return proof && whyStale(proof) ? null : value
}
