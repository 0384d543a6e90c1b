import { describe, expect, it } from 'vitest'
import { historyOf, type History } from '@pasado/core/history/history'
import { slipProblem, takenBackBy, undoingOf, whyNoSlip } from '@pasado/core/history/slips'
import { whyNotStanding } from '@pasado/core/history/stands'
import { slipsTold } from '@pasado/core/documents/slip-words'
import type { Draft } from '@pasado/core/record/entry'
import type { EntryKind } from '@pasado/core/record/entries/all'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, home, idOf, network, node, someone, type Log } from '@pasado/testing/logbook'
import { changes } from './stale-cases'

const standard = nextDraft(firstStandard)
const judged = (log: Log): Finding[] => evaluate(log.folded(), catalogue, standard)
const outcomeOf = (log: Log, rule: string) => [
  ...new Set(
    judged(log)
      .filter((finding) => finding.rule === rule)
      .map(({ outcome }) => outcome)
  )
]
const historyNow = (log: Log): History => historyOf(log.entries)

/** Takes the last line back as never so, as its author does. */
function takeBack(log: Log, more: object = {}): Log {
  for (const { kind, body } of undoingOf(historyNow(log), log.entries.at(-1)!)!)
    log.write(kind as EntryKind, body as never, more)
  return log
}
const press = (log: Log, what: 'reset' | 'moved' | 'tested-bad' = 'reset', more: object = {}) =>
  log.write('unit.event', { unit: node, what }, more)

describe('what was never so', () => {
  // What may have been typed in wants these proofs again.
  const typedIn = new Set(['prove-path', 'prove-rejoined'])
  const tried = changes.flatMap(([rule, from, breaking]) =>
    breaking.flatMap((act, at) => {
      const log = from()
      const before = log.entries.length
      act(log)
      const { kind } = log.entries.at(-1)!
      const isOne = log.entries.length === before + 1 && kind !== 'secret.kept'
      return isOne ? [{ name: `${rule}, ${kind} (${at + 1})`, rule, from, act, kind }] : []
    })
  )

  it('is tried with presses and values of many kinds', () => {
    expect(new Set(tried.map(({ kind }) => kind))).toEqual(
      new Set([
        'unit.event',
        'unit.set',
        'network.set',
        'segment.set',
        'pool.set',
        'host.set',
        'measurement.set',
        'brief.set'
      ])
    )
  })

  it.each(tried)('undoes no proof: $name', ({ rule, from, act, kind }) => {
    const log = from()
    act(log)
    expect(outcomeOf(log, rule)).toContain('unproven')
    takeBack(log)
    const isTypedIn = ['network.set', 'segment.set', 'pool.set'].includes(kind)
    expect(outcomeOf(log, rule)).toContain(isTypedIn && typedIn.has(rule) ? 'unproven' : 'holds')
    const others = (findings: Finding[]) => findings.filter((finding) => !isTypedIn || !typedIn.has(finding.rule))
    expect(others(judged(log))).toEqual(others(judged(from())))
  })

  it('and put right by another value is a change to that value all the same', () => {
    const log = complete().write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    const [, taken] = undoingOf(historyNow(log), log.entries.at(-1)!)!
    log.write('network.set', { id: network, set: { ssid: 'Great Skua' } })
    log.write('slip.undone', taken!.body as never)
    expect(outcomeOf(log, 'prove-rooms')).toEqual(['unproven'])
  })

  it('and was not put back stands, and is a change like any other; the server takes no such line', () => {
    const log = complete().write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    const [, taken] = undoingOf(historyNow(log), log.entries.at(-1)!)!
    const draft = { ...log.entries.at(-1)!, id: idOf('undo'), kind: 'slip.undone', body: taken!.body }
    expect(slipProblem(historyNow(log), draft as never, someone)?.message).toContain('still stands as it was set')
    log.write('slip.undone', taken!.body as never)
    expect(log.record().networks[network]!.facts.ssid).toBe('Guillemot')
    for (const rule of ['prove-rooms', 'prove-path', 'addr-applied']) expect(outcomeOf(log, rule)).toEqual(['unproven'])
  })

  it('by a press alone is still a change: only who says that it was never so undoes it', () => {
    const log = complete().write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    log.write('network.set', { id: network, set: { ssid: 'Razorbill' } })
    expect(outcomeOf(log, 'prove-rooms')).toEqual(['unproven'])
  })

  it('proves nothing: a reset that was taken back is no reset', () => {
    const used = () => complete().write('unit.set', { id: node, set: { used: true } })
    const log = press(used())
    expect(log.record().units[node]!.events.at(-1)!.what).toBe('reset')
    takeBack(log)
    expect(log.record().units[node]!.events).toEqual(used().record().units[node]!.events)
    expect(outcomeOf(log, 'kit-reset')).toEqual(outcomeOf(used(), 'kit-reset'))
    expect(outcomeOf(log, 'kit-reset')).not.toContain('holds')
  })

  it('takes the very press, not another of the same unit', () => {
    const log = press(press(complete()), 'moved')
    const first = log.entries.at(-2)!
    for (const { kind, body } of undoingOf(historyNow(log), first)!) log.write(kind as EntryKind, body as never)
    expect(log.record().units[node]!.events.map(({ what }) => what)).toEqual(['tested-good', 'moved'])
  })

  it('of lamps is a look that nobody took', () => {
    const log = complete().write('lamp.seen', {
      unit: node,
      lamps: [{ lamp: 'status', colour: 'red', pattern: 'solid' }]
    })
    expect(outcomeOf(log, 'start-good-lamp')).toContain('unproven')
    expect(outcomeOf(takeBack(log), 'start-good-lamp')).toEqual(['holds'])
  })

  it('is told to whoever approves, and stays in the logbook', () => {
    const log = takeBack(press(complete()))
    expect(slipsTold(log.record(), (iso) => iso.slice(11, 16))).toEqual([
      'Study node: reset, written 09:51; taken back by Isolde Marram, 09:52.'
    ])
    expect(log.entries.slice(-2).map(({ kind }) => kind)).toEqual(['unit.event', 'slip.undone'])
  })
})

