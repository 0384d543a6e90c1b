import { describe, expect, it } from 'vitest'
import { auditRecord } from '@pasado/core/work/addresses/home-audit'
import { placeStates } from '@pasado/core/catalogue/state-graph'
import { lookWords, sightingWords } from '@pasado/core/catalogue/look'
import { readLamps } from '@pasado/core/work/units/unit-lamps'
import { summarise } from '@pasado/core/documents/visit-summary'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { demoModels } from '@pasado/demo/models/all'

import { catalogue, complete, home, idOf, node, opened, router, type Log } from '@pasado/testing/logbook'

const modelOf = (id: string) => demoModels.find((model) => model.id === id)!

/** A unit of a model whose lamps were seen in these states, a minute apart. */
function seen(model: string, states: string[], more: (log: Log) => unknown = () => 0) {
  const known = modelOf(model)
  const log = opened().write('unit.set', { id: node, set: { model, modelVersion: 1 } })
  for (const state of states)
    log.write('lamp.seen', { unit: node, lamps: known.states.find((row) => row.state === state)!.lamps })
  more(log)
  return readLamps(log.record().units[node]!, known)
}

describe('a unit’s lamps by its model’s table', () => {
  it('a start-up is followed to its good end', () => {
    const reading = seen('fenmarrow-lattice-3', ['powered', 'ready', 'pairing', 'well'])
    expect([reading.state?.state, reading.impossible]).toEqual(['well', 0])
  })

  it('blue means ready on one model and weak on another', () => {
    expect(seen('fenmarrow-lattice-3', ['powered', 'ready']).state?.meaning).toBe('ready to pair')
    expect(seen('quillet-reed', ['starting', 'ready', 'joining', 'weak']).state?.meaning).toBe('joined, weak signal')
  })

  it('white means well on one model and only powered on another', () => {
    expect(seen('brackwater-c3', ['starting', 'seeking', 'well']).state?.good).toBe(true)
    expect(seen('fenmarrow-lattice-3', ['powered']).state?.good).toBe(false)
  })

  it('a restart begins the table anew: what was seen before it counts no more', () => {
    const strange = { unit: node, lamps: [{ lamp: 'status', colour: 'purple', pattern: 'solid' as const }] }
    const before = seen('fenmarrow-lattice-3', ['powered', 'ready', 'pairing', 'well'], (log) =>
      log.write('lamp.seen', strange)
    )
    expect([before.lastImpossible, before.impossible, before.state?.state]).toEqual([true, 1, 'well'])
    const after = seen('fenmarrow-lattice-3', ['powered', 'ready', 'pairing', 'well'], (log) => {
      log.write('lamp.seen', strange).write('unit.event', { unit: node, what: 'restarted' })
      log.write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
    })
    expect([after.lastImpossible, after.impossible, after.state?.state]).toEqual([false, 0, 'powered'])
  })

  it('says since when a state has lasted, and that it lasted too long', () => {
    const amber = (log: Log, at: string) =>
      log.write(
        'lamp.seen',
        { unit: node, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'solid' }] },
        {
          at
        }
      )
    const log = opened().write('unit.set', { id: node, set: { model: 'ostrel-heron', modelVersion: 1 } })
    for (const at of ['2026-01-05T09:00:00Z', '2026-01-05T09:03:00Z', '2026-01-05T09:20:00Z']) amber(log, at)
    const reading = readLamps(log.record().units[node]!, modelOf('ostrel-heron'))
    expect([reading.since, reading.lastSeen, reading.overdue]).toEqual([
      '2026-01-05T09:00:00Z',
      '2026-01-05T09:20:00Z',
      true
    ])
  })

  it('a clock set back a day between two sightings neither stops the reading nor makes a state overdue', () => {
    const log = opened().write('unit.set', { id: node, set: { model: 'ostrel-heron', modelVersion: 1 } })
    for (const at of ['2026-01-05T09:00:00Z', '2026-01-04T09:01:00Z'])
      log.write(
        'lamp.seen',
        { unit: node, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'solid' }] },
        {
          at
        }
      )
    const reading = readLamps(log.record().units[node]!, modelOf('ostrel-heron'))
    expect([reading.state?.state, reading.overdue, reading.impossible]).toEqual(['starting', false, 0])
  })

  it('one lamp of several may leave several states open', () => {
    const log = opened()
      .write('unit.set', { id: node, set: { model: 'brackwater-l2', modelVersion: 1 } })
      .write('lamp.seen', { unit: node, lamps: [{ lamp: 'power', colour: 'green', pattern: 'solid' }] })
    const reading = readLamps(log.record().units[node]!, modelOf('brackwater-l2'))
    expect(reading.state).toBeNull()
    expect(reading.candidates.map(({ state }) => state)).toEqual(['seeking', 'training', 'trained', 'well', 'refused'])
  })

  it('looks are told in words', () => {
    expect([
      lookWords({ colour: 'blue', pattern: 'pulse' }),
      lookWords({ colour: 'red', pattern: 'off' }),
      lookWords({ colour: 'orange/green', pattern: 'alternate' })
    ]).toEqual(['blue, slow pulse', 'dark', 'orange and green, in turn'])
    expect(
      sightingWords(
        [
          { lamp: 'power', colour: 'green', pattern: 'solid' },
          { lamp: 'line', colour: 'off', pattern: 'off' }
        ],
        true
      )
    ).toBe('power green, steady; line dark')
  })
})

