import { isCarriedOver } from './carry-over'
import type { Placed } from './entry'
import type { EntryKind } from './entries/all'
import type { VisitRecord } from './record'
import { reduce } from './reduce'

/** When a visit's record is looked at: as it was planned, as the home was found, as it was left. */
export const moments = ['planned', 'found', 'left'] as const
export type Moment = (typeof moments)[number]

export const momentWords: Readonly<Record<Moment, string>> = {
  planned: 'as planned',
  found: 'as found',
  left: 'as left'
}

/** Kinds that only somebody at the home, or with its boxes open, can write: they look at what is there. */
const looking = new Set<EntryKind>([
  'items.checked',
  'lamp.seen',
  'unit.read',
  'measurement.set',
  'path.seen',
  'fault.search',
  'neighbours.noted'
])
/** Kinds with which the home is changed. */
const doing = new Set<EntryKind>(['wait.started', 'unit.event', 'method.step', 'button.pressed', 'pairing.pressed'])
/** What of a unit is read off its label, and what is set on it. */
const [lookedAt, done] = [['serial', 'mac', 'defaultSsid', 'firmwareBefore'], ['firmwareAfter']]

function setsOneOf(entry: Placed, fields: readonly string[]): boolean {
  return (
    entry.kind === 'unit.set' &&
    fields.some((field) => (entry.body.set as Record<string, unknown>)[field] !== undefined)
  )
}

/**
 * The line of a logbook up to which a moment goes. As planned: before anything of the home was looked at. As found: before anything
 * was done to it. As left: all of it. What was taken over from the visit before is plan, not looking.
 */
export function lineOf(entries: readonly Placed[], moment: Moment): number {
  const last = entries.at(-1)?.seq ?? 0
  if (moment === 'left') return last
  const opened = entries[0]
  const own = entries.filter((entry) => entry.kind !== 'visit.opened' && !isCarriedOver(entry, opened))
  const begins = own.find(
    (entry) =>
      doing.has(entry.kind) ||
      setsOneOf(entry, done) ||
      (moment === 'planned' && (looking.has(entry.kind) || setsOneOf(entry, lookedAt)))
  )
  return begins ? begins.seq - 1 : last
}

/** A visit's logbook up to a moment. */
export function entriesUpTo(entries: readonly Placed[], moment: Moment): Placed[] {
  const line = lineOf(entries, moment)
  return entries.filter(({ seq }) => seq <= line)
}

/** A visit's record at a moment. */
export const recordAt = (entries: readonly Placed[], moment: Moment): VisitRecord =>
  reduce(entriesUpTo(entries, moment))
