import { checkCabling } from '../../work/cabling/check'
import { cablesOf, type CableProblem } from '../../work/cabling/known-cable'
import { beyond } from '../../work/cabling/far-end'

import { aboutUnit, breaks, unproven, type Home, type Place, type Verdict } from '../rule'

/** A place at a cable of the port map. */
export const atCable = (id: string, field = 'a'): Place => ({ stage: 'connect', kind: 'cable', id, field })
/** What is wrong with the cables of a home, of these kinds. */
export const problemsOf = (home: Home, ...codes: CableProblem['code'][]) =>
  checkCabling(home.record, home.catalogue).filter(({ code }) => codes.includes(code))
/** What is wrong with a cable, as a rule says it. */
export const asVerdict = ({ cable, message, remedy, outcome, unit }: CableProblem, home: Home): Verdict => {
  const known = home.units.find((candidate) => candidate.unit.id === unit)
  return (outcome === 'breaks' ? breaks : unproven)(message, remedy, atCable(cable), known ? aboutUnit(known) : null)
}

/** The cables at a unit, or at what stays, each with the port of it that it leads to. */
export function cablesAt(home: Home, id: string) {
  return cablesOf(home.record, home.catalogue).flatMap(({ cable, a, b }) => {
    if (a?.end.id === id) return [{ cable, port: a, other: b }]
    return b?.end.id === id ? [{ cable, port: b, other: a }] : []
  })
}

/** Whether a cable leads a unit’s power to it: from a powered port or an injector, over a socket in the wall or not. */
export function isFedByCable(home: Home, id: string): boolean {
  const drawn = cablesOf(home.record, home.catalogue)
  return cablesAt(home, id).some(
    ({ port, other }) =>
      port.powerInClass !== null && other !== null && (beyond(home.record, other, drawn)?.powerOutW ?? 0) > 0
  )
}
