import type { Placed } from '../record/entry'
import { unread } from '../record/reads'
import type { VisitRecord } from '../record/record'
import { emptyRecord, reduce } from '../record/reduce'
import { emptyHistory, entriesOf, hasSeen, historyOf, remember, type History } from './history'

/** A logbook folded: the record that it amounts to, and its history. */
export interface Folded {
  record: VisitRecord
  history: History
}

/** A logbook before its first entry. */
export const nothingFolded: Folded = { record: emptyRecord, history: emptyHistory }

/** What a logbook amounts to after more entries. */
export function fold(entries: readonly Placed[], from: Folded = nothingFolded): Folded {
  const [next] = entries
  // Whoever wrote the next line had all of it before them: what they saw need not be folded again.
  if (next && from.record.lastSeq > 0 && next.base >= from.record.lastSeq) {
    records.set(next, from.record)
    foldeds.set(next, from)
  }
  return { record: reduce(entries, from.record), history: remember(from.history, entries) }
}

/** What some lines of a logbook would amount to without the others; each keeps its place in its outbox. */
export function foldOnly(entries: readonly Placed[], isKept: (seq: number) => boolean): Folded {
  // Lines of their own: what is kept of a line's past, is kept of its past in the whole logbook.
  const kept = entries.flatMap((entry) => (isKept(entry.seq) ? [{ ...entry }] : []))
  return { record: reduce(kept), history: remember(emptyHistory, kept, placesOf(entries)) }
}

const known = new WeakMap<readonly Placed[], ReadonlyMap<number, number>>()

/** The places of lines in their outboxes, by number: of one logbook they are counted once. */
function placesOf(entries: readonly Placed[]): ReadonlyMap<number, number> {
  const counted = known.get(entries)
  if (counted) return counted
  const [places, lengths] = [new Map<number, number>(), new Map<string, number>()]
  for (const { seq, from } of entries) {
    const place = lengths.get(from) ?? 0
    places.set(seq, place)
    lengths.set(from, place + 1)
  }
  known.set(entries, places)
  return places
}

/** The lines that the author of a line had before them. */
const pastOf = (history: History, by: number): Placed[] =>
  listed(history).filter(({ seq }) => seq !== by && hasSeen(history, by, seq))

const lists = new WeakMap<History['lines'], Placed[]>()

/** Every line of a logbook, in its order, listed once. */
function listed(history: History): readonly Placed[] {
  let list = lists.get(history.lines)
  if (!list) lists.set(history.lines, (list = entriesOf(history)))
  return list
}

/** The record as the author of a line had it before them. */
export const recordSeen = (history: History, by: number): VisitRecord =>
  ofLine(records, history, by, emptyRecord, () => reduceSeen(history, by))

/** The logbook as the author of a line had it before them, folded. */
export const foldedSeen = (history: History, by: number): Folded =>
  ofLine(foldeds, history, by, nothingFolded, () => ({
    record: recordSeen(history, by),
    history: historyOf(pastOf(history, by))
  }))

/** What the author of a line had before them amounts to: mostly all that came before, of which every so many lines it is known. */
function reduceSeen(history: History, by: number): VisitRecord {
  const all = listed(history)
  const { entry, place, own } = history.lines.get(by)!
  const until = all.lastIndexOf(entry)
  let at = until
  while (at > 0 && all[at - 1]!.seq > entry.base && hasSeen(history, by, all[at - 1]!.seq)) at--
  const hasSeenAll = (at === 0 || all[at - 1]!.seq <= entry.base) && entry.base < by && own <= place
  return hasSeenAll ? reduceUntil(all, until) : reduce(pastOf(history, by))
}

/** What the first lines of a logbook amount to. */
function reduceUntil(all: readonly Placed[], until: number): VisitRecord {
  let from = until - (until % STRETCH)
  while (from > 0 && !recordsUpTo.has(all[from - 1]!)) from -= STRETCH
  let record = from > 0 ? recordsUpTo.get(all[from - 1]!)! : emptyRecord
  for (; from + STRETCH <= until; from += STRETCH) {
    record = reduce(all.slice(from, from + STRETCH), record)
    recordsUpTo.set(all[from + STRETCH - 1]!, record)
  }
  return reduce(all.slice(from, until), record)
}

/** What the lines up to one amount to, of every so many lines. */
const recordsUpTo = new WeakMap<Placed, VisitRecord>()
const STRETCH = 32

const records = new WeakMap<Placed, VisitRecord>()
const foldeds = new WeakMap<Placed, Folded>()

/** What stands in a line’s past never changes: it is folded once. */
function ofLine<T>(known: WeakMap<Placed, T>, history: History, by: number, nothing: T, make: () => T): T {
  const entry = history.lines.get(by)?.entry
  if (!entry) return nothing
  let made = known.get(entry)
  if (made === undefined) known.set(entry, (made = unread(make)))
  return made
}
