import { describe, expect, it } from 'vitest'
import type { Said, Unsettled } from '@pasado/core/history/conflicts'
import { settlementOf } from '@pasado/core/history/settle'
import { kindOf } from '@pasado/core/record/entries/all'
import type { EntryKind } from '@pasado/core/record/entries/all'
import { box, complete, idOf, node, router, someone, type Log } from '@pasado/testing/logbook'

const said = (value: unknown, seq: number): Said => ({ seq, at: '2026-01-05T09:00:00Z', by: someone, value })
/** A conflict of two or more values, each by somebody who had not seen the others. */
const conflict = (kind: string, id: string, field: string, ...values: unknown[]): Unsettled => ({
  key: `${kind}.${id}.${field}`,
  kind,
  id,
  field,
  values: values.map((value, at) => said(value, at + 2))
})
const settled = (of: Unsettled, value: unknown, log: Log = complete()) => settlementOf(log.record(), of, value)

describe('a conflict is settled', () => {
  it.each([
    [
      'a fact, for the one that came first, both named as they were seen',
      conflict('unit', node, 'place', 'study', 'attic'),
      'study',
      'conflict.settled',
      { thing: 'unit', id: node, field: 'place', keep: 'earlier', values: { earlier: 'study', later: 'attic' } }
    ],
    [
      'a fact, for the one that came last',
      conflict('unit', node, 'place', 'study', 'attic'),
      'attic',
      'conflict.settled',
      { thing: 'unit', id: node, field: 'place', keep: 'later', values: { earlier: 'study', later: 'attic' } }
    ],
    [
      'a fact that three wrote, by writing it anew',
      conflict('unit', node, 'place', 'study', 'attic', 'landing'),
      'attic',
      'unit.set',
      { id: node, set: { place: 'attic' } }
    ],
    [
      'a fact of the brief that three wrote, by writing it anew',
      conflict('brief', 'brief', 'phone', '555-0101', '555-0102', '555-0103'),
      '555-0102',
      'brief.set',
      { set: { phone: '555-0102' } }
    ],
    [
      'what is here or not, by taking it out',
      conflict('unit', node, 'is-here', true, false),
      false,
      'thing.removed',
      { thing: 'unit', id: node }
    ],
    [
      'what is here or not, by putting it back',
      conflict('room', node, 'is-here', true, false),
      true,
      'thing.restored',
      { thing: 'room', id: node }
    ],
    [
      'a choice of hand-over',
      conflict('choice', 'guest', 'answer', 'yes', 'no'),
      'no',
      'choice.answered',
      { choice: 'guest', answer: 'no' }
    ],
    [
      'who keeps the secrets',
      conflict('custody', 'custody', 'custody', { custody: 'customer-keeps' }, { custody: 'company-keeps' }),
      { custody: 'company-keeps' },
      'custody.answered',
      { custody: 'company-keeps' }
    ],
    [
      'an item that is there',
      conflict('item', box, 'Tern node', { state: 'present' }, { state: 'missing' }),
      { state: 'present' },
      'items.checked',
      { box, items: ['Tern node'], state: 'present' }
    ],
    [
      'an item, with what was done about it',
      conflict('item', box, 'Tern node', { state: 'missing', done: 'ordered' }, null),
      { state: 'missing', done: 'ordered' },
      'items.checked',
      { box, items: ['Tern node'], state: 'missing', done: 'ordered' }
    ],
    [
      'an item that nobody looked at',
      conflict('item', box, 'Tern node', { state: 'missing' }, null),
      null,
      'items.checked',
      { box, items: ['Tern node'], state: 'open' }
    ],
    [
      'an answer of the whole visit',
      conflict('answer', 'addr-applied', 'answer', 'yes', 'no'),
      'no',
      'rule.answered',
      { rule: 'addr-applied', answer: 'no' }
    ],
    [
      'an answer about one thing that nobody has given yet here',
      conflict('answer', `prove-names-gone/${node}`, 'answer', 'yes', 'no'),
      'yes',
      'rule.answered',
      { rule: 'prove-names-gone', subject: node, answer: 'yes' }
    ],
    [
      'a prompt that nobody answered here, as the customer',
      conflict('prompt', node, 'usage', 'yes', 'no'),
      'yes',
      'prompt.answered',
      { unit: node, prompt: 'usage', answer: 'yes', by: 'customer' }
    ],
    [
      'a prompt of a unit that is not here, as the customer',
      conflict('prompt', idOf('gone'), 'usage', 'yes', 'no'),
      'no',
      'prompt.answered',
      { unit: idOf('gone'), prompt: 'usage', answer: 'no', by: 'customer' }
    ]
  ] as const)('%s', (_, of, value, kind, body) => {
    expect(settled(of, value)).toEqual({ kind, body })
    expect(kindOf(kind as EntryKind).body.safeParse(body).error?.issues ?? []).toEqual([])
  })

  it('an answer keeps the note that was given with it', () => {
    const log = complete().write('rule.answered', {
      rule: 'prove-names-gone',
      subject: router,
      answer: 'no',
      note: 'Seen from the garden.'
    })
    expect(settled(conflict('answer', `prove-names-gone/${router}`, 'answer', 'no', 'yes'), 'yes', log)?.body).toEqual({
      rule: 'prove-names-gone',
      subject: router,
      answer: 'yes',
      note: 'Seen from the garden.'
    })
  })

  it('a prompt keeps who answered it', () => {
    const log = complete().write('prompt.answered', { unit: router, prompt: 'usage', answer: 'no', by: 'default' })
    expect(settled(conflict('prompt', router, 'usage', 'no', 'yes'), 'yes', log)?.body).toMatchObject({
      by: 'default'
    })
  })

  it('a secret not by a press: it is typed anew', () => {
    expect(settled(conflict('secret', router, 'admin-password', 'print a', 'print b'), 'print a')).toBeNull()
  })
})
