import type { Model } from './model'
import { inKnownOrder, knownOrder } from './firmware-order'
import { firmwarePath } from './firmware-path'

/** What has to be installed on a unit, and how long that takes. */
export interface UpdateWork {
  path: string[]
  reachesMinimum: boolean
  /** Minutes for all installs together; null where the catalogue does not tell. */
  usualMin: number | null
  mostMin: number | null
}

/**
 * The firmware work of a unit of a model that runs a version now. Only what is known to be newer is installed, step by
 * step: where the numbers alone do not tell, the dates of release do, and without them nothing is proposed.
 */
export function updateWork({ firmware }: Model, current: string): UpdateWork {
  const times = firmware.installMin
  const isMinimum = (version: string) =>
    ['same', 'newer'].includes(knownOrder(version, firmware.minimum, firmware.releases))
  let releases = firmware.releases.filter(
    ({ version }) => knownOrder(version, current, firmware.releases) !== 'unknown'
  )
  for (;;) {
    const { path } = firmwarePath(
      {
        current,
        releases: releases.map(({ version, needs, withdrawn }) => ({
          version,
          withdrawn,
          ...(needs === undefined ? {} : { needs })
        })),
        minimum: firmware.minimum
      },
      inKnownOrder(firmware.releases)
    )
    const doubtful = path.find(
      (version, at) => knownOrder(version, path[at - 1] ?? current, firmware.releases) !== 'newer'
    )
    if (doubtful === undefined)
      return {
        path,
        reachesMinimum: isMinimum(path.at(-1) ?? current),
        usualMin: times ? times.usual * path.length : null,
        mostMin: times ? times.most * path.length : null
      }
    releases = releases.filter(({ version }) => version !== doubtful)
  }
}
