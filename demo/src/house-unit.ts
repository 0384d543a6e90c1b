import type { HouseDefinition } from '@pasado/core/house/definition'
import { labelValues } from './labels/values'
import { demoModels } from './models/all'

export type Unit = HouseDefinition['units'][number]

/** A unit of a demo house with the values of its label, and the first firmware of its model where no other is given. */
export function houseUnit(
  id: string,
  name: string,
  model: string,
  role: Unit['role'],
  number: number,
  more: Partial<Unit> = {}
): Unit {
  const known = demoModels.find((demoModel) => demoModel.id === model)!
  const { serial, mac, user, password } = labelValues(known, number)
  return {
    id,
    name,
    model,
    modelVersion: 1,
    role,
    serial,
    mac,
    ...(user && password ? { login: { user, password } } : {}),
    ...(known.firmware.releases[0] ? { firmware: known.firmware.releases[0].version } : {}),
    ...more
  }
}

/** The newest version of a model that was not withdrawn. */
export const newestVersion = (model: string): string | undefined =>
  demoModels
    .find((demoModel) => demoModel.id === model)!
    .firmware.releases.filter(({ withdrawn }) => !withdrawn)
    .at(-1)?.version
