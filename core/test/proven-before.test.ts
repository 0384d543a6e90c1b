import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { carriedEntries } from '@pasado/core/record/carry-over'
import type { VisitRecord } from '@pasado/core/record/record'
import { allRules } from '@pasado/core/rules/all'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { provenOf } from '@pasado/core/rules/proven-before'
import { catalogue, complete, idOf, Log, network, node, router, study } from '@pasado/testing/logbook'

const standard = nextDraft(firstStandard)
const device = idOf('printer')
const [march, may] = ['2026-03-02T16:00:00.000Z', '2026-05-04T16:00:00.000Z']

/** A visit with a telephone and a printer, in which all four are proven. */
const first = (): Log => {
  const log = complete()
    .write('brief.set', { set: { telephone: true } })
    .write('device.set', { id: device, set: { name: 'Printer', rejoined: true } })
  for (const subject of ['out', 'in']) log.write('rule.answered', { rule: 'prove-voice', subject, answer: 'yes' })
  return log
}

const sealed = (log: Log, at: string): VisitRecord => {
  const record = log.record()
  return { ...record, seal: { at } as NonNullable<VisitRecord['seal']> }
}

/** The visit that begins from another one, sealed on that day. */
function next(log: Log, at = march): Log {
  const record = sealed(log, at)
  const proven = provenOf(record, evaluate(log.folded(), catalogue, standard), allRules, standard.policy)
  const visit = new Log().write('visit.opened', {
    ...{ home: record.visit.home, customer: record.visit.customer, technician: record.visit.technician },
    standard: record.visit.standard,
    startedFrom: record.visit.id,
    brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow' }
  })
  for (const { kind, body } of carriedEntries(record, visit.record().brief.facts)) visit.write(kind, body as never)
  visit.secret('wifi-passphrase', 'network', network)
  return proven.length > 0 ? visit.write('proven.before', { visit: record.visit.id, proven }) : visit
}

/** The visit after the first one, as it begins. */
const begun = () => next(first())

const rules = ['prove-source', 'prove-rooms', 'prove-rejoined', 'prove-voice']
const said = (log: Log, rule: string): Finding[] =>
  evaluate(log.folded(), catalogue, standard).filter((finding) => finding.rule === rule)
const outcomes = (log: Log, rule: string) => said(log, rule).map(({ outcome }) => outcome)

