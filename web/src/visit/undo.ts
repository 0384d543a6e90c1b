import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import { ruleKey, tableOf, thingsOf, type VisitRecord } from '@pasado/core/record/record'

/** The entry that takes another one back, as the record stands before it; null where it cannot be taken back. */
export function inverseOf(
  kind: EntryKind,
  body: unknown,
  record: VisitRecord
): { kind: EntryKind; body: unknown } | null {
  const thing = kind.replace(/\.set$/, '')
  if (thing !== kind && thing in tableOf) {
    const { id, set } = body as Body<'unit.set'>
    const held = (
      thingsOf(record, thing as keyof typeof tableOf) as Record<string, { facts: Record<string, unknown> }>
    )[id]
    return held
      ? { kind, body: { id, set: valuesBefore(set, held.facts) } }
      : { kind: 'thing.removed', body: { thing, id } }
  }
  switch (kind) {
    case 'brief.set': {
      const { set } = body as Body<'brief.set'>
      return { kind, body: { set: valuesBefore(set, record.brief.facts) } }
    }
    case 'thing.removed':
      return { kind: 'thing.restored', body }
    case 'thing.restored':
      return { kind: 'thing.removed', body }
    case 'items.checked': {
      const { box, items } = body as Body<'items.checked'>
      const held = record.boxes?.[box]?.items ?? {}
      const before = held[items[0]!]
      // Items that stood differently before cannot all be put back by one entry; those like the first are.
      const alike = items.filter((item) => held[item]?.state === before?.state && held[item]?.done === before?.done)
      return {
        kind,
        body: {
          box,
          items: alike,
          state: before?.state ?? 'open',
          ...(before?.done === undefined ? {} : { done: before.done })
        }
      }
    }
    case 'photo.removed':
      return { kind: 'photo.restored', body }
    case 'photo.restored':
      return { kind: 'photo.removed', body }
    case 'photo.captioned': {
      const { ref } = body as Body<'photo.captioned'>
      return { kind, body: { ref, caption: record.photos?.[ref]?.caption ?? null } }
    }
    case 'choice.answered': {
      const { choice } = body as Body<'choice.answered'>
      const before = record.choices[choice]
      return before ? { kind, body: { choice, answer: before.answer } } : null
    }
    case 'rule.answered': {
      const { rule, subject } = body as Body<'rule.answered'>
      const before = record.answers[ruleKey(rule, subject)]
      return before ? { kind, body: { rule, ...(subject ? { subject } : {}), answer: before.answer } } : null
    }
    case 'waiver.granted': {
      const { rule, subject } = body as Body<'waiver.granted'>
      return { kind: 'waiver.withdrawn', body: { rule, ...(subject ? { subject } : {}) } }
    }
    default:
      return null
  }
}

function valuesBefore(set: Record<string, unknown>, facts: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.keys(set).map((field) => [field, facts[field] ?? null]))
}
