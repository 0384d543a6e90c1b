import type { Body, EntryKind } from '@pasado/core/record/entry'
import { ruleKey, type VisitRecord } from '@pasado/core/record/record'

/** The entry that takes another one back, as the record stands before it; null where it cannot be taken back. */
export function inverseOf(kind: EntryKind, body: unknown, record: VisitRecord): { kind: EntryKind; body: unknown } | null {
  switch (kind) {
    case 'brief.set': {
      const { set } = body as Body<'brief.set'>
      return { kind, body: { set: valuesBefore(set, record.brief.facts) } }
    }
    case 'unit.set':
    case 'segment.set':
    case 'pool.set':
    case 'host.set':
    case 'network.set': {
      const { id, set } = body as Body<'unit.set'>
      const thing = kind.slice(0, -4) as 'unit'
      const table = { unit: record.units, segment: record.segments, pool: record.pools, host: record.hosts, network: record.networks }[thing]
      const held = table[id]
      if (!held) return { kind: 'thing.removed', body: { thing, id } }
      return { kind, body: { id, set: valuesBefore(set, held.facts) } }
    }
    case 'thing.removed':
      return { kind: 'thing.restored', body }
    case 'thing.restored':
      return { kind: 'thing.removed', body }
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
