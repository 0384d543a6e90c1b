import type { Model } from './model'
import { compareVersions, isOrderUnknown, sameVersion } from '../values/version'

type Release = Pick<Model['firmware']['releases'][number], 'version' | 'date'>

/** How two versions stand to each other; `unknown` where the number alone does not tell which is newer. */
export type KnownOrder = 'older' | 'same' | 'newer' | 'unknown'

/**
 * How a version stands to another, by what is known: by their numbers; where those alone do not tell, by the dates of
 * release where the catalogue has both and they differ.
 */
export function knownOrder(version: string, than: string, releases: readonly Release[]): KnownOrder {
  const difference = compareVersions(version, than)
  if (difference === 0) return 'same'
  if (!isOrderUnknown(version, than)) return difference < 0 ? 'older' : 'newer'
  const [own, other] = [version, than].map(
    (named) => releases.find((release) => sameVersion(release.version, named))?.date
  )
  if (own === undefined || other === undefined || own === other) return 'unknown'
  return own < other ? 'older' : 'newer'
}

/** What is said where the order of two versions is not known. */
export const orderUnknown = (version: string, than: string): string =>
  `${version} or ${than}: the number alone does not tell which is newer`

/** A release of a model by its number, however it is spelt. */
export function releaseOf<R extends Release>(releases: readonly R[], version: string): R | undefined {
  return releases.find((release) => sameVersion(release.version, version))
}

/** Orders two versions for a list: by what is known, else by their numbers. */
export function inKnownOrder(releases: readonly Release[]): (a: string, b: string) => number {
  return (a, b) => ({ older: -1, same: 0, newer: 1, unknown: compareVersions(a, b) })[knownOrder(a, b, releases)]
}

/** The newest release that is not withdrawn; null where there is none, or where it is not known which of two is newer. */
export function newestRelease<R extends Release & { withdrawn: boolean }>(releases: readonly R[]): R | null {
  const offered = releases.filter(({ withdrawn }) => !withdrawn)
  return (
    offered.find((candidate) =>
      offered.every(
        (other) => other === candidate || knownOrder(candidate.version, other.version, releases) === 'newer'
      )
    ) ?? null
  )
}
