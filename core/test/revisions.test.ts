import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalJson } from '@pasado/core/values/canonical'
import { reduce } from '@pasado/core/record/reduce'
import { changesBetween } from '@pasado/core/documents/changes'
import type { Revision } from '@pasado/core/documents/change'
import { fieldWords, valueWords } from '@pasado/core/documents/field-words'
import { fold } from '@pasado/core/history/fold'
import { lineOf, moments, recordAt } from '@pasado/core/record/moments'
import { firstStandard } from '@pasado/core/rules/first-standard'
import {
  catalogue,
  complete,
  idOf,
  network,
  node,
  opened,
  router,
  someone,
  study,
  type Log
} from '@pasado/testing/logbook'

const revision = (log: Log): Revision => ({ ...log.folded(), catalogue, standard: firstStandard })
const thing = (changes: ReturnType<typeof changesBetween>, id: string) =>
  changes.things.find((candidate) => candidate.id === id)

describe('the moments of a visit', () => {
  const log = opened()
    .write('unit.set', { id: node, set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, place: 'study' } })
    .write('unit.set', { id: node, set: { serial: 'TE1-2', firmwareBefore: '2.8.1' } })
    .write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })
    .write('wait.started', { id: idOf('wait'), what: 'Boot', unit: node, usualMin: 1, mostMin: 3 })
    .write('unit.set', { id: node, set: { firmwareAfter: '3.1.0' } })

  it('as planned ends before anything is looked at, as found before anything is done, as left is all of it', () => {
    expect(moments.map((moment) => lineOf(log.entries, moment))).toEqual([2, 4, 6])
    expect(recordAt(log.entries, 'planned').units[node]!.facts.serial).toBeUndefined()
    expect(recordAt(log.entries, 'found').units[node]!.facts).toMatchObject({
      serial: 'TE1-2',
      firmwareBefore: '2.8.1'
    })
    expect(recordAt(log.entries, 'left')).toEqual(log.record())
  })

  it('what was taken over from the visit before is plan, though it names serials', () => {
    const taken = opened()
    taken.write(
      'unit.set',
      { id: node, set: { serial: 'TE1-2', firmwareBefore: '2.8.1' } },
      { received: taken.entries[0]!.received }
    )
    taken
      .write('brief.set', { set: { reason: 'fault' } })
      .write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'red', pattern: 'solid' }] })
    expect(lineOf(taken.entries, 'planned')).toBe(3)
  })

  it('moments never go back, and each is a beginning of the logbook', () => {
    const { entries } = complete()
    fc.assert(
      fc.property(fc.integer({ min: 1, max: entries.length }), (count) => {
        const some = entries.slice(0, count)
        const [planned, found, left] = moments.map((moment) => lineOf(some, moment)) as [number, number, number]
        expect(planned <= found && found <= left && left === count).toBe(true)
        expect(canonicalJson(recordAt(some, 'found'))).toBe(canonicalJson(reduce(some.slice(0, found))))
      })
    )
  })
})

