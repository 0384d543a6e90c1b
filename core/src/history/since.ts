import { partsOf, presenceKey } from '../record/keys'
import { isStored } from '../record/record'
import type { Author } from '../record/attribution'
import { toldIn, type History } from './history'

/**
 * Who else set what a line set, after it: taking it back would take theirs back with it. Of a line that brought a thing into the visit
 * it is whoever wrote on that thing.
 * @param line the id of the entry
 * @returns empty where it stands as it was written, or the line is not here
 */
export function othersSince(history: History, line: string): Author[] {
  const own = [...history.lines.values()].find(({ entry }) => entry.id === line)?.entry
  if (!own) return []
  const keys = new Set(toldIn(history, own).map(({ key }) => key))
  const begun = new Set([...keys].flatMap((key) => thingBegunBy(history, key, own.seq) ?? []))
  const authors = new Map<string, Author>()
  for (const [key, writes] of history.writes) {
    const { kind, id } = partsOf(key)
    if (!keys.has(key) && !begun.has(presenceKey(kind, id))) continue
    for (const { seq } of writes) {
      const { entry } = history.lines.get(seq)!
      if (seq > own.seq && entry.from !== own.from) authors.set(entry.by.id, entry.by)
    }
  }
  return [...authors.values()]
}

/** The thing that a line was the first to write on; null where it was there before. */
function thingBegunBy(history: History, key: string, seq: number): string | null {
  const { kind, id } = partsOf(key)
  if (!isStored(kind)) return null
  const start = `${kind}.${id}.`
  const isFirst = [...history.writes].every(
    ([other, writes]) => !other.startsWith(start) || writes.every((write) => write.seq >= seq)
  )
  return isFirst ? presenceKey(kind, id) : null
}
