import { z } from 'zod'
import { author, type Author } from './attribution'
import { entryKinds, kindOf, type Body, type EntryKind } from './entries/all'
import type { Envelope } from './entries/kind'
import { digest, id } from './fields'

const envelope = {
  id: z.uuidv7('must be a UUID of version 7'),
  visit: id,
  /** The author's clock, with its offset. */
  at: z.iso.datetime({ offset: true }),
  /** The outbox it was sent from, one person on one device: what comes from one outbox never conflicts with itself. */
  from: id,
  /** The last seq the author had seen when the look was taken. */
  base: z.int().min(0),
  /** How many lines of this outbox the visit had at that moment, sent or not; left out, as by entries from before: all before it. */
  own: z.int().min(0).optional()
}

const kindNames = Object.keys(entryKinds) as EntryKind[]

function unionOf<X extends z.ZodRawShape>(kinds: EntryKind[], bodyOf: (kind: EntryKind) => z.ZodType, extra: X) {
  const options = kinds.map((kind) =>
    z.strictObject({ ...envelope, ...extra, kind: z.literal(kind), body: bodyOf(kind) })
  )
  return z.discriminatedUnion('kind', options as never)
}

const stamped = {
  by: author,
  seq: z.int().min(1),
  /** The server's clock when it took the entry. */
  received: z.iso.datetime(),
  hash: digest
}

/** What a browser sends: one entry, not yet stamped by the server. */
export const draftEntry = unionOf(
  kindNames.filter((kind) => kindOf(kind).by !== 'server'),
  (kind) => kindOf(kind).asked ?? kindOf(kind).body,
  {}
) as unknown as z.ZodType<Draft>
/** An entry as the logbook holds it. */
export const entry = unionOf(kindNames, (kind) => kindOf(kind).body, stamped) as unknown as z.ZodType<Entry>

/** An entry before the server has stamped it. */
export type Draft<K extends EntryKind = EntryKind> = K extends EntryKind ? Envelope<Body<K>> & { kind: K } : never
/** An entry of the logbook: a draft with its author, its place, the server's clock and its link in the chain. */
export type Entry<K extends EntryKind = EntryKind> = Draft<K> & {
  by: Author
  seq: number
  received: string
  hash: string
}
/** What the reducer needs: everything but the hash. */
export type Placed<K extends EntryKind = EntryKind> = Draft<K> & { by: Author; seq: number; received: string }
