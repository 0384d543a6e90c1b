import { headsOf, type History } from './history'
import { changesSince, type Change, type Rests } from './stands'

/** What is left of several lines that say how one thing was found. */
export interface Proof<T> {
  /** The line that counts: one that stands, else the one that came last. */
  line: T
  /** Lines that did not know of each other, none of which a later one had seen: one, but where two looked at once. */
  heads: T[]
  /** What changed since of what it rests on, or unknown to its author; empty where it stands. */
  changes: Change[]
}

/**
 * Of several lines that say how one thing was found, what counts: whoever had seen an earlier one and looked again is right. Of two who
 * did not know of each other one that still stands is enough.
 * @param rests what a line rests on
 * @returns null where nobody looked
 */
export function proofOf<T extends { seq: number }>(
  history: History,
  lines: readonly T[],
  rests: (line: T) => readonly Rests[]
): Proof<T> | null {
  const heads = headsOf(history, lines)
  const tried = heads.map((line) => ({ line, changes: changesSince(history, line.seq, rests(line)) }))
  const counts = tried.find(({ changes }) => changes.length === 0) ?? tried.at(-1)
  return counts ? { ...counts, heads } : null
}

/** What changed since a proof, in one sentence; null where it stands. A change that came after it tells more than one of which that is not known. */
export function whyStale({ changes }: Pick<Proof<unknown>, 'changes'>): string | null {
  return (changes.find(({ after }) => after) ?? changes[0])?.message ?? null
}
