import type { Secret, VisitRecord } from '../record/record'

/** What is to be erased of a sealed visit's secrets next: when, which, and which stay. */
export interface ErasureStep { at: string; refs: string[]; kept: string[] }

const DAY_MS = 24 * 3_600_000

/** Secrets of a record that are not erased yet. */
export function secretsLeft(record: VisitRecord): Secret[] {
  return record.secretsErased ? [] : Object.values(record.secrets).filter(({ erasedAt }) => erasedAt === undefined)
}

/**
 * The next erasure of a sealed visit, as who keeps what was answered: all at once where only the customer keeps them, all after the
 * standard's days, or those that the company does not keep after these days and the rest when their day has passed.
 * @param eraseAfterDays of the standard that the visit was sealed by
 * @returns null where nothing is left, the visit is not sealed, or what is left is kept without an end
 */
export function nextErasure(record: VisitRecord, eraseAfterDays: number): ErasureStep | null {
  const left = secretsLeft(record)
  if (!record.seal || left.length === 0) return null
  const refs = (list: readonly Secret[]) => list.map(({ ref }) => ref).sort()
  const sealed = Date.parse(record.seal.at)
  const { custody = 'erase-after-30-days', keeps = [], until } = record.custody ?? {}
  if (custody === 'customer-only-now') return { at: new Date(sealed).toISOString(), refs: refs(left), kept: [] }
  const usual = new Date(sealed + eraseAfterDays * DAY_MS).toISOString()
  if (custody === 'erase-after-30-days') return { at: usual, refs: refs(left), kept: [] }
  // An answer from before it was asked which: all of them.
  const kept = keeps.length === 0 ? left : left.filter(({ purpose }) => keeps.includes(purpose))
  const others = left.filter((secret) => !kept.includes(secret))
  if (others.length) return { at: usual, refs: refs(others), kept: refs(kept) }
  // The whole of its last day is still theirs.
  return until === undefined ? null : { at: new Date(Date.parse(until) + DAY_MS).toISOString(), refs: refs(kept), kept: [] }
}
