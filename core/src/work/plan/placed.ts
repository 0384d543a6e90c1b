import { modelOf, type Catalogue } from '../../catalogue/model'
import type { Sender } from '../../radio/coverage'
import { staysName, staysThatSend, stayingOf } from '../../record/equipment'
import { hasRole } from '../../record/roles'
import { standing, unitName, type Stays, type Unit, type VisitRecord } from '../../record/record'
import type { Band } from '../../values/band'
import { plannedBands, type HomePlan } from './home-plan'

/** How high a unit stands that nobody measured, metres. */
const STANDS_AT_M = 1

/** Something that stands in the plan: a unit of ours, or what stays. */
export interface Placed {
  id: string
  name: string
  thing: Unit | Stays
  storey: string
  x: number
  y: number
  /** Above the ground floor's floor, metres. */
  z: number
}

/** A unit that stands in the plan. */
export interface PlacedUnit extends Placed {
  unit: Unit
}

/** What stays and stands in the plan. */
export interface PlacedStays extends Placed {
  stays: Stays
}

/** Where something stands in the plan; null where that is not known. */
function placeIn(
  plan: HomePlan,
  { storey, x, y, heightM }: { storey?: string; x?: number; y?: number; heightM?: number }
): Pick<Placed, 'storey' | 'x' | 'y' | 'z'> | null {
  const on = plan.storeys.find(({ id }) => id === storey)
  return on && x !== undefined && y !== undefined
    ? { storey: on.id, x, y, z: on.floorM + (heightM ?? STANDS_AT_M) }
    : null
}

/** Whether something in the plan is a unit of ours. */
export const isOurs = (at: Placed): at is PlacedUnit => 'unit' in at

/** The units whose places in the plan are known. */
export function placedUnits(record: VisitRecord, plan: HomePlan): PlacedUnit[] {
  return standing(record.units).flatMap((unit) => {
    const at = placeIn(plan, unit.facts)
    return at ? [{ id: unit.id, name: unitName(unit), thing: unit, unit, ...at }] : []
  })
}

/** What stays and has its place in the plan. */
export function placedStays(record: VisitRecord, plan: HomePlan): PlacedStays[] {
  return stayingOf(record).flatMap((stays) => {
    const at = placeIn(plan, stays.facts)
    return at ? [{ id: stays.id, name: staysName(stays), thing: stays, stays, ...at }] : []
  })
}

/**
 * What stays and serves the home together with our units: where no router or gateway is ours, the router that stays, else a mesh node of
 * the mesh that is added to.
 * @returns null where one of ours is it, or the plan does not show what stays
 */
export function stayingRoot(record: VisitRecord, plan: HomePlan): PlacedStays | null {
  if (standing(record.units).some((unit) => hasRole(unit, 'router', 'gateway'))) return null
  const sending = placedStays(record, plan).filter(({ stays }) => staysThatSend.has(stays.facts.kind))
  const ofKind = (kind: string) => sending.find(({ stays }) => stays.facts.kind === kind)
  return ofKind('router') ?? ofKind('mesh-node') ?? null
}

/** The sender that something in the plan is on a band; null where its model sends nothing there, or is not known. */
export function senderOf(
  { thing, x, y, z }: Pick<Placed, 'thing' | 'x' | 'y' | 'z'>,
  catalogue: Catalogue,
  band: Band
): Sender | null {
  const model = modelOf(thing, catalogue)
  const powers = model?.radios.filter((radio) => radio.band === band).map(({ powerDbm }) => powerDbm) ?? []
  return powers.length ? { x, y, z, frequencyMHz: plannedBands[band].middleMHz, powerDbm: Math.max(...powers) } : null
}
