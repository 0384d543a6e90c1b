import { reading, type Reads } from '../record/reads'
import type { History, Line } from './history'

/** A map that notes which of its keys are asked for. */
class MapThrough<K, V> implements ReadonlyMap<K, V> {
  constructor(
    private readonly of: ReadonlyMap<K, V>,
    private readonly note: (reads: Reads, key: K) => void,
    private readonly noteKeys = (reads: Reads): void => {
      reads.isAll = true
    }
  ) {}

  get(key: K): V | undefined {
    const reads = reading()
    if (reads) this.note(reads, key)
    return this.of.get(key)
  }

  has(key: K): boolean {
    const reads = reading()
    if (reads) this.note(reads, key)
    return this.of.has(key)
  }

  get size(): number {
    return this.#all().size
  }

  forEach(tell: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this.#all()) tell(value, key, this)
  }

  entries(): MapIterator<[K, V]> {
    return this.#all().entries()
  }

  keys(): MapIterator<K> {
    const reads = reading()
    if (reads) this.noteKeys(reads)
    return this.of.keys()
  }

  values(): MapIterator<V> {
    return this.#all().values()
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.#all().entries()
  }

  #all(): ReadonlyMap<K, V> {
    const reads = reading()
    if (reads) reads.isAll = true
    return this.of
  }
}

/**
 * A history that notes what of it is looked at. Only of one in which nothing was taken back and nobody said what came first: those are not
 * noted.
 */
export const historyThrough = (history: History): History => ({
  ...history,
  lines: new MapThrough(history.lines, (reads, seq) => {
    if (seq > reads.newestLine) reads.newestLine = seq
  }),
  writes: new MapThrough(
    history.writes,
    (reads, key) => reads.writes.add(key),
    (reads) => {
      reads.isOfKeys = true
    }
  ),
  happenings: new MapThrough(history.happenings, (reads, unit) => reads.happenings.add(unit))
})

/** Whether a history is of a kind that can be looked at through `historyThrough`. */
export const isPlain = ({ undone, words, stood }: History): boolean => undone.size + words.size + stood.size === 0

/** What of a history is not as it was in another. */
export interface HistoryChanges {
  /** Up to which line both are the same. */
  lastCommon: number
  /** The kinds of the lines that only one of them has. */
  kinds: ReadonlySet<string>
  writes: ReadonlySet<string>
  /** Whether one has keys that the other has not. */
  hasOtherKeys: boolean
  happenings: ReadonlySet<string>
}

/** Where two logbooks part, in the order of their lines, and what they tell otherwise. */
export function historyChanges(before: History, after: History): HistoryChanges {
  const [olds, news] = [before, after].map(({ lines }) => [...lines.values()]) as [Line[], Line[]]
  let common = 0
  while (common < olds.length && olds[common] === news[common]) common++
  const apart = [...olds.slice(common), ...news.slice(common)]
  return {
    lastCommon: olds[common - 1]?.entry.seq ?? 0,
    kinds: new Set(apart.map(({ entry }) => entry.kind)),
    writes: changedKeys(before.writes, after.writes),
    hasOtherKeys:
      before.writes.size !== after.writes.size || [...after.writes.keys()].some((key) => !before.writes.has(key)),
    happenings: changedKeys(before.happenings, after.happenings)
  }
}

function changedKeys(before: ReadonlyMap<string, unknown>, after: ReadonlyMap<string, unknown>): ReadonlySet<string> {
  const changed = new Set<string>()
  for (const [key, value] of after) if (before.get(key) !== value) changed.add(key)
  for (const key of before.keys()) if (!after.has(key)) changed.add(key)
  return changed
}

/** Whether what was looked at is as it was. */
export const isAsItWas = (reads: Reads, parts: ReadonlySet<string>, changes: HistoryChanges): boolean =>
  !reads.isAll &&
  !(reads.isOfKeys && changes.hasOtherKeys) &&
  reads.newestLine <= changes.lastCommon &&
  isApart(parts, reads.parts) &&
  isApart(changes.kinds, reads.kinds) &&
  isApart(changes.writes, reads.writes) &&
  isApart(changes.happenings, reads.happenings)

function isApart(few: ReadonlySet<string>, many: ReadonlySet<string>): boolean {
  for (const one of few) if (many.has(one)) return false
  return true
}
