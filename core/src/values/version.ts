/** One part of a version: the number it begins with, null where it is a word, and what stands behind in runs of digits and of other signs by turns. */
interface Part {
  number: bigint | null
  rest: (bigint | string)[]
}

/**
 * Compares two versions part by part, split at `.`, `-` and `_`. A part that begins with digits goes by that number first; where these
 * are equal, nothing behind is above something (15 above 15b3), and two rests compare by their runs (15b10 above 15b9, 15b below 15b3).
 * A number is above a word and a missing part equals 0; case is ignored and a leading `v` dropped.
 * @returns below 0 where a is older, above 0 where it is newer, 0 where they are equal
 */
export function compareVersions(a: string, b: string): number {
  const left = partsOf(a)
  const right = partsOf(b)
  for (let at = 0; at < Math.max(left.length, right.length); at++) {
    const difference = compareParts(left[at] ?? nothing, right[at] ?? nothing)
    if (difference) return difference
  }
  return 0
}

/**
 * One spelling for all versions that compare equal: `v3.1.0`, `3.1` and `3-1-0` are `3.1`.
 * @returns the parts joined by dots, without leading noughts and without parts of 0 at the end
 */
export function versionKey(version: string): string {
  const parts = partsOf(version).map(({ number, rest }) => `${number ?? ''}${rest.join('')}`)
  while (parts.length > 1 && parts.at(-1) === '0') parts.pop()
  return parts.join('.')
}

/** Whether two versions are one, however they are spelt. */
export const sameVersion = (a: string, b: string): boolean => compareVersions(a, b) === 0

/**
 * Whether only something behind a number, or a word, against nothing tells two versions apart: 3.0.4a and 3.0.4, 3.0.4-rc1 and 3.0.4.
 * One maker means the finished version and its forerunner by it, another the version and what mends it.
 */
export function isOrderUnknown(a: string, b: string): boolean {
  const left = partsOf(a)
  const right = partsOf(b)
  for (let at = 0; at < Math.max(left.length, right.length); at++) {
    const [first, other] = [left[at] ?? nothing, right[at] ?? nothing]
    if (compareParts(first, other) === 0) continue
    if (first.number === null || other.number === null)
      return (
        (first.number ?? 0n) === 0n && (other.number ?? 0n) === 0n && !(first.number === null && other.number === null)
      )
    return first.number === other.number && (first.rest.length === 0) !== (other.rest.length === 0)
  }
  return false
}

/** What is wrong with a version as typed, in words; null where nothing is. */
export function versionProblem(text: string): string | null {
  const parts = text.replace(/^v/i, '').split(/[.\-_]/)
  if (parts.some((part) => part === '')) return 'has an empty part; write it as it stands on the unit, such as 3.0.4'
  return null
}

const nothing: Part = { number: 0n, rest: [] }

function partsOf(version: string): Part[] {
  return version
    .toLowerCase()
    .replace(/^v/, '')
    .split(/[.\-_]/)
    .map((part) => {
      const runs = (part.match(/\d+|\D+/g) ?? []).map((run) => (/^\d/.test(run) ? BigInt(run) : run))
      const [first] = runs
      return typeof first === 'bigint' ? { number: first, rest: runs.slice(1) } : { number: null, rest: runs }
    })
}

function compareParts(a: Part, b: Part): number {
  if (a.number === null || b.number === null) {
    if (a.number !== null) return 1
    return b.number !== null ? -1 : compareRuns(a.rest, b.rest)
  }
  if (a.number !== b.number) return a.number < b.number ? -1 : 1
  // Nothing behind a number is the finished version; something is on its way to it.
  if (a.rest.length === 0 || b.rest.length === 0) return Math.sign(b.rest.length - a.rest.length)
  return compareRuns(a.rest, b.rest)
}

/** Runs begin with signs and go on by turns, so that at one place both are digits or neither is. */
function compareRuns(a: readonly (bigint | string)[], b: readonly (bigint | string)[]): number {
  for (const [at, run] of a.entries()) {
    const other = b[at]
    if (other === undefined) return 1
    const difference =
      typeof run === 'string' && typeof other === 'string'
        ? compareSigns(run, other)
        : Number(run > other) - Number(run < other)
    if (difference) return difference
  }
  return a.length - b.length
}

/** By code point, which is not the order of JavaScript's own comparison beyond the first 65536. */
function compareSigns(a: string, b: string): number {
  const [left, right] = [Array.from(a), Array.from(b)]
  for (const [at, sign] of left.entries()) {
    const difference = sign.codePointAt(0)! - (right[at]?.codePointAt(0) ?? -1)
    if (difference) return difference
  }
  return left.length - right.length
}
