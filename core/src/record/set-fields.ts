import { attributionOf, type Author } from './attribution'
import type { ThingKind } from './facts'
import type { Origin } from './origin'
import type { AnyThing, Conflict } from './record'

/** The line that sets them. */
interface Setting {
  seq: number
  at: string
  by: Author
  from: string
  base: number
}

/**
 * Sets fields, later over earlier. Where another device set the same field to another value after the author
 * last looked (`base`), the two are a conflict; a value set in knowledge of both settles it.
 */
export function setFields(
  kind: ThingKind,
  before: AnyThing,
  set: Record<string, unknown>,
  origin: Origin | undefined,
  line: Setting,
  open: Conflict[]
): { thing: AnyThing; conflicts: Conflict[] } {
  const facts = { ...before.facts }
  const meta = { ...before.meta }
  let conflicts = open
  for (const [field, value] of Object.entries(set)) {
    const last = meta[field]
    const unseen = last && last.seq > line.base && last.from !== line.from
    const isHere = (conflict: Conflict) =>
      conflict.thing === kind && conflict.id === before.id && conflict.field === field
    if (unseen && !same(facts[field] ?? null, value)) {
      const earlier = { ...attributionOf(last), value: facts[field] ?? null }
      conflicts = [
        ...conflicts.filter((conflict) => !isHere(conflict)),
        { thing: kind, id: before.id, field, earlier, later: { ...attributionOf(line), value } }
      ]
    } else if (conflicts.length) {
      conflicts = conflicts.filter((conflict) => !(isHere(conflict) && line.base >= conflict.later.seq))
    }
    if (value === null) delete facts[field]
    else facts[field] = value
    meta[field] = { ...attributionOf(line), from: line.from, origin: origin ?? 'typed' }
  }
  return { thing: { ...before, facts, meta }, conflicts }
}

function same(a: unknown, b: unknown): boolean {
  return a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b))
}
