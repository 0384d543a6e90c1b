import { z } from 'zod'
import { fieldMeta } from '../attribution'

/**
 * How two records of a home are compared in a kind: field by field, with where among the kinds it is told; by how many were drawn
 * otherwise, with the name of them all; or not at all.
 */
export type Compared = { byField: number } | { drawn: string } | 'not'

/** All that is known of a kind of thing whose facts are set one by one. */
export interface ThingDefinition<
  K extends string,
  T extends string,
  S extends z.ZodRawShape,
  L extends boolean,
  X extends z.ZodRawShape
> {
  /** Its name in entries: `outlet.set` sets facts of an outlet. */
  kind: K
  /** The table of the record that holds it. */
  table: T
  facts: z.ZodObject<S>
  /** Whether its table is left out of a record until there is one: so are kinds that came after the first seals, whose digests stay. */
  later: L
  /** What it holds beside its facts, and what of that a new one begins with. */
  besides?: X
  begins?: Readonly<Record<string, unknown>>
  /** Fields that name another thing of the visit, each with that one's kind; `end`: the end of a cable. */
  refersTo: { readonly [F in keyof S]?: string }
  /** Its facts as a new visit at the home begins with them; null where it does not go along. */
  carriesOver: null | ((facts: Record<string, unknown>) => Record<string, unknown>)
  compared: Compared
  /** What it is called in the logbook; its kind where left out. */
  label?: string
  /** What the logbook tells of fields that were set, where that is not the values themselves. */
  told?: (set: Record<string, unknown>, unitName: (id: string) => string) => Record<string, unknown>
}

/** Defines a kind of thing: this object holds all about it, and `all.ts` lists it. */
export function thing<
  const K extends string,
  const T extends string,
  S extends z.ZodRawShape,
  const L extends boolean,
  X extends z.ZodRawShape = Record<never, never>
>(definition: ThingDefinition<K, T, S, L, X>): ThingDefinition<K, T, S, L, X> {
  return definition
}

/** Carried over as it is. */
export const asItIs = (facts: Record<string, unknown>): Record<string, unknown> => facts

/** Carried over without some fields, which are the visit's own. */
export function without(...fields: readonly string[]): (facts: Record<string, unknown>) => Record<string, unknown> {
  return (facts) => Object.fromEntries(Object.entries(facts).filter(([field]) => !fields.includes(field)))
}

/** The schema of a thing in a record. */
export function recordedThing<S extends z.ZodRawShape, X extends z.ZodRawShape = Record<never, never>>(
  facts: z.ZodObject<S>,
  besides?: X
) {
  return z.strictObject({
    id: z.string(),
    facts: facts.partial(),
    meta: z.record(z.string(), fieldMeta),
    addedSeq: z.int(),
    removedSeq: z.int().nullable(),
    ...(besides ?? ({} as X))
  })
}
