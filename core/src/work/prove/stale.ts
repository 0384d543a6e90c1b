import type { Catalogue } from '../../catalogue/model'
import type { Folded } from '../../history/fold'
import { restsOnFields } from '../../history/stands'
import { proofOf, whyStale } from '../../history/proof'
import type { Measurement, Unit } from '../../record/record'
import { segmentOf } from './path'
import { restsOfMeasurement, restsOfSource } from './rests'
import { restsOfPath } from './rests-of-answers'

/** Where a measurement was taken, and through what. */
const spot = {
  at: 'where it was taken',
  room: 'the room it was taken in',
  unit: 'the unit it went through',
  band: 'the band it went over'
}

/** Why a measurement no longer tells how it is; null where it still does. Signal and runs are proofs of their own: both have to stand. */
export function staleMeasurement(
  folded: Folded,
  { id, facts, meta, addedSeq }: Measurement,
  catalogue: Catalogue
): string | null {
  const rests = (proof: number) => [
    // Written up for another place afterwards, it is no measurement of that place.
    ...restsOnFields('measurement', id, spot, false),
    ...(facts.at === 'source'
      ? restsOfSource(folded, proof, catalogue)
      : restsOfMeasurement(folded, proof, { unit: facts.unit, overTheAir: facts.at !== 'port' }, catalogue))
  ]
  for (const seq of [meta.runs?.seq ?? addedSeq, meta.dbm?.seq]) {
    const proof = seq === undefined ? null : proofOf(folded.history, [{ seq }], () => rests(seq))
    const why = proof && whyStale(proof)
    if (why) return why
  }
  return null
}

/** Why somebody who was seen on a unit’s air no longer tells how it is; null where it still does, or nobody was. */
export function stalePath(folded: Folded, unit: Unit): string | null {
  const { path } = unit
  if (!path) return null
  const proof = proofOf(folded.history, [path], () =>
    restsOfPath(folded, unit, path.network, segmentOf(folded.record, path.address))
  )
  return proof && whyStale(proof)
}
