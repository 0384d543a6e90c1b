import { attributionOf, type Author } from '../record/attribution'
import { isPresence, partsOf, presenceKey } from '../record/keys'
import { isStored } from '../record/record'
import { hasSeen, headsOf, isSame, type History, type Write } from './history'

/** A value that somebody gave to a key, and who. */
export interface Said {
  seq: number
  at: string
  by: Author
  value: unknown
}

/** A key that was set to different values by people who had not seen each other, and that nobody has settled since. */
export interface Unsettled {
  key: string
  kind: string
  id: string
  field: string
  /** The values, each once, in the order in which they came. */
  values: Said[]
}

/** All that waits to be settled: fields, answers, choices, custody, prompts and items; things taken out that somebody else was writing on. */
export function conflictsOf(history: History): Unsettled[] {
  const known = found.get(history)
  if (known) return known
  const conflicts: Unsettled[] = []
  const takenOut = new Map<string, Write[]>()
  for (const [key, writes] of history.writes) {
    if (isPresence(partsOf(key)) && writes.some(({ value }) => value === false)) takenOut.set(key, [])
    if (!isOfSeveral(history, writes)) continue
    const heads = headsOf(history, writes)
    if (heads.some(({ value }) => !isSame(value, heads[0]!.value))) conflicts.push(unsettled(history, key, heads))
  }
  if (takenOut.size > 0)
    for (const [key, writes] of history.writes) {
      const { kind, id } = partsOf(key)
      if (isStored(kind)) takenOut.get(presenceKey(kind, id))?.push(...writes)
    }
  for (const [key, writes] of takenOut) {
    const conflict = writtenWhileTakenOut(history, key, writes)
    if (conflict && !conflicts.some((other) => other.key === key)) conflicts.push(conflict)
  }
  found.set(history, conflicts)
  return conflicts
}

/** A history is never changed in place, and every rule asks the same of one. */
const found = new WeakMap<History, Unsettled[]>()

/** What one outbox wrote never conflicts with itself. */
function isOfSeveral(history: History, writes: readonly Write[]): boolean {
  if (writes.length < 2) return false
  const first = history.lines.get(writes[0]!.seq)?.entry.from
  return writes.some(({ seq }) => history.lines.get(seq)?.entry.from !== first)
}

/** Somebody took a thing out while somebody else, who did not know, went on writing on it. */
function writtenWhileTakenOut(history: History, key: string, edits: readonly Write[]): Unsettled | null {
  const said = history.writes.get(key)
  if (!said?.some(({ value }) => value === false)) return null
  const [head, ...others] = headsOf(history, said)
  if (others.length || head!.value !== false) return null
  const unseen = edits.filter(
    ({ seq }) => seq !== head!.seq && !hasSeen(history, head!.seq, seq) && !hasSeen(history, seq, head!.seq)
  )
  const last = unseen.at(-1)
  return last ? unsettled(history, key, [{ seq: last.seq, value: true }, head!]) : null
}

function unsettled(history: History, key: string, heads: readonly Write[]): Unsettled {
  const values: Said[] = []
  for (const { seq, value } of [...heads].sort((a, b) => a.seq - b.seq))
    if (!values.some((other) => isSame(other.value, value)))
      values.push({ ...attributionOf(history.lines.get(seq)!.entry), value })
  return { key, ...partsOf(key), values }
}
