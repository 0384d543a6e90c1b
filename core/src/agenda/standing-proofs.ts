import type { Rests } from '../history/stands'
import { fieldKey } from '../record/keys'
import { standing, thingsOf, type Measurement } from '../record/record'
import type { Finding } from '../rules/finding'
import type { Place } from '../rules/rule'
import { restsOfMeasurement, restsOfSource } from '../work/prove/rests'
import { staleMeasurement } from '../work/prove/stale'
import type { Span } from '../work/run/span'
import type { AgendaOf, Work } from './work'

/** Something that is proven as things are, what it rests on, and what it takes to prove it again. */
export interface StandingProof {
  id: string
  name: string
  rests: readonly Rests[]
  handsOn: Span
  place: Place | null
}

const SOURCE: Span = { least: 2, usual: 3, most: 6 }
const ROOM: Span = { least: 1, usual: 2, most: 4 }

/** The measurements by which the source and the rooms are proven now: one of each, the newest. */
export function standingProofs({ folded, catalogue, findings }: AgendaOf): StandingProof[] {
  const { record } = folded
  const proven = new Map(
    findings
      .filter(({ rule, outcome }) => outcome === 'holds' && (rule === 'prove-rooms' || rule === 'prove-source'))
      .map((finding): [string, Finding] => [finding.rule === 'prove-source' ? 'source' : finding.subject!.id, finding])
  )
  const found = new Map<string, StandingProof>()
  for (const measurement of standing(thingsOf(record, 'measurement'))) {
    const at = spotOf(measurement)
    const finding = at === undefined ? undefined : proven.get(at)
    if (!finding || staleMeasurement(folded, measurement, catalogue) !== null) continue
    const seq = measurement.meta.runs?.seq ?? measurement.addedSeq
    const isSource = at === 'source'
    found.set(at!, {
      id: at!,
      name: isSource ? 'Measure at the source' : `Measure ${finding.subject?.name ?? 'the room'}`,
      rests: isSource
        ? restsOfSource(folded, seq, catalogue)
        : restsOfMeasurement(folded, seq, { unit: measurement.facts.unit, overTheAir: true }, catalogue),
      handsOn: isSource ? SOURCE : ROOM,
      place: finding.place
    })
  }
  return [...found.values()]
}

const spotOf = ({ facts: { at, room } }: Measurement): string | undefined => {
  if (at === 'source') return 'source'
  return at === 'room' ? room : undefined
}

/** The proofs that rest on what a work changes: the version that a unit runs, or the place that it stands at. */
export function spoiledBy({ id, unit, stage, running }: Work, proofs: readonly StandingProof[]): StandingProof[] {
  if (unit === null) return []
  if (id === `update:${unit}`) return proofs.filter(({ rests }) => rests.some((on) => isOfVersion(on, unit)))
  if (stage === 'place' && !running) return proofs.filter(({ rests }) => rests.some((on) => isOfPlace(on, unit)))
  return []
}

const isOfVersion = (on: Rests, unit: string): boolean =>
  'unit' in on
    ? on.unit === unit && on.without.includes('updated')
    : 'key' in on && on.key === fieldKey('unit', unit, 'firmwareAfter')

const isOfPlace = (on: Rests, unit: string): boolean => 'unit' in on && on.unit === unit && on.without.includes('moved')
