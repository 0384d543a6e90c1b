import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { conflictsOf } from '@pasado/core/history/conflicts'
import type { Folded } from '@pasado/core/history/fold'
import { hasSeen, historyOf, remember, emptyHistory } from '@pasado/core/history/history'
import { othersSince } from '@pasado/core/history/since'
import { settlementOf } from '@pasado/core/history/settle'
import { changesSince, restsOnFields } from '@pasado/core/history/stands'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { Placed } from '@pasado/core/record/entry'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import {
  box,
  catalogue,
  complete,
  idOf,
  network,
  node,
  opened,
  router,
  someone,
  type Log
} from '@pasado/testing/logbook'

const [ours, theirs] = [idOf('ours'), idOf('theirs')]
const corin = { ...someone, id: idOf('corin'), name: 'Corin Saltway' }
const lastOf = (log: Log) => log.entries.length
const keys = (folded: Folded) => conflictsOf(folded.history).map(({ key }) => key)

describe('what was seen', () => {
  it('is what stands up to the base, and what the same outbox had written when the look was taken', () => {
    const log = opened()
    const base = lastOf(log)
    log
      .write('unit.set', { id: router, set: { name: 'Router' } }, { from: theirs, base })
      .write('unit.set', { id: node, set: { name: 'Node' } }, { from: ours, base })
      .write('unit.event', { unit: node, what: 'moved' }, { from: ours, base })
      .write('unit.event', { unit: node, what: 'tested-good' }, { from: ours, base, own: 1 })
    const history = historyOf(log.entries)
    const test = lastOf(log)
    expect([base, base + 1, base + 2, base + 3].map((line) => hasSeen(history, test, line))).toEqual([
      true,
      false,
      true,
      false
    ])
  })

  it('entries remembered one by one are those remembered together', () => {
    const { entries } = complete()
    expect(entries.reduce((history, entry) => remember(history, [entry]), emptyHistory)).toEqual(historyOf(entries))
  })
})

describe('a proof that rests on a value', () => {
  const place = restsOnFields('unit', node, { place: 'its place' }, false)
  const messages = (log: Log, proof: number) =>
    changesSince(historyOf(log.entries), proof, place).map(({ message }) => message)
  const moved = (log: Log, to: string | null, more: Partial<Placed> = {}) =>
    log.write('unit.set', { id: node, set: { place: to } }, more)
  const looked = (log: Log, more: Partial<Placed> = {}) => {
    log.write('unit.event', { unit: node, what: 'tested-good' }, more)
    return lastOf(log)
  }

  it('stands while it is said again, and not when it becomes another', () => {
    const log = moved(opened().write('unit.set', { id: node, set: { name: 'Node' } }), 'study')
    const proof = looked(log)
    expect(messages(moved(log, 'study'), proof)).toEqual([])
    expect(messages(moved(log, 'loft'), proof)).toEqual(['Its place was changed since.'])
  })

  it('stands when its first value is written up after it, but not when that becomes another', () => {
    const log = opened().write('unit.set', { id: node, set: { name: 'Node' } })
    const proof = looked(log)
    expect(messages(moved(log, 'study'), proof)).toEqual([])
    expect(messages(moved(log, 'loft'), proof)).toHaveLength(1)
  })

  it('is told what neither knew of the other, and stands where it was settled for the value it had', () => {
    const log = opened().write('unit.set', { id: node, set: { name: 'Node' } })
    const base = lastOf(log)
    moved(log, 'study', { from: ours, base })
    const proof = looked(log, { from: ours, base })
    moved(log, 'loft', { from: theirs, base, by: corin })
    expect(messages(log, proof)).toEqual([
      'Its place was changed, by somebody who did not know of this: which came first is not known.'
    ])
    const folded = log.folded()
    const [conflict] = conflictsOf(folded.history)
    const { kind, body } = settlementOf(folded.record, conflict!, 'study')!
    log.write(kind as EntryKind, body as never)
    expect([messages(log, proof), keys(log.folded())]).toEqual([[], []])
  })

  it('does not stand after it was another for a while, knowingly', () => {
    const log = moved(opened().write('unit.set', { id: node, set: { name: 'Node' } }), 'study')
    const proof = looked(log)
    expect(messages(moved(moved(log, 'loft'), 'study'), proof)).toHaveLength(1)
  })
})

