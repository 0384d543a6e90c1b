import type { Role } from '../catalogue/model'
import type { Unit } from './record'

/** What a unit can be beside its role, where its model can be both: a router that is the controller as well, a powerline adapter that sends Wi-Fi. */
export const alsoRoles: Readonly<Partial<Record<Role, readonly Role[]>>> = {
  router: ['controller'],
  gateway: ['controller'],
  switch: ['controller'],
  controller: ['access-point', 'switch'],
  'powerline-adapter': ['access-point', 'extender']
}

/** Whether one of the roles that a unit has here is among these. */
export const hasRole = ({ facts: { role, alsoRole } }: Pick<Unit, 'facts'>, ...roles: readonly Role[]): boolean =>
  (role !== undefined && roles.includes(role)) || (alsoRole !== undefined && roles.includes(alsoRole))
