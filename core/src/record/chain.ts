import { canonicalJson, sha256Hex } from '../values/canonical'
import type { Entry, Placed } from './entry'

/** What the first entry of a visit is chained to. */
export const chainStart = '0'.repeat(64)

/** The link of an entry: SHA-256 over the hash before it and the entry's canonical JSON without its own hash. */
export function linkOf(before: string, placed: Placed): string {
  return sha256Hex(`${before}\n${canonicalJson(placed)}`)
}

/** The entry with its link. */
export function chained(before: string, placed: Placed): Entry {
  return { ...placed, hash: linkOf(before, placed) }
}

/** The first thing wrong with a chain, in words; null where it is whole: seq without a gap from 1, one visit, each link right. */
export function chainProblem(entries: readonly Entry[]): string | null {
  let before = chainStart
  for (const [index, entry] of entries.entries()) {
    if (entry.seq !== index + 1)
      return `line ${index + 1} of the logbook says it is line ${entry.seq}: lines are missing or out of order`
    if (entry.visit !== entries[0]!.visit) return `line ${entry.seq} belongs to another visit`
    const { hash, ...placed } = entry
    if (linkOf(before, placed) !== hash) return `line ${entry.seq} (${entry.kind}) was altered, or a line before it was`
    before = hash
  }
  return null
}