describe('what changed', () => {
  it('nothing from a record to itself, whatever the record', () => {
    const { entries } = complete()
    fc.assert(
      fc.property(fc.integer({ min: 1, max: entries.length }), (count) => {
        const revision: Revision = { ...fold(entries.slice(0, count)), catalogue, standard: firstStandard }
        expect(changesBetween(revision, revision)).toEqual({ things: [], outcomes: [], rooms: [], notAgain: 0 })
      }),
      { numRuns: 30 }
    )
  })

  it('a field with who and when, and why: the rule that was broken by it', () => {
    const before = complete().write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
    const after = complete()
      .write('unit.set', { id: node, set: { firmwareAfter: '2.8.1' } })
      .write('unit.set', { id: node, set: { firmwareAfter: '3.1.0' } })
    const changes = changesBetween(revision(before), revision(after))
    const [change] = thing(changes, node)!.changes
    expect(change).toMatchObject({
      field: 'firmwareAfter',
      label: 'firmware',
      before: '2.8.1',
      after: '3.1.0',
      by: { name: someone.name }
    })
    expect(change!.why.join()).toMatch(/2\.8\.1/)
    expect(changes.outcomes).toContainEqual(
      expect.objectContaining({ rule: 'firm-minimum', subject: 'Study node', before: 'breaks', after: 'holds' })
    )
  })

  it('an update before that was not updated again is no change: what was left is what is found', () => {
    const before = complete()
    const later = opened().write('unit.set', {
      id: node,
      set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, firmwareBefore: '3.1.0' }
    })
    const found = changesBetween(revision(before), revision(later))
    expect(thing(found, node)!.changes.some(({ label }) => /firmware/.test(label))).toBe(false)
  })

  it('a unit that came, one that went with what was said of it, one that moved in the plan', () => {
    const storey = idOf('floor')
    const drawn = (log: Log, x: number) =>
      log
        .write('storey.set', { id: storey, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
        .write('unit.set', { id: router, set: { storey, x, y: 1 } })
    const before = drawn(complete(), 1)
    const extra = idOf('extra')
    const after = drawn(complete(), 4)
      .write('thing.removed', { thing: 'unit', id: node })
      .write('note.written', { text: 'Study node ran hot and was taken out' })
      .write('unit.set', { id: extra, set: { name: 'Loft node', model: 'ostrel-tern', modelVersion: 1 } })
    const found = changesBetween(revision(before), revision(after))
    expect(thing(found, node)).toMatchObject({
      is: 'gone',
      name: 'Study node',
      why: [`${someone.name}: Study node ran hot and was taken out`]
    })
    expect(thing(found, extra)).toMatchObject({ is: 'added', name: 'Loft node' })
    expect(thing(found, router)!.changes).toContainEqual(
      expect.objectContaining({ label: 'moved in the plan', after: 'Ground floor, 3 m away' })
    )
  })

  it('that a passphrase is another one is told, and nothing of either', () => {
    const after = complete().secret('wifi-passphrase', 'network', network, { print: 'other' })
    expect(thing(changesBetween(revision(complete()), revision(after)), network)!.changes).toEqual([
      expect.objectContaining({ label: 'passphrase', before: '••••••••', after: 'another one' })
    ])
  })

  it('what a later visit has not come to again is counted, not told as a change', () => {
    const later: Revision = {
      ...revision(complete()),
      record: {
        ...opened().record(),
        visit: { ...opened().record().visit, id: idOf('later') },
        units: complete().record().units,
        rooms: complete().record().rooms
      }
    }
    const found = changesBetween(revision(complete()), later)
    expect(found.rooms).toEqual([])
    expect(found.outcomes.every(({ after }) => after !== 'unproven')).toBe(true)
    expect(found.notAgain).toBeGreaterThan(5)
  })

  it('rooms by what was measured', () => {
    const after = complete().write('measurement.set', {
      id: idOf('mst'),
      set: { dbm: -71, runs: [{ downMbps: 40, upMbps: 9, idleMs: 20 }] }
    })
    expect(changesBetween(revision(complete()), revision(after)).rooms).toEqual([
      {
        name: 'Study',
        before: { dbm: -58, downMbps: 210, outcome: 'holds' },
        after: { dbm: -71, downMbps: 40, outcome: 'breaks' }
      }
    ])
    expect(study).toBeTruthy()
  })
})

it('fields and values in the words of the field, with units; what people typed as they typed it', () => {
  const { record } = revision(complete())
  const words = (kind: 'unit' | 'brief' | 'network' | 'cable', field: string, value: unknown) =>
    valueWords(record, catalogue, kind, field, value)
  expect([fieldWords('speedDownMbps'), fieldWords('ssid'), fieldWords('serial')]).toEqual([
    'paid for, down',
    'name (SSID)',
    'serial'
  ])
  expect(words('brief', 'speedDownMbps', 300)).toBe('300 Mbit/s')
  expect(words('unit', 'heightM', 1.2)).toBe('1.2 m')
  expect(words('unit', 'model', 'ostrel-tern')).toMatch(/^Ostrel /)
  expect(words('network', 'ssid', 'half-hitch')).toBe('half-hitch')
  expect(words('brief', 'accessLine', 'telephone-line')).toBe('telephone line')
  expect(words('cable', 'a', { thing: 'unit', id: router, port: 'internet' })).toBe('Hall router, internet')
  expect(words('network', 'extender', node)).toBe('Study node')
  expect(words('unit', 'wasReset', false)).toBe('no')
  expect(words('unit', 'serial', undefined)).toBeNull()
})
