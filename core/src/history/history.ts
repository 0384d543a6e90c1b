import { kindOf, type EntryKind } from '../record/entries/all'
import type { Author } from '../record/attribution'
import type { Told } from '../record/entries/kind'
import type { Placed } from '../record/entry'
import { fieldKey, partsOf, presenceKey, secretKey } from '../record/keys'
import { reading, unread } from '../record/reads'
import { sameJson } from '../values/canonical'

/** A line of the logbook with its place in its outbox. */
export interface Line {
  entry: Placed
  /** How many lines of its outbox stand before it. */
  place: number
  /** How many lines of its outbox its author had written when the look was taken. */
  own: number
}

/** A value that a line gave to a key. */
export interface Write {
  seq: number
  value: unknown
}

/** Something that happened to a unit. */
export interface Happening {
  seq: number
  what: string
}

/**
 * What a logbook tells beyond the record that it amounts to: who had seen what when they wrote. A second fold over the same entries;
 * the record holds what stands now, this tells whether what was proven then still stands.
 */
export interface History {
  /** Every line, by its number. */
  lines: ReadonlyMap<number, Line>
  /** How many lines each outbox has. */
  outboxes: ReadonlyMap<string, number>
  /** What each key was set to, in the order of the logbook. */
  writes: ReadonlyMap<string, readonly Write[]>
  /** What happened to each unit, in the order of the logbook. */
  happenings: ReadonlyMap<string, readonly Happening[]>
  /** Lines that their author took back as never so, each with the line that says it. */
  undone: ReadonlyMap<number, number>
  /** What was said of which came first, a change or a proof, by `wordKey`, in the order of the logbook. */
  words: ReadonlyMap<string, readonly Word[]>
  /** The lines that say of a thing that it stood there before it was recorded. */
  stood: ReadonlyMap<string, readonly number[]>
  /** Whether a word counts only where a lead gave the same. */
  wordsNeedLead?: true
  /** Where it is collected which changes and proofs did not know of each other. */
  unordered?: { change: string; proof: string; message: string }[]
  /** Where it is collected what was recorded after a proof that it may have to do with. */
  recordedSince?: { thing: 'unit' | 'stays'; id: string; message: string }[]
}

/** What somebody said of a change and a proof that did not know of each other. */
export interface Word {
  by: Author
  /** Whether the change came before the proof, or after it. */
  came: 'before' | 'after'
}

/** What is kept of a change and a proof, by the numbers of their lines. */
export const wordKey = (change: number, proof: number): string => `${change} ${proof}`

/** The history before the first entry. */
export const emptyHistory: History = {
  lines: new Map(),
  outboxes: new Map(),
  writes: new Map(),
  happenings: new Map(),
  undone: new Map(),
  words: new Map(),
  stood: new Map()
}

/**
 * The history after more entries, in the order of the logbook. Pure: the one given is not changed.
 * @param places of lines in their outboxes, by number, where not all lines of the logbook are given
 */
export function remember(history: History, entries: Iterable<Placed>, places?: ReadonlyMap<number, number>): History {
  const lines = new Map(history.lines)
  const outboxes = new Map(history.outboxes)
  const writes = new Map(history.writes)
  const happenings = new Map(history.happenings)
  const undone = new Map(history.undone)
  const words = new Map(history.words)
  const stood = new Map(history.stood)
  for (const entry of entries) {
    const place = places?.get(entry.seq) ?? outboxes.get(entry.from) ?? 0
    outboxes.set(entry.from, place + 1)
    lines.set(entry.seq, { entry, place, own: entry.own ?? place })
    const told = toldIn({ ...history, lines, writes }, entry)
    for (const { key, value } of told) writes.set(key, [...(writes.get(key) ?? []), { seq: entry.seq, value }])
    if (entry.kind === 'unit.event') {
      const { unit, what } = entry.body
      happenings.set(unit, [...(happenings.get(unit) ?? []), { seq: entry.seq, what }])
    }
    if (entry.kind === 'thing.stood') stood.set(entry.body.id, [...(stood.get(entry.body.id) ?? []), entry.seq])
    if (entry.kind === 'order.said') hearWord(words, lines, entry)
    if (entry.kind === 'slip.undone') {
      const slip = lineOf(lines, entry.body.undoes)
      if (slip?.by.id === entry.by.id) undone.set(slip.seq, entry.seq)
    }
  }
  return { lines, outboxes, writes, happenings, undone, words, stood }
}

/** Adds what somebody said of which came first, where both lines are in the logbook. */
function hearWord(
  words: Map<string, readonly Word[]>,
  lines: History['lines'],
  { by, body }: Placed<'order.said'>
): void {
  const [change, proof] = [body.change, body.proof].map((id) => lineOf(lines, id))
  const key = change && proof && wordKey(change.seq, proof.seq)
  if (key) words.set(key, [...(words.get(key) ?? []), { by, came: body.came }])
}

function lineOf(lines: History['lines'], id: string): Placed | undefined {
  for (const { entry } of lines.values()) if (entry.id === id) return entry
  return undefined
}

/** What a line sets; of one that speaks of lines before it, by what those say. */
export function toldIn(history: History, entry: Placed): readonly Told[] {
  if (entry.kind === 'conflict.settled') return settled(history, entry)
  if (entry.kind === 'secret.typed-in') return typedIn(history, entry)
  return kindOf(entry.kind).tells?.(entry.body) ?? []
}

