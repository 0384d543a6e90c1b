/** A version taken apart: parts of digits only are numbers of any length, any other part is a word. */
type Part = bigint | string

/**
 * Compares two versions part by part, split at `.`, `-` and `_`. Numbers compare exactly, words by code point,
 * a number is above a word and a missing part equals 0; case is ignored and a leading `v` dropped.
 * @returns below 0 where a is older, above 0 where it is newer, 0 where they are equal
 */
export function compareVersions(a: string, b: string): number {
  const left = partsOf(a)
  const right = partsOf(b)
  for (let at = 0; at < Math.max(left.length, right.length); at++) {
    const difference = compareParts(left[at] ?? 0n, right[at] ?? 0n)
    if (difference) return difference
  }
  return 0
}

/** What is wrong with a version as typed, in words; null where nothing is. */
export function versionProblem(text: string): string | null {
  const parts = text.replace(/^v/i, '').split(/[.\-_]/)
  if (parts.some((part) => part === '')) return 'has an empty part; write it as it stands on the unit, such as 3.0.4'
  return null
}

function partsOf(version: string): Part[] {
  return version
    .toLowerCase()
    .replace(/^v/, '')
    .split(/[.\-_]/)
    .map((part) => (/^\d+$/.test(part) ? BigInt(part) : part))
}

function compareParts(a: Part, b: Part): number {
  if (typeof a === 'bigint' && typeof b === 'bigint') return a < b ? -1 : a > b ? 1 : 0
  if (typeof a === 'bigint') return 1
  if (typeof b === 'bigint') return -1
  return a < b ? -1 : a > b ? 1 : 0
}
