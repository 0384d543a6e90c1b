import { ruleKey, type VisitRecord } from '../record/record'
import { isPresence } from '../record/keys'
import type { ToWrite } from '../record/entries/kind'
import type { Unsettled } from './conflicts'
import { isSame } from './history'

/**
 * What is written to settle a conflict for one of its values, both named as they were seen. Whoever writes it has seen all of them;
 * what comes in meanwhile is a conflict of its own.
 * @returns null where it cannot be settled by a press: a secret is typed anew
 */
export function settlementOf(record: VisitRecord, conflict: Unsettled, value: unknown): ToWrite | null {
  const { kind, id, field, values } = conflict
  switch (kind) {
    case 'secret':
      return null
    case 'answer': {
      const [rule, subject] = id.split('/') as [string, string?]
      const note = record.answers[ruleKey(rule, subject)]?.note
      return {
        kind: 'rule.answered',
        body: { rule, ...(subject ? { subject } : {}), answer: value, ...(note === undefined ? {} : { note }) }
      }
    }
    case 'choice':
      return { kind: 'choice.answered', body: { choice: id, answer: value } }
    case 'custody':
      return { kind: 'custody.answered', body: value }
    case 'prompt':
      return {
        kind: 'prompt.answered',
        body: { unit: id, prompt: field, answer: value, by: record.units[id]?.prompts[field]?.from ?? 'customer' }
      }
    case 'item': {
      const { state = 'open', done = null } = (value ?? {}) as { state?: string; done?: string | null }
      return { kind: 'items.checked', body: { box: id, items: [field], state, ...(done === null ? {} : { done }) } }
    }
  }
  if (isPresence(conflict))
    return { kind: value === false ? 'thing.removed' : 'thing.restored', body: { thing: kind, id } }
  const [first, last] = [values[0]!, values.at(-1)!]
  if (values.length === 2)
    return {
      kind: 'conflict.settled',
      body: {
        thing: kind,
        id,
        field,
        keep: isSame(value, first.value) ? 'earlier' : 'later',
        values: { earlier: first.value, later: last.value }
      }
    }
  return kind === 'brief'
    ? { kind: 'brief.set', body: { set: { [field]: value } } }
    : { kind: `${kind}.set`, body: { id, set: { [field]: value } } }
}
