import type { Model, ModelState } from '../../catalogue/model'
import type { Unit } from '../../record/record'
import { isAccessPoint } from './known-unit'

/** Whether it depends on a unit's role if a state is a good one. */
export const dependsOnRole = ({ goodAs, is }: ModelState): boolean =>
  goodAs !== undefined || is === 'as-router' || is === 'as-access-point'

/**
 * Whether a state is a good one of a unit in its role: what is well on the unit that leads is not on one that should have joined it, nor
 * what a router shows on one that was made an access point.
 */
export function isGoodFor({ good, goodAs, is }: ModelState, unit: Pick<Unit, 'facts'>): boolean {
  if (!good) return false
  if (is === 'as-router' || is === 'as-access-point') return isAccessPoint({ unit }) === (is === 'as-access-point')
  const { role } = unit.facts
  return goodAs === undefined || role === undefined || goodAs.includes(role)
}

/** The ways a unit can be set up in its role. */
export const methodsFor = (model: Model, { facts: { role } }: Pick<Unit, 'facts'>): Model['methods'] =>
  model.methods.filter((method) => method.as === undefined || role === undefined || method.as.includes(role))
