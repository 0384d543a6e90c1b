import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { entryKinds, kindOf, type EntryKind } from '@pasado/core/record/entries/all'
import type { Draft, Placed } from '@pasado/core/record/entry'
import { draftProblems } from '@pasado/core/record/guard'
import { reduce } from '@pasado/core/record/reduce'
import { storedKinds, things } from '@pasado/core/record/things/all'
import { digestOf } from '@pasado/core/values/canonical'
import { catalogue, complete, idOf, opened } from '@pasado/testing/logbook'

const nothing = idOf('nothing-has-this-id')
const known = { model: (key: string) => catalogue.has(key), rule: (id: string) => id === 'kit-reset' }
const author = { id: idOf('isolde'), name: 'Isolde Marram', role: 'lead' } as const

/** A body of each kind that refers to something, all of whose references lead nowhere. */
const leadingNowhere: Partial<Record<EntryKind, Record<string, unknown>>> = {
  'thing.removed': { thing: 'unit', id: nothing },
  'thing.restored': { thing: 'room', id: nothing },
  'items.checked': { box: nothing, items: ['Cable'], state: 'present' },
  'photo.captioned': { ref: nothing, caption: 'The shelf' },
  'photo.removed': { ref: nothing },
  'photo.restored': { ref: nothing },
  'lamp.seen': { unit: nothing, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] },
  'unit.event': { unit: nothing, what: 'powered' },
  'slip.undone': { undoes: nothing, kind: 'unit.event', at: '2026-01-05T09:00:00Z', unit: nothing, what: 'reset' },
  'thing.stood': { thing: 'unit', id: nothing },
  'method.step': { unit: nothing, method: 'app', step: 0, seen: true },
  'pairing.pressed': { unit: nothing, which: 'first', on: nothing },
  'button.pressed': { unit: nothing, button: 'reset', seconds: 2 },
  'unit.read': { unit: nothing, values: {} },
  'prompt.answered': { unit: nothing, prompt: 'usage', answer: 'yes', by: 'customer' },
  'path.seen': { unit: nothing, server: nothing, network: nothing, address: '192.168.1.20' },
  'unit.transferred': { unit: nothing, from: idOf('another-home'), reason: 'It was brought from there.' },
  'check.cancelled': { id: nothing },
  'fault.search': { search: idOf('search'), about: { unit: nothing, room: nothing } },
  'secret.typed-in': { ref: nothing },
  'fault.observed': { search: nothing, observation: 'wired-test', answer: 'good' },
  'fault.found': { search: nothing, cause: 'backhaul-weak', end: 'mended', probability: 0.5 },
  'rule.answered': { rule: 'no-such-rule', subject: nothing, answer: 'yes' },
  'rule.acknowledged': { rule: 'no-such-rule', subject: nothing, reason: 'Seen.' },
  'waiver.granted': { rule: 'no-such-rule', subject: nothing, reason: 'Seen.' },
  'waiver.withdrawn': { rule: 'no-such-rule', subject: nothing },
  'conflict.settled': { thing: 'unit', id: nothing, field: 'name', keep: 'later' },
  'wait.started': { id: idOf('wait'), what: 'Boot', unit: nothing, usualMin: 1, mostMin: 2 },
  'wait.ended': { id: nothing }
}

const draft = (kind: EntryKind, body: unknown) =>
  ({
    id: idOf(`draft ${kind}`),
    visit: idOf('visit'),
    at: '2026-07-01T11:00:00+02:00',
    from: idOf('outbox'),
    base: 0,
    kind,
    body
  }) as unknown as Draft

const problemsOf = (kind: EntryKind, body: unknown) =>
  draftProblems([draft(kind, body)], { record: opened().record(), outboxes: new Map() }, author, known)

describe('an entry that refers to what is not there', () => {
  const referring = (Object.keys(entryKinds) as EntryKind[]).filter(
    (kind) => kindOf(kind).by !== 'server' && Object.keys(kindOf(kind).refersTo).length > 0
  )

  it('is tried of every kind that refers to something', () => {
    expect(Object.keys(leadingNowhere).sort()).toEqual([...referring].sort())
  })

  it.each(referring)('%s: is refused at each of its references, though its shape is right', (kind) => {
    const body = leadingNowhere[kind]!
    expect(kindOf(kind).body.safeParse(body).error?.issues ?? []).toEqual([])
    const fields = problemsOf(kind, body).map(({ path }) => path.slice(3).join('.'))
    expect(fields.sort()).toEqual(Object.keys(kindOf(kind).refersTo).sort())
  })

  it('is refused where a field of a thing names another one, whatever the kind of either', () => {
    for (const kind of storedKinds)
      for (const [field, named] of Object.entries<string>(things[kind].refersTo)) {
        const value = named === 'end' ? { thing: 'unit', id: nothing, port: 'lan1' } : nothing
        const [problem] = problemsOf(`${kind}.set`, { id: idOf('new'), set: { [field]: value } })
        expect([kind, field, problem?.path.slice(3)]).toEqual([kind, field, ['set', field]])
        expect(['end', 'equipment', ...storedKinds]).toContain(named)
      }
  })

  it('is taken where what it names comes in the same request, in whatever order', () => {
    const drafts = [
      draft('room.set', { id: idOf('loft'), set: { name: 'Loft', storey: idOf('top') } }),
      draft('storey.set', { id: idOf('top'), set: { name: 'Top' } })
    ]
    expect(draftProblems(drafts, { record: opened().record(), outboxes: new Map() }, author, known)).toEqual([])
    expect(
      draftProblems(drafts.slice(0, 1), { record: opened().record(), outboxes: new Map() }, author, known)
    ).toHaveLength(1)
  })

  it('what a complete visit refers to is there', () => {
    const record = complete().record()
    const [unit] = Object.keys(record.units)
    const drafts = [
      draft('unit.event', { unit, what: 'restarted' }),
      draft('waiver.withdrawn', { rule: 'kit-reset', subject: unit })
    ]
    expect(draftProblems(drafts, { record, outboxes: new Map() }, author, known)).toEqual([])
  })
})

describe('visits that were written before', () => {
  const file = join(import.meta.dirname, '../../testing/before-floors/demo-visits.json.gz')
  const visits = JSON.parse(gunzipSync(readFileSync(file)).toString('utf8')) as {
    id: string
    digest: string
    entries: Placed[]
  }[]

  it('are twenty-two, of nearly every kind of entry', () => {
    expect(visits).toHaveLength(22)
    expect(new Set(visits.flatMap(({ entries }) => entries.map(({ kind }) => kind))).size).toBeGreaterThan(35)
  })

  it.each(visits.map(({ id, digest, entries }) => [id, digest, entries] as const))(
    '%s: amounts to the same record to the last octet',
    (_, digest, entries) => {
      expect(digestOf(reduce(entries))).toBe(digest)
    }
  )
})
