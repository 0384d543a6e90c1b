import { hasRole } from './roles'
import { standing, thingsOf, unitName, type Stays, type Unit, type VisitRecord } from './record'

/** What units hang on, are paired with and get addresses from: a unit of ours, or something that stays. */
export interface Equipment {
  id: string
  name: string
  /** Whether it is in the visit; false where it was taken out. */
  isHere: boolean
  unit: Unit | null
  stays: Stays | null
  /** The one of both that it is. */
  thing: Unit | Stays
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

const ofUnit = (unit: Unit): Equipment => ({
  id: unit.id,
  name: unitName(unit),
  isHere: unit.removedSeq === null,
  unit,
  stays: null,
  thing: unit
})

const ofStays = (stays: Stays): Equipment => ({
  id: stays.id,
  name: staysName(stays),
  isHere: stays.removedSeq === null,
  unit: null,
  stays,
  thing: stays
})

/**
 * What an id that may name a unit or something that stays stands for; null where the visit has neither. A used unit that was turned into
 * something that stays keeps its id, and so does one that was turned back: the one that is here counts.
 */
export function equipmentOf(record: VisitRecord, id: string | undefined): Equipment | null {
  const unit = record.units[id ?? '']
  const stays = thingsOf(record, 'stays')[id ?? '']
  if (stays && (stays.removedSeq === null || !unit || unit.removedSeq !== null)) return ofStays(stays)
  return unit ? ofUnit(unit) : null
}

/** Kinds of what stays that send a network. */
export const staysThatSend: ReadonlySet<string | undefined> = new Set(['router', 'access-point', 'mesh-node'])

/** What stays at the home, in the order it was added. */
export const stayingOf = (record: VisitRecord): Stays[] => standing(thingsOf(record, 'stays'))

/** Everything of both kinds that is in the visit: units first, each in the order it was added. */
export const equipmentHere = (record: VisitRecord): Equipment[] => [
  ...standing(record.units).map(ofUnit),
  ...stayingOf(record).map(ofStays)
]

/** What brings the line into the home: a modem or gateway of ours, or a modem that stays. */
export const isModem = ({ unit, stays }: Equipment): boolean =>
  (unit !== null && unit !== undefined && hasRole(unit, 'modem', 'gateway')) || stays?.facts.kind === 'modem'
