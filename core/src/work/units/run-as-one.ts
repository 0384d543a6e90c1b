import { hasRole } from '../../record/roles'
import type { Model } from '../../catalogue/model'
import type { Unit } from '../../record/record'
import { isMeshMember, type KnownUnit } from './known-unit'

const isRoot = ({ unit }: KnownUnit) => hasRole(unit, 'router', 'gateway')
const isController = ({ unit }: KnownUnit) => hasRole(unit, 'controller')

/** Whether a unit is set up by a controller that runs it. */
export function isAdopted({ unit, model }: Pick<KnownUnit, 'unit' | 'model'>): boolean {
  const { method } = unit.facts
  const chosen = model?.methods.find(({ id }) => id === method)
  return chosen?.kind === 'adoption'
}

/**
 * The units that are run as one with a unit, by one login and one app: the members of its mesh, or all that one controller runs. Whoever
 * leads comes first: the router of a mesh, the controller.
 * @returns the unit alone where it is run by itself
 */
export function runAsOne(units: readonly KnownUnit[], known: KnownUnit): KnownUnit[] {
  const led = (group: readonly KnownUnit[], leads: (other: KnownUnit) => boolean) => [
    ...group.filter(leads),
    ...group.filter((other) => !leads(other))
  ]
  const family = known.model?.family
  if (family && isMeshMember(known))
    return led(
      units.filter((other) => isMeshMember(other) && other.model!.family === family),
      isRoot
    )
  if (isController(known) || isAdopted(known)) {
    const run = units.filter((other) => isController(other) || isAdopted(other))
    if (run.filter(isController).length === 1) return led(run, isController)
  }
  return [known]
}

/** What was answered of a unit, and on which: on itself, else once for all that are run as one with it. */
export interface Answered<T> {
  value: T
  on: KnownUnit
}

/** What is recorded of a unit by some reading of it: its own, else that of whichever is run as one with it, whoever leads first. */
export function answeredOf<T>(
  units: readonly KnownUnit[],
  known: KnownUnit,
  of: (known: KnownUnit) => T | undefined
): Answered<T> | null {
  const own = of(known)
  if (own !== undefined) return { value: own, on: known }
  for (const on of runAsOne(units, known)) {
    const value = of(on)
    if (value !== undefined) return { value, on }
  }
  return null
}

/** A fact of a unit, its own or answered once for all that are run as one with it; with whose answer it is, to be read after it. */
export function factOf<F extends keyof Unit['facts']>(
  units: readonly KnownUnit[],
  known: KnownUnit,
  field: F
): { value: Unit['facts'][F]; with: string } {
  const answered = answeredOf(units, known, ({ unit }) => unit.facts[field])
  return { value: answered?.value, with: answeredWith(known, answered) }
}

/** Whose answer it is, to be read after what it says; empty where it is the unit's own. */
export const answeredWith = (known: KnownUnit, answered: Answered<unknown> | null): string =>
  answered === null || answered.on === known ? '' : `, as for ${answered.on.name}: they are run as one`

/** Whether something on a unit begins pairing: it can be set up so, or a press of one of its buttons does. */
export function canPair(model: Model): boolean {
  const pairing = new Set(model.states.filter(({ is }) => is === 'pairing').map(({ state }) => state))
  return (
    model.methods.some(({ kind }) => kind === 'push-button') ||
    model.buttons.some(({ presses }) =>
      presses.some(({ pairs, confirms }) => pairs === true || (confirms !== undefined && pairing.has(confirms)))
    )
  )
}