describe('what was proven when the home was last left', () => {
  it('is not asked of the next visit, which tells when that was', () => {
    const log = begun()
    for (const rule of rules)
      expect(said(log, rule).map(({ outcome, evidence }) => [rule, outcome, evidence])).toEqual(
        said(first(), rule).map(() => [
          rule,
          'not-here',
          'It stood here before, last proven on 2026-03-02, and nothing that this rests on was changed since.'
        ])
      )
    const unasked = new Log()
    unasked.entries.push(...begun().entries.filter(({ kind }) => kind !== 'proven.before'))
    for (const rule of rules) expect([rule, new Set(outcomes(unasked, rule))]).toEqual([rule, new Set(['unproven'])])
  })

  it.each([
    ['prove-source', 'the router is reset', (log: Log) => log.write('unit.event', { unit: router, what: 'reset' })],
    ['prove-source', 'more is paid for', (log: Log) => log.write('brief.set', { set: { speedDownMbps: 1000 } })],
    ['prove-rooms', 'its node is moved', (log: Log) => log.write('unit.event', { unit: node, what: 'moved' })],
    ['prove-rooms', 'the router is updated', (log: Log) => log.write('unit.event', { unit: router, what: 'updated' })],
    [
      'prove-rooms',
      'the network gets another name',
      (log: Log) => log.write('network.set', { id: network, set: { ssid: 'Guillemot' } })
    ],
    [
      'prove-rooms',
      'somebody complains',
      (log: Log) => log.write('room.set', { id: study, set: { complained: true } })
    ],
    [
      'prove-rejoined',
      'another passphrase',
      (log: Log) => log.secret('wifi-passphrase', 'network', network, { print: 'b' })
    ],
    ['prove-voice', 'the router is reset', (log: Log) => log.write('unit.event', { unit: router, what: 'reset' })]
  ])('%s is asked anew where %s', (rule, _, change) => {
    const log = begun()
    change(log)
    expect(outcomes(log, rule)).toContain('unproven')
    expect(outcomes(log, rule)).not.toContain('not-here')
  })

  it('says what changed, and when it was proven', () => {
    const log = begun().write('unit.event', { unit: router, what: 'reset' })
    expect(said(log, 'prove-source')[0]!.evidence).toBe(
      'The source was not measured by cable. It was last proven on 2026-03-02. Hall router was reset since.'
    )
  })

  it('by other figures than the standard’s of today is asked anew', () => {
    const sharper = { ...standard, policy: { ...standard.policy, roomDbm: -60 } }
    const [room] = evaluate(begun().folded(), catalogue, sharper).filter(({ rule }) => rule === 'prove-rooms')
    expect([room!.outcome, room!.evidence]).toEqual([
      'unproven',
      expect.stringContaining('last proven on 2026-03-02. The standard wants other figures now.')
    ])
    const [source] = evaluate(begun().folded(), catalogue, sharper).filter(({ rule }) => rule === 'prove-source')
    expect(source!.outcome).toBe('not-here')
  })

  it('of the source is not taken over where it held only as the provider was told', () => {
    const told = first()
      .write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps: 20, idleMs: 9 }] } })
      .write('brief.set', { set: { providerReference: 'TT-1' } })
    expect(outcomes(told, 'prove-source')).toEqual(['holds'])
    expect(outcomes(next(told), 'prove-source')).toEqual(['unproven'])
  })

  it('through a unit that is not here any more is asked anew', () => {
    const log = new Log()
    for (const entry of begun().entries)
      log.entries.push(
        entry.kind === 'proven.before'
          ? {
              ...entry,
              body: { ...entry.body, proven: entry.body.proven.map((one) => ({ ...one, unit: idOf('gone') })) }
            }
          : entry
      )
    expect(outcomes(log, 'prove-rooms')).toEqual(['unproven'])
  })

  it('of what is looked at all the same is what was found', () => {
    const log = begun().write('measurement.set', {
      id: idOf('mst2'),
      set: { at: 'room', room: study, unit: node, band: '5', dbm: -80, runs: [{ downMbps: 20, idleMs: 14 }] }
    })
    expect(outcomes(log, 'prove-rooms')).toEqual(['breaks'])
    expect(outcomes(log.write('device.set', { id: device, set: { rejoined: false } }), 'prove-rejoined')).toEqual([
      'breaks'
    ])
  })

  it('through one unit is not asked anew for another that it does not go through', () => {
    const beside = idOf('garden')
    const log = begun().write('unit.set', {
      id: beside,
      set: { name: 'Garden', model: 'quillet-reed', role: 'extender' }
    })
    expect(outcomes(log, 'prove-rooms')).toEqual(['not-here'])
    // A room that nobody says the way of may go through any.
    const unsaid = first()
      .write('thing.removed', { thing: 'measurement', id: idOf('mst') })
      .write('measurement.set', {
        id: idOf('mst3'),
        set: { at: 'room', room: study, band: '5', dbm: -58, runs: [{ downMbps: 210, idleMs: 14 }], how: 'typed' }
      })
    expect(outcomes(next(unsaid), 'prove-rooms')).toEqual(['not-here'])
    expect(
      outcomes(
        next(unsaid).write('unit.set', {
          id: beside,
          set: { name: 'Garden', model: 'quillet-reed', role: 'extender' }
        }),
        'prove-rooms'
      )
    ).toEqual(['unproven'])
  })

  it('is never taken for proven again by whatever is done after it changed', () => {
    const name = (ssid: string) => (log: Log) => log.write('network.set', { id: network, set: { ssid } })
    const event = (unit: string, what: 'reset' | 'moved' | 'updated' | 'restarted' | 'tested-good') => (log: Log) =>
      log.write('unit.event', { unit, what })
    const room = begun().record().rooms![study]!
    const done: readonly ((log: Log) => Log)[] = [
      name('Guillemot'),
      name('Razorbill'),
      ...[router, node].flatMap((unit) => [
        event(unit, 'reset'),
        event(unit, 'moved'),
        event(unit, 'updated'),
        event(unit, 'restarted'),
        event(unit, 'tested-good')
      ]),
      (log) => log.write('brief.set', { set: { speedDownMbps: 500 } }),
      (log) => log.write('brief.set', { set: { speedDownMbps: 300 } }),
      (log) => log.secret('wifi-passphrase', 'network', network, { print: 'b' }),
      (log) => log.secret('wifi-passphrase', 'network', network),
      (log) => log.write('thing.removed', { thing: 'unit', id: node }),
      (log) => log.write('thing.restored', { thing: 'unit', id: node }),
      (log) => log.write('room.set', { id: study, set: { name: room.facts.name ?? 'Study' } }),
      (log) => log.write('note.written', { text: 'Rain.' })
    ]
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...done), { minLength: 1, maxLength: 6 }), (changes) => {
        const log = begun()
        const asked = new Set<string>()
        for (const change of changes) {
          change(log)
          for (const rule of rules)
            for (const { outcome, subject } of said(log, rule)) {
              const key = `${rule} ${subject?.id ?? ''}`
              if (outcome === 'not-here') expect([...asked]).not.toContain(key)
              else asked.add(key)
            }
        }
      }),
      { numRuns: 60 }
    )
  })

  it('keeps its day from visit to visit, and what was not proven is never taken over', () => {
    const later = next(begun(), may)
    expect(said(later, 'prove-source')[0]!.evidence).toContain('last proven on 2026-03-02')
    const changed = next(begun().write('unit.event', { unit: router, what: 'reset' }), may)
    expect(changed.record().provenBefore?.proven.map(({ rule }) => rule) ?? []).not.toContain('prove-source')
    expect(outcomes(changed, 'prove-source')).toEqual(['unproven'])
    const waived = first()
      .write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps: 20, idleMs: 9 }] } })
      .write('waiver.granted', { rule: 'prove-source', reason: 'The provider comes on Monday.' })
    expect(outcomes(waived, 'prove-source')).toEqual(['waived'])
    expect(outcomes(next(waived), 'prove-source')).toEqual(['unproven'])
  })
})
