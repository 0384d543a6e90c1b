import { standing, thingsOf, unitName, type Stays, type Unit, type VisitRecord } from './record'

/** What units hang on, are paired with and get addresses from: a unit of ours, or something that stays. */
export interface Equipment {
  id: string
  name: string
  /** Whether it is in the visit; false where it was taken out. */
  isHere: boolean
  unit: Unit | null
  stays: Stays | null
}

const kindWords = {
  router: 'the router that stays',
  modem: 'the modem that stays',
  'access-point': 'the access point that stays',
  'mesh-node': 'the mesh node that stays',
  switch: 'the switch that stays',
  printer: 'the printer',
  other: 'what stays'
} as const

/** The name people know what stays by. */
export const staysName = ({ facts }: Stays): string => facts.name ?? facts.makeModel ?? kindWords[facts.kind ?? 'other']

/**
 * What an id that may name a unit or something that stays stands for; null where the visit has neither. A used unit that was turned into
 * something that stays keeps its id, and so does one that was turned back: the one that is here counts.
 */
export function equipmentOf(record: VisitRecord, id: string | undefined): Equipment | null {
  const unit = record.units[id ?? '']
  const stays = thingsOf(record, 'stays')[id ?? '']
  if (stays && (stays.removedSeq === null || !unit || unit.removedSeq !== null))
    return { id: stays.id, name: staysName(stays), isHere: stays.removedSeq === null, unit: null, stays }
  return unit ? { id: unit.id, name: unitName(unit), isHere: unit.removedSeq === null, unit, stays: null } : null
}

/** What stays at the home, in the order it was added. */
export const stayingOf = (record: VisitRecord): Stays[] => standing(thingsOf(record, 'stays'))

/** Everything of both kinds that is in the visit: units first, each in the order it was added. */
export const equipmentHere = (record: VisitRecord): Equipment[] => [
  ...standing(record.units).map((unit) => ({ id: unit.id, name: unitName(unit), isHere: true, unit, stays: null })),
  ...stayingOf(record).map((stays) => ({ id: stays.id, name: staysName(stays), isHere: true, unit: null, stays }))
]
