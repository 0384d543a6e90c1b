import { describe, expect, it } from 'vitest'
import { apply } from '@pasado/core/record/reduce'
import type { Placed } from '@pasado/core/record/entry'
import type { EntryKind } from '@pasado/core/record/entries/all'
import type { VisitRecord } from '@pasado/core/record/record'
import { inverseOf } from '@pasado/core/record/inverse'
import { complete, idOf, network, node, someone } from '@pasado/testing/logbook'

const after = (record: VisitRecord, kind: EntryKind, body: unknown) =>
  apply(record, {
    id: idOf('x'),
    visit: idOf('visit'),
    at: '2026-01-05T12:00:00Z',
    from: idOf('device'),
    base: record.lastSeq,
    kind,
    body,
    by: someone,
    seq: record.lastSeq + 1,
    received: '2026-01-05T12:00:00Z'
  } as Placed)

const plain = (record: VisitRecord) => ({
  brief: record.brief.facts,
  choices: Object.keys(record.choices),
  waivers: Object.keys(record.waivers),
  things: [record.units, record.networks, record.hosts].map((table) =>
    Object.values(table as Record<string, { id: string; facts: unknown; removedSeq: number | null }>)
      .filter(({ removedSeq }) => removedSeq === null)
      .map(({ id, facts }) => [id, facts])
  )
})

describe('undo', () => {
  it.each<[EntryKind, unknown]>([
    ['brief.set', { set: { phone: '555-0188', speedUpMbps: 40 } }],
    ['unit.set', { id: node, set: { place: 'attic', heightM: null } }],
    ['unit.set', { id: idOf('new'), set: { name: 'New' } }],
    ['network.set', { id: network, set: { bands: ['5'], hidden: true } }],
    ['thing.removed', { thing: 'host', id: idOf('hn') }],
    ['waiver.granted', { rule: 'firm-minimum', reason: 'Later.' }]
  ])('%s is taken back by its opposite', (kind, body) => {
    const record = complete().record()
    const inverse = inverseOf(kind, body, record)!
    const changed = after(record, kind, body)
    expect(plain(changed)).not.toEqual(plain(record))
    expect(plain(after(changed, inverse.kind, inverse.body))).toEqual(plain(record))
  })

  it('what was seen cannot be taken back', () => {
    expect(inverseOf('lamp.seen', { unit: node, lamps: [] }, complete().record())).toBeNull()
  })
})
