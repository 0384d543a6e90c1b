import type { Model } from '../catalogue/model'
import { firmwarePath } from './path'

/** What has to be installed on a unit, and how long that takes. */
export interface UpdateWork {
  path: string[]
  reachesMinimum: boolean
  /** Minutes for all installs together; null where the catalogue does not tell. */
  usualMin: number | null
  mostMin: number | null
}

/** The firmware work of a unit of a model that runs a version now. */
export function updateWork({ firmware }: Model, current: string): UpdateWork {
  const releases = firmware.releases.map(({ version, needs, withdrawn }) => ({ version, withdrawn, ...(needs === undefined ? {} : { needs }) }))
  const { path, reachesMinimum } = firmwarePath({ current, releases, minimum: firmware.minimum })
  const times = firmware.installMin
  return { path, reachesMinimum, usualMin: times ? times.usual * path.length : null, mostMin: times ? times.most * path.length : null }
}
