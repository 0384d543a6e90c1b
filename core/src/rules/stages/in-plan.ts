import { hasRole } from '../../record/roles'
import { planOf, type HomePlan } from '../../work/plan/home-plan'
import { placedUnits, type PlacedUnit } from '../../work/plan/placed'
import { isMeshMember, type KnownUnit } from '../../work/units/known-unit'
import { laterFigures } from '../../policy/standard'
import type { Home } from '../rule'

/** The plan of a home, with its units as they stand in it. */
export interface InPlan {
  plan: HomePlan
  placed: { known: KnownUnit; at: PlacedUnit }[]
  unplaced: KnownUnit[]
}

/** The units of a home as they stand in its plan, and those that it does not show: of them somebody says what they see. */
export function inPlan(home: Home): InPlan {
  const plan = planOf(home.record)
  if (plan.rooms.length === 0) return { plan, placed: [], unplaced: home.units }
  const places = new Map(placedUnits(home.record, plan).map((placed) => [placed.id, placed]))
  return {
    plan,
    placed: home.units.flatMap((known) => {
      const at = places.get(known.unit.id)
      return at ? [{ known, at }] : []
    }),
    unplaced: home.units.filter(({ unit }) => !places.has(unit.id))
  }
}

const isRoot = ({ unit }: KnownUnit) => hasRole(unit, 'router', 'gateway')

/** Members of a mesh that no plan shows, but for the one that the others hang on: a router among several members. */
export const unplacedMembers = (home: Home, { unplaced }: InPlan): KnownUnit[] =>
  hangingMembers(home).filter((known) => unplaced.includes(known))

/** Members of a mesh that hang on another one: all but the router; where no router of it is recorded, on what is not recorded. */
export const hangingMembers = ({ units }: Home): KnownUnit[] =>
  units.filter(isMeshMember).filter((known) => !isRoot(known))

/** A figure of the standard. */
export const figure = (home: Home, name: keyof typeof laterFigures) => home.policy[name] ?? laterFigures[name]
/** How far two points of a storey are apart, metres. */
export const apart = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y)
