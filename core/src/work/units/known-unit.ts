import { hasRole } from '../../record/roles'
import type { Model } from '../../catalogue/model'
import type { Unit } from '../../record/record'

/** A unit with its model, where the catalogue holds it. */
export interface KnownUnit {
  unit: Unit
  model: Model | null
  name: string
}

/** The roles in which a unit is a member of a mesh, where its model can be one. */
const meshRoles = ['router', 'gateway', 'node'] as const

/** Whether a unit is a member of a mesh. */
export function isMeshMember({ model, unit }: Pick<KnownUnit, 'model' | 'unit'>): boolean {
  return Boolean(model?.mesh) && hasRole(unit, ...meshRoles)
}

/** Whether a unit works as an access point: by its mode, else by its role. */
export const isAccessPoint = ({ unit: { facts } }: { unit: Pick<Unit, 'facts'> }): boolean =>
  facts.mode === 'access-point' || (facts.role === 'access-point' && facts.mode === undefined)

/** Whether a unit runs a firmware that the catalogue speaks of. */
export const withFirmware = ({ model }: Pick<KnownUnit, 'model'>) =>
  model !== null && model.firmware.releases.length > 0