/** The secret that was prepared and is in use from a line on; where it is prepared still, the one that was in use before it. */
function typedIn({ lines, writes }: History, { body: { ref, prepared } }: Placed<'secret.typed-in'>): Told[] {
  for (const { entry } of lines.values())
    if (entry.kind === 'secret.kept' && entry.body.ref === ref && entry.body.prepared) {
      const { id, purpose, assessed } = entry.body
      const key = secretKey(id, purpose)
      if (!prepared) return [{ key, value: assessed.print }]
      const set = writes.get(key) ?? []
      const at = set.findLastIndex(({ value }) => value === assessed.print)
      // What was never typed in is no other by it.
      return at < 0 ? [] : [{ key, value: set[at - 1]?.value }]
    }
  return []
}

/** The value that a conflict was settled for: as it was named, else, as by lines from before, the one that stood first or last in the logbook. */
function settled(history: History, { seq, body }: Placed<'conflict.settled'>): Told[] {
  const key = fieldKey(body.thing, body.id, body.field)
  if (body.values) return [{ key, value: body.values[body.keep] }]
  const seen = (history.writes.get(key) ?? []).filter((write) => hasSeen(history, seq, write.seq))
  const heads = headsOf(history, seen)
  const kept = body.keep === 'earlier' ? heads[0] : heads.at(-1)
  return kept ? [{ key, value: kept.value }] : []
}

/** The history of a whole logbook. */
export const historyOf = (entries: Iterable<Placed>): History => remember(emptyHistory, entries)

/**
 * Whether the author of a line had another one before them when the look was taken: it is in the line's past. No clock decides:
 * it is what they had from the server, and what was written before on the same device.
 */
export function hasSeen(history: History, by: number, seen: number): boolean {
  if (by === seen) return true
  const author = history.lines.get(by)
  const line = history.lines.get(seen)
  if (!author || !line) return seen < by
  if (seen <= author.entry.base) return true
  return line.entry.from === author.entry.from && line.place < author.own
}

/**
 * Whether a line was never so, for a proof whose author had not seen it: who wrote it took it back, and nobody wrote of the same thing on
 * the strength of it meanwhile without their knowing.
 */
export function wasNeverSo(history: History, seq: number): boolean {
  const undoing = history.undone.get(seq)
  if (undoing === undefined) return false
  const about = thingsNamed(history.lines.get(seq)!.entry)
  for (const [other, { entry }] of history.lines) {
    if (other === undoing || other === seq || hasSeen(history, undoing, other) || !hasSeen(history, other, seq))
      continue
    if (!hasSeen(history, other, undoing) && thingsNamed(entry).some((id) => about.includes(id))) return false
  }
  return true
}

/**
 * Whether a value does not stand any more: another line set its key since, or its thing was taken out. What was taken back as never so and
 * stands all the same is a change like any other.
 */
export function wasPutBack(history: History, key: string, seq: number): boolean {
  const isSetSince = (history.writes.get(key) ?? []).some((write) => write.seq > seq && !history.undone.has(write.seq))
  const { kind, id } = partsOf(key)
  return isSetSince || history.writes.get(presenceKey(kind, id))?.at(-1)?.value === false
}

/** The ids of things that a line names. */
function thingsNamed({ body }: Placed): string[] {
  const { id, unit, subject } = body as { id?: unknown; unit?: unknown; subject?: unknown }
  return [id, unit, subject].filter((named) => typeof named === 'string')
}

/** What was set of a key last in a line's past, or by the line itself; undefined where nobody had set it. */
export const valueSeen = (history: History, by: number, key: string): Write | undefined =>
  history.writes.get(key)?.findLast(({ seq }) => hasSeen(history, by, seq))

/** The lines that gave a key one value. */
export const linesSaying = (history: History, key: string, value: unknown): Write[] =>
  (history.writes.get(key) ?? []).filter((write) => isSame(write.value, value))

/** Of lines about one thing those that no other of them had seen: the newest, or several that did not know of each other. */
export function headsOf<T extends { seq: number }>(history: History, lines: readonly T[]): T[] {
  // From the newest: whoever came last has mostly seen all.
  return lines.filter(
    ({ seq }) => lines.findLast((other) => other.seq !== seq && hasSeen(history, other.seq, seq)) === undefined
  )
}

/** Every line of a logbook, in its order. */
export const entriesOf = ({ lines }: History): Placed[] => Array.from(lines.values(), ({ entry }) => entry)

/**
 * Every line of some kinds, in the order of the logbook.
 * @param kinds the same set whenever the same is asked
 */
export function linesOfKinds<K extends EntryKind>({ lines }: History, kinds: ReadonlySet<K>): Placed<K>[] {
  const reads = reading()
  if (reads) for (const kind of kinds) reads.kinds.add(kind)
  let ofLogbook = ofKinds.get(lines)
  if (!ofLogbook) ofKinds.set(lines, (ofLogbook = new Map<ReadonlySet<EntryKind>, Placed[]>()))
  let found = ofLogbook.get(kinds)
  if (!found) {
    const isOfThese = (kind: string): boolean => (kinds as ReadonlySet<string>).has(kind)
    found = unread(() => Array.from(lines.values(), ({ entry }) => entry)).filter(({ kind }) => isOfThese(kind))
    ofLogbook.set(kinds, found)
  }
  return found as Placed<K>[]
}

/** Lines by what was asked for: many proofs ask the same of one logbook. */
const ofKinds = new WeakMap<History['lines'], Map<ReadonlySet<EntryKind>, Placed[]>>()

/** Whether two values say the same. */
export const isSame = (a: unknown, b: unknown): boolean => a === b || sameJson(a ?? null, b ?? null)