describe('what rests on it', () => {
  const theirs = idOf('theirs')

  it('unknown to whoever takes it back keeps it a change for what came before', () => {
    const log = press(complete())
    const reset = log.entries.length
    // Somebody else saw the reset and tested anew, while its author took it back without knowing.
    log.write('unit.event', { unit: node, what: 'tested-good' }, { from: theirs, base: reset })
    takeBackLine(log, reset, { base: reset })
    const path = log.entries.find(({ kind }) => kind === 'path.seen')!.seq
    const rests = [{ unit: node, without: ['reset'] as const, name: 'it' }]
    expect(whyNotStanding(historyNow(log), path, rests)).toBe('It was reset since.')
    expect(outcomeOf(log, 'prove-path')).toEqual(['unproven'])
  })

  it('and known to them leaves it taken back', () => {
    const log = press(complete())
    const reset = log.entries.length
    log.write('unit.event', { unit: node, what: 'tested-good' }, { from: theirs, base: reset })
    takeBackLine(log, reset, {})
    expect(outcomeOf(log, 'prove-path')).toEqual(['holds'])
  })

  it('whichever of the two the server had first', () => {
    const log = press(complete())
    const reset = log.entries.length
    takeBackLine(log, reset, { base: reset })
    log.write('unit.event', { unit: node, what: 'tested-good' }, { from: theirs, base: reset })
    expect(outcomeOf(log, 'prove-path')).toEqual(['unproven'])
  })

  it('a proof that had seen the wrong value rests on that', () => {
    const log = complete().write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    const named = log.entries.length
    const { id, set } = { id: idOf('mst'), set: { dbm: -57, runs: [{ downMbps: 200, upMbps: 40, idleMs: 15 }] } }
    log.write('measurement.set', { id, set })
    takeBackLine(log, named, {})
    expect(outcomeOf(log, 'prove-rooms')).toEqual(['unproven'])
  })

  function takeBackLine(log: Log, seq: number, more: object): void {
    for (const { kind, body } of undoingOf(historyNow(log), log.entries[seq - 1]!)!)
      log.write(kind as EntryKind, body as never, more)
  }
})

