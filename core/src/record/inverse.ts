import { kindOf, type EntryKind } from './entries/all'
import type { VisitRecord } from './record'

/** The entry that takes another one back, as the record stands before it; null where it cannot be taken back. */
export function inverseOf(
  kind: EntryKind,
  body: unknown,
  before: VisitRecord
): { kind: EntryKind; body: unknown } | null {
  return (kindOf(kind).inverse?.(body, before) ?? null) as { kind: EntryKind; body: unknown } | null
}