describe('the audit of a home', () => {
  const auditOf = (log: Log) => {
    const record = log.record()
    return auditRecord(record, 'outside')
  }

  it('the router is right at its own gateway’s address, whoever serves addresses; nothing else is', () => {
    const at = (change: (log: Log) => unknown) => {
      const log = complete()
      change(log)
      return auditOf(log)
        .ofHost.get(idOf('hr'))!
        .map(({ code }) => code)
    }
    expect(at((log) => log.write('pool.set', { id: idOf('pool'), set: { unit: null } }))).toEqual([])
    expect(at((log) => log.write('pool.set', { id: idOf('pool'), set: { unit: node } }))).toEqual([])
    expect(at((log) => log.write('thing.removed', { thing: 'pool', id: idOf('pool') }))).toEqual([])
    const others = complete()
      .write('thing.removed', { thing: 'pool', id: idOf('pool') })
      .write('host.set', { id: idOf('hn'), set: { address: '192.168.1.1' } })
    expect(
      auditOf(others)
        .ofHost.get(idOf('hn'))!
        .map(({ code }) => code)
    ).toEqual(['gateway-clash'])
  })

  it('speaks of units and segments by their names', () => {
    const { findings } = auditOf(complete().write('host.set', { id: idOf('hn'), set: { address: '192.168.1.150' } }))
    expect(findings).toMatchObject([{ code: 'inside-pool', subject: 'Study node' }])
  })

  it('tells devices of one name apart', () => {
    const log = complete()
    for (const [name, address] of [
      ['p1', '192.168.1.30'],
      ['p2', '192.168.1.30']
    ] as const)
      log.write('host.set', { id: idOf(name), set: { name: 'Printer', segment: home, address } })
    expect(auditOf(log).ofHost.get(idOf('p2'))).toMatchObject([{ code: 'duplicate-address', subject: 'Printer (2)' }])
  })

  it('leaves out what is not recorded yet, and things taken away', () => {
    const log = complete()
      .write('segment.set', { id: idOf('s2'), set: { name: 'Guests' } })
      .write('host.set', { id: idOf('lost'), set: { name: 'Lost', address: '1.2.3.4' } })
      .write('thing.removed', { thing: 'host', id: idOf('hn') })
    const audit = auditOf(log)
    expect([audit.findings, audit.ofSegment.has(idOf('s2')), audit.ofHost.has(idOf('lost'))]).toEqual([
      [],
      false,
      false
    ])
  })

  it('suggests an address for each segment', () =>
    expect(auditOf(complete()).suggestionFor.get(home)).toBe('192.168.1.254'))

  it('translations in a circle are left out rather than a crash', () => {
    const log = complete()
      .write('segment.set', { id: idOf('s2'), set: { name: 'Guests', cidr: '192.168.2.0/24', behind: home } })
      .write('segment.set', { id: home, set: { behind: idOf('s2') } })
    expect(() => auditOf(log)).not.toThrow()
  })
})

describe('summing up', () => {
  it('a visit’s summary counts what blocks and names the heaviest', () => {
    const log = complete().write('unit.set', { id: router, set: { firmwareAfter: '2.8.1' } })
    const record = log.record()
    const findings = evaluate(log.folded(), catalogue, firstStandard)
    const summary = summarise(record, findings)
    expect(summary).toMatchObject({
      units: 2,
      stages: { brief: 'holds', kit: 'holds', configure: 'breaks', prove: 'unproven' }
    })
    expect(summary.heaviest.find(({ rule }) => rule === 'firm-minimum')).toMatchObject({
      rule: 'firm-minimum',
      text: 'Hall router: 2.8.1 is below the approved minimum 3.0.2.'
    })
  })

  it('states are laid out by how many moves they are from the start', () => {
    const placed = new Map(placeStates(modelOf('brackwater-l2')).map(({ state, layer }) => [state, layer]))
    expect([
      placed.get('unpowered'),
      placed.get('self-test'),
      placed.get('seeking'),
      placed.get('trained'),
      placed.get('well'),
      placed.get('refused')
    ]).toEqual([0, 1, 2, 4, 5, 5])
    expect(
      placeStates({ states: modelOf('karstine-sill').states, moves: [], start: 'unpowered' }).filter(
        ({ layer }) => layer === 1
      )
    ).toHaveLength(4)
  })
})