describe('who may', () => {
  const stranger = { ...someone, id: idOf('stranger') }
  const draftOf = (log: Log, more: object = {}): Draft<'slip.undone'> => {
    const [{ kind, body }] = undoingOf(historyNow(log), log.entries.at(-1)!)! as [{ kind: 'slip.undone'; body: object }]
    return { ...log.entries.at(-1)!, id: idOf('undo'), kind, body: { ...body, ...more } } as never
  }

  it('only whoever wrote it, once, and not what the server wrote', () => {
    const log = press(complete())
    const { id } = log.entries.at(-1)!
    expect(whyNoSlip(historyNow(log), id, someone)).toBeNull()
    expect(whyNoSlip(historyNow(log), id, stranger)).toContain('only whoever wrote it')
    expect(whyNoSlip(historyNow(log), idOf('nothing'), someone)).toContain('no such entry')
    expect(whyNoSlip(historyNow(log), log.entries[0]!.id, someone)).toContain('is of a kind')
    expect(whyNoSlip(historyNow(takeBack(log)), id, someone)).toBe('was taken back before')
  })

  it('nobody what the customer has signed for', () => {
    const log = press(complete())
    const { id } = log.entries.at(-1)!
    log.write('signature.given', { who: 'customer', name: 'C', strokes: 'M1 1 L2 2', digest: 'a'.repeat(64) })
    expect(whyNoSlip(historyNow(log), id, someone)).toContain('signed for by the customer')
    expect(takenBackBy(historyNow(log), someone).size).toBe(0)
    press(log)
    expect([...takenBackBy(historyNow(log), someone)]).toEqual([log.entries.at(-1)!.id])
  })

  it('what only technicians signed, or the customer before it, is taken back all the same', () => {
    const sign = (log: Log, who: 'customer' | 'technician') =>
      log.write('signature.given', { who, name: 'C', strokes: 'M1 1 L2 2', digest: 'a'.repeat(64) })
    const before = press(sign(complete(), 'customer'))
    expect(whyNoSlip(historyNow(before), before.entries.at(-1)!.id, someone)).toBeNull()
    const technicians = press(complete())
    const { id } = technicians.entries.at(-1)!
    expect(whyNoSlip(historyNow(sign(technicians, 'technician')), id, someone)).toBeNull()
  })

  it.each([
    ['a note', (log: Log) => log.write('note.written', { text: 'The loft hatch sticks.' })],
    [
      'what somebody was seen with',
      (log: Log) => log.write('path.seen', { unit: node, before: 0, after: 1, address: '192.168.1.104' })
    ],
    ['a secret', (log: Log) => log.secret('admin-password', 'unit', node, { print: 'other' })],
    ['a waiver', (log: Log) => log.write('waiver.granted', { rule: 'place-height', reason: 'Agreed.' })]
  ] as const)('%s is not taken back as never so', (_, write) => {
    const log = write(complete())
    const { id } = log.entries.at(-1)!
    expect(whyNoSlip(historyNow(log), id, someone)).toContain('is of a kind')
    expect(takenBackBy(historyNow(log), someone).has(id)).toBe(false)
  })

  it('of several values one of which was set since nothing is offered', () => {
    const log = complete().write('unit.set', { id: node, set: { place: 'loft', heightM: 1.5 } })
    const { id } = log.entries.at(-1)!
    expect(takenBackBy(historyNow(log), someone).has(id)).toBe(true)
    log.write('unit.set', { id: node, set: { heightM: 1.6 } })
    expect(takenBackBy(historyNow(log), someone).has(id)).toBe(false)
  })

  it('only what stands as it was set is offered to be taken back', () => {
    const log = complete().write('segment.set', { id: home, set: { cidr: '10.0.0.0/24' } })
    const first = log.entries.at(-1)!
    log.write('segment.set', { id: home, set: { cidr: '10.0.1.0/24' } })
    expect(takenBackBy(historyNow(log), someone).has(first.id)).toBe(false)
    expect(undoingOf(historyNow(log), first)).toBeNull()
  })

  it('a draft that says otherwise than the entry that it takes back is refused', () => {
    const log = press(complete())
    const history = historyNow(log)
    expect(slipProblem(history, draftOf(log), someone)).toBeNull()
    expect(slipProblem(history, draftOf(log, { what: 'tested-good' }), someone)?.field).toEqual(['what'])
    expect(slipProblem(history, draftOf(log, { unit: home }), someone)?.field).toEqual(['unit'])
    expect(slipProblem(history, draftOf(log, { at: '2026-01-05T08:00:00Z' }), someone)?.field).toEqual(['at'])
    expect(slipProblem(history, draftOf(log, { undoes: idOf('e1') }), someone)?.field).toEqual(['undoes'])
  })

  it('another’s taking back, however it came in, counts for nothing', () => {
    const log = press(complete())
    const draft = draftOf(log)
    log.write('slip.undone', draft.body, { by: stranger })
    expect(outcomeOf(log, 'prove-path')).toEqual(['unproven'])
  })
})
