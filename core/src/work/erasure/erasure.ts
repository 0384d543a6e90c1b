import type { Secret, VisitRecord } from '../../record/record'

/** What is to be erased of a sealed visit's secrets next: when, which, and which stay. */
export interface ErasureStep {
  at: string
  refs: string[]
  kept: string[]
}

const DAY_MS = 24 * 3_600_000

/** Secrets of a record that are not erased yet. */
export function secretsLeft(record: VisitRecord): Secret[] {
  return record.secretsErased ? [] : Object.values(record.secrets).filter(({ erasedAt }) => erasedAt === undefined)
}

/** A day ends last in the zone twelve hours behind UTC: before that it is somebody's last day still. */
const LAST_ZONE_MS = 12 * 3_600_000

/**
 * The next erasure of a sealed visit, as who keeps what was answered: all at once where only the customer keeps them, all after the
 * standard's days, or those that the company does not keep after these days and those it keeps when their own day has passed,
 * whichever comes first; of a cancelled visit all, after the standard's days.
 * @param eraseAfterDays of the standard that the visit was sealed by
 * @returns null where nothing is left, the visit is neither sealed nor cancelled, or what is left is kept without an end
 */
export function nextErasure(record: VisitRecord, eraseAfterDays: number): ErasureStep | null {
  const left = secretsLeft(record)
  if (left.length === 0) return null
  // Of a visit that takes place no more nothing is needed after the usual days.
  if (!record.seal && record.visit.cancelled)
    return step(Date.parse(record.visit.cancelled.at) + eraseAfterDays * DAY_MS, left, left)
  if (!record.seal) return null
  const sealed = Date.parse(record.seal.at)
  const { custody = 'erase-after-30-days', keeps = [], until } = record.custody ?? {}
  if (custody === 'customer-only-now') return step(sealed, left, left)
  const usual = sealed + eraseAfterDays * DAY_MS
  if (custody === 'erase-after-30-days') return step(usual, left, left)
  // An answer from before it was asked which: all of them.
  const kept = keeps.length === 0 ? left : left.filter(({ purpose }) => keeps.includes(purpose))
  const others = left.filter((secret) => !kept.includes(secret))
  const keptUntil = kept.length === 0 || until === undefined ? Infinity : Date.parse(until) + DAY_MS + LAST_ZONE_MS
  const othersUntil = others.length === 0 ? Infinity : usual
  const at = Math.min(keptUntil, othersUntil)
  if (at === Infinity) return null
  return step(at, left, [...(othersUntil === at ? others : []), ...(keptUntil === at ? kept : [])])
}

function step(at: number, left: readonly Secret[], gone: readonly Secret[]): ErasureStep {
  const refs = (list: readonly Secret[]) => list.map(({ ref }) => ref).sort()
  return {
    at: new Date(at).toISOString(),
    refs: refs(gone),
    kept: refs(left.filter((secret) => !gone.includes(secret)))
  }
}