describe('a conflict', () => {
  const unseen = <K extends EntryKind>(kind: K, bodies: [Body<K>, Body<K>], from = complete()): Log => {
    const base = lastOf(from)
    return from.write(kind, bodies[0], { from: ours, base }).write(kind, bodies[1], { from: theirs, base, by: corin })
  }

  it.each<[string, () => Log, string]>([
    [
      'an answer',
      () =>
        unseen('rule.answered', [
          { rule: 'addr-applied', answer: 'yes' },
          { rule: 'addr-applied', answer: 'no' }
        ]),
      'answer.addr-applied.answer'
    ],
    [
      'a choice',
      () =>
        unseen('choice.answered', [
          { choice: 'guest', answer: 'yes' },
          { choice: 'guest', answer: 'no' }
        ]),
      'choice.guest.answer'
    ],
    [
      'custody',
      () => unseen('custody.answered', [{ custody: 'customer-only-now' }, { custody: 'erase-after-30-days' }]),
      'custody.custody.custody'
    ],
    [
      'a prompt',
      () =>
        unseen('prompt.answered', [
          { unit: router, prompt: 'mail', answer: 'yes', by: 'customer' },
          { unit: router, prompt: 'mail', answer: 'no', by: 'customer' }
        ]),
      `prompt.${router}.mail`
    ],
    [
      'an item of a box',
      () =>
        unseen('items.checked', [
          { box, items: ['start card'], state: 'present' },
          { box, items: ['start card'], state: 'missing', done: 'ordered' }
        ]),
      `item.${box}.start card`
    ],
    [
      'a fact',
      () =>
        unseen('unit.set', [
          { id: node, set: { firmwareAfter: '3.0.0' } },
          { id: node, set: { firmwareAfter: '3.1.0' } }
        ]),
      `unit.${node}.firmwareAfter`
    ],
    [
      'a thing taken out that somebody else was writing on',
      () => {
        const log = complete()
        const base = lastOf(log)
        return log
          .write('thing.removed', { thing: 'unit', id: node }, { from: ours, base })
          .write('unit.set', { id: node, set: { place: 'loft' } }, { from: theirs, base, by: corin })
      },
      `unit.${node}.is-here`
    ]
  ])('%s: waits until somebody who has seen both says which', (_, make, key) => {
    for (const which of [0, 1]) {
      const log = make()
      const { record, history } = log.folded()
      const [conflict, ...others] = conflictsOf(history)
      expect([conflict?.key, others]).toEqual([key, []])
      const kept = conflict!.values[which]!.value
      const { kind, body } = settlementOf(record, conflict!, kept)!
      log.write(kind as EntryKind, body as never, { by: corin })
      expect(keys(log.folded())).toEqual([])
    }
  })

  it('of two passphrases: what reads it is unproven, however good both are, until one is typed in anew', () => {
    const log = complete()
    const base = lastOf(log)
    for (const from of [ours, theirs]) {
      log.secret('wifi-passphrase', 'network', network, { print: `print of ${from}` })
      Object.assign(log.entries.at(-1)!, { from, base })
    }
    expect(keys(log.folded())).toEqual([`secret.${network}.wifi-passphrase`])
    expect(log.judge('wifi-passphrase').map(({ outcome }) => outcome)).toEqual(['unproven'])
    expect(log.judge('cred-admin').map(({ outcome }) => outcome)).toEqual(['holds', 'holds'])
    log.secret('wifi-passphrase', 'network', network, { print: 'print of both' })
    expect(keys(log.folded())).toEqual([])
    expect(log.judge('wifi-passphrase').map(({ outcome }) => outcome)).toEqual(['holds'])
  })

  it('is none where both set the same, or one had seen the other', () => {
    expect(
      keys(
        unseen('choice.answered', [
          { choice: 'guest', answer: 'no' },
          { choice: 'guest', answer: 'no' }
        ]).folded()
      )
    ).toEqual([])
    const log = complete().write('choice.answered', { choice: 'guest', answer: 'no' }, { from: ours })
    expect(keys(log.write('choice.answered', { choice: 'guest', answer: 'yes' }, { from: theirs }).folded())).toEqual(
      []
    )
  })

  it('whoever settles two keeps neither of a third that came unseen', () => {
    const log = complete()
    const base = lastOf(log)
    for (const [from, place] of [
      [ours, 'study'],
      [theirs, 'loft']
    ] as const)
      log.write('unit.set', { id: node, set: { place } }, { from, base })
    const [conflict] = conflictsOf(log.folded().history)
    const seen = lastOf(log)
    const { body } = settlementOf(log.record(), conflict!, 'study')!
    log.write('unit.set', { id: node, set: { place: 'cellar' } }, { from: idOf('third'), base })
    log.write('conflict.settled', body as Body<'conflict.settled'>, { from: ours, base: seen })
    expect(conflictsOf(log.folded().history).map(({ values }) => values.map(({ value }) => value))).toEqual([
      ['cellar', 'study']
    ])
    expect(log.record().conflicts).toHaveLength(1)
  })
})

