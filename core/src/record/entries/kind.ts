import type { z } from 'zod'
import type { Author } from '../attribution'
import type { VisitRecord } from '../record'
import type { StoredKind } from '../things/all'
import type { ThingKind } from '../facts'

/** What every entry has around what it says. */
export interface Envelope<B> {
  id: string
  visit: string
  at: string
  from: string
  base: number
  own?: number
  kind: string
  body: B
}

/** A line of the logbook as its kind reads it: everything but the hash. */
export interface Line<B> extends Envelope<B> {
  by: Author
  seq: number
  received: string
}

/** What a field of an entry refers to; the server takes no entry that refers to what is not there. `equipment`: a unit, or what stays; `subject`: any thing, where it is one. */
export type Referent = StoredKind | 'equipment' | 'photo' | 'check' | 'search' | 'wait' | 'secret' | 'rule' | 'subject'

/** The fields of an entry that refer to something, by path (`about.unit`), each with what it is; a function where the entry itself says. */
export type References<B> = Readonly<Record<string, Referent | ((body: B) => Referent | null)>>

/** What has to be known beside the record to say whether an entry fits it. */
export interface Circumstances {
  record: VisitRecord
  /** The author's clock. */
  at: string
  /** Whether the catalogue holds a model, by `id@version`. */
  knowsModel: (key: string) => boolean
}

/** Puts names to what an entry speaks of, for people who read the logbook. */
export interface Naming {
  unit: (id: string) => string
  /** The fields that were set, with their values. */
  values: (kind: ThingKind, set: Record<string, unknown>) => string
  moment: (iso: string) => string
  cause: (id: string) => string
  /** What was observed, and what was answered. */
  observation: (id: string, answer: string | null) => string
}

/** An entry to be written. */
export interface ToWrite {
  kind: string
  body: unknown
}

/** A key that an entry sets, and its value; null clears it. */
export interface Told {
  key: string
  value: unknown
}

/** All that is known of a kind of entry. */
export interface EntryDefinition<B> {
  body: z.ZodType<B>
  /** What is asked of it when it is written today, where that is more than what the logbook may hold from before. */
  asked?: z.ZodType
  /** Who writes it: whoever works in the field or the office, leads only, or the server only. */
  by: 'anybody' | 'lead' | 'server'
  refersTo: References<B>
  /** What else stands against it: the field, and why. */
  problem?: (body: B, here: Circumstances) => { field: (string | number)[]; message: string } | null
  /** What it sets, key by key (`keys.ts`): what two who have not seen each other can set otherwise. Nothing where it is left out. */
  tells?: (body: B) => readonly Told[]
  /** What it changes of the record. */
  apply: (record: VisitRecord, line: Line<B>) => Partial<VisitRecord>
  /** The entry that takes it back, as the record stood before it; null where it cannot be taken back. */
  inverse: null | ((body: B, before: VisitRecord) => ToWrite | null)
  /** What it says, for people; secrets are never in one. */
  describe: (body: B, names: Naming) => string
}

/** Defines a kind of entry: this row holds all about it. */
export function entryKind<B>(definition: EntryDefinition<B>): EntryDefinition<B> {
  return definition
}

/** Of one table of a record, with one row changed; nothing where there is no such row. */
export function changed<R>(
  table: Readonly<Record<string, R>> | undefined,
  id: string,
  change: (row: R) => NoInfer<Partial<R>>
): Record<string, R> | undefined {
  const row = table?.[id]
  return row ? { ...table, [id]: { ...row, ...change(row) } } : undefined
}

/** A table without one of its rows. */
export function withoutRow<R>(table: Readonly<Record<string, R>>, id: string): Record<string, R> {
  const { [id]: _, ...rest } = table
  return rest
}
