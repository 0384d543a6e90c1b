/**
 * What was looked at while something was worked out: as long as all of it is as it was, it would come out the same. What is looked at
 * through `readThrough` and `historyThrough` notes itself here.
 */
export class Reads {
  /** Parts of the record: tables by name; of a unit, its id and what of it. */
  readonly parts = new Set<string>()
  /** Keys of which it was asked what they were set to. */
  readonly writes = new Set<string>()
  /** Units of which it was asked what happened to them. */
  readonly happenings = new Set<string>()
  /** Kinds of which every line was asked for. */
  readonly kinds = new Set<string>()
  /** The newest single line that was looked at. */
  newestLine = 0
  /** Whether it was asked which keys were ever set. */
  isOfKeys = false
  /** Whether it looked at so much that it has to be worked out anew whatever changed. */
  isAll = false
  readonly #added = new Set<Reads>()

  /** Looks at what was looked at elsewhere, which is done with. */
  add(other: Reads): void {
    if (this.#added.has(other)) return
    this.#added.add(other)
    for (const part of other.parts) this.parts.add(part)
    for (const key of other.writes) this.writes.add(key)
    for (const unit of other.happenings) this.happenings.add(unit)
    for (const kind of other.kinds) this.kinds.add(kind)
    this.newestLine = Math.max(this.newestLine, other.newestLine)
    this.isOfKeys ||= other.isOfKeys
    this.isAll ||= other.isAll
  }
}

let current: Reads | null = null

/** Where it is noted what is looked at just now; null where nobody asks. */
export const reading = (): Reads | null => current

/** Works something out, and notes what it looked at; whoever is noting already looked at it too. */
export function readBy<T>(reads: Reads, work: () => T): T {
  const outer = current
  try {
    return noting(reads, work)
  } finally {
    outer?.add(reads)
  }
}

/** Works something out of what never changes: nothing of it is noted. */
export const unread = <T>(work: () => T): T => noting(null, work)

function noting<T>(reads: Reads | null, work: () => T): T {
  const outer = current
  current = reads
  try {
    return work()
  } finally {
    current = outer
  }
}