describe('who has set the same since', () => {
  const own = (log: Log) => log.entries.at(-1)!.id

  it('is nobody while it stands, and whoever wrote the same or on what was begun', () => {
    const log = complete().write('unit.set', { id: node, set: { name: 'Loft node' } }, { from: ours })
    const line = own(log)
    const others = () => othersSince(historyOf(log.entries), line).map(({ name }) => name)
    expect(others()).toEqual([])
    log.write('unit.set', { id: node, set: { place: 'loft' } }, { from: theirs, by: corin })
    expect(others()).toEqual([])
    log.write('unit.set', { id: node, set: { name: 'Garage node' } }, { from: theirs, by: corin })
    expect(others()).toEqual(['Corin Saltway'])
    const begun = complete().write('unit.set', { id: idOf('third'), set: { name: 'Third' } }, { from: ours })
    const first = own(begun)
    begun.write('unit.set', { id: idOf('third'), set: { place: 'loft' } }, { from: theirs, by: corin })
    expect(othersSince(historyOf(begun.entries), first)).toEqual([corin])
    expect(othersSince(historyOf(begun.entries), 'not here')).toEqual([])
  })
})

/** What two people write of a finished home, who do not see each other. */
const acts: readonly (readonly [EntryKind, unknown])[] = [
  ['unit.event', { unit: node, what: 'moved' }],
  ['unit.event', { unit: node, what: 'tested-good' }],
  ['unit.event', { unit: node, what: 'tested-bad' }],
  ['unit.event', { unit: router, what: 'reset' }],
  ['unit.set', { id: node, set: { place: 'loft' } }],
  ['unit.set', { id: node, set: { place: 'study' } }],
  ['unit.set', { id: node, set: { firmwareAfter: '3.0.0' } }],
  ['unit.set', { id: node, set: { firmwareAfter: '3.1.0' } }],
  ['rule.answered', { rule: 'addr-applied', answer: 'yes' }],
  ['rule.answered', { rule: 'addr-applied', answer: 'no' }],
  ['choice.answered', { choice: 'guest', answer: 'yes' }],
  ['choice.answered', { choice: 'guest', answer: 'no' }],
  ['thing.removed', { thing: 'unit', id: node }],
  ['prompt.answered', { unit: router, prompt: 'mail', answer: 'yes', by: 'customer' }],
  ['prompt.answered', { unit: router, prompt: 'mail', answer: 'no', by: 'customer' }]
]

describe('whichever of two outboxes arrives first', () => {
  it('the verdicts are the same, and so is what waits to be settled', () => {
    const some = fc.array(fc.nat(acts.length - 1), { maxLength: 4 })
    fc.assert(
      fc.property(some, some, fc.infiniteStream(fc.boolean()), (a, b, coins) => {
        const arrived = (order: Iterable<boolean>) => {
          const log = complete()
          const base = lastOf(log)
          const left = { [ours]: [...a], [theirs]: [...b] }
          const put = (from: string) => {
            const act = left[from]!.shift()
            if (act !== undefined) log.write(acts[act]![0], acts[act]![1] as never, { from, base })
          }
          const coin = order[Symbol.iterator]()
          while (left[ours]!.length + left[theirs]!.length > 0) put(coin.next().value ? ours : theirs)
          const folded = log.folded()
          const said = evaluate(folded, catalogue, firstStandard)
            .map(({ rule, subject, outcome }) => `${rule} ${subject?.id ?? ''} ${outcome}`)
            .sort()
          return [said, keys(folded).sort()]
        }
        const [first, last] = [a, b].map(({ length }) => length) as [number, number]
        const oursFirst = arrived([...Array<boolean>(first).fill(true), ...Array<boolean>(last).fill(false)])
        expect(arrived([...Array<boolean>(last).fill(false), ...Array<boolean>(first).fill(true)])).toEqual(oursFirst)
        expect(arrived(coins)).toEqual(oursFirst)
      }),
      { numRuns: 60 }
    )
  })
})
