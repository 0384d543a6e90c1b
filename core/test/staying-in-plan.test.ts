import { describe, expect, it } from 'vitest'
import { channelQuestion, homeRadios } from '@pasado/core/work/channels/home-channels'
import { planOf } from '@pasado/core/work/plan/home-plan'
import { placedStays, stayingRoot } from '@pasado/core/work/plan/placed'
import { catalogue, idOf, opened, type Log } from '@pasado/testing/logbook'

const [ground, theirs, tern] = [idOf('ground'), idOf('theirs'), idOf('tern')]
const heron = { model: 'ostrel-heron', modelVersion: 1 }
/** A node that is added to a mesh: a home of two rooms, their router in the one and the node in the other. */
const added = (stays: Record<string, unknown> = heron) =>
  opened()
    .write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
    .write('room.set', { id: idOf('r1'), set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 5, depthM: 4 } })
    .write('room.set', { id: idOf('r2'), set: { name: 'Study', storey: ground, x: 5, y: 0, widthM: 5, depthM: 4 } })
    .write('stays.set', { id: theirs, set: { kind: 'router', name: 'Their router', ...stays } })
    .write('unit.set', {
      id: tern,
      set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, role: 'node', storey: ground, x: 9, y: 2 }
    })
const drawn = (log: Log, x = 1) => log.write('stays.set', { id: theirs, set: { storey: ground, x, y: 2 } })
const saidOf = (log: Log, rule: string) => log.judge(rule).map(({ outcome, evidence }) => `${outcome}: ${evidence}`)

describe('what stays, in the plan', () => {
  it('is where it was put, at the height at which things mostly stand', () => {
    const { record } = drawn(added()).folded()
    expect(placedStays(record, planOf(record))).toMatchObject([
      { id: theirs, name: 'Their router', storey: ground, x: 1, y: 2, z: 1 }
    ])
    expect(placedStays(added().record(), planOf(added().record()))).toEqual([])
  })

  it('is what a node of the same mesh hangs on: its hop is reckoned, where nobody could say before', () => {
    expect(saidOf(added(), 'place-hops')[0]).toMatch(/^unproven/)
    expect(saidOf(drawn(added()), 'place-hops')).toEqual([
      expect.stringMatching(/^holds: 1 wireless hop, from Their router/)
    ])
    expect(saidOf(drawn(added()), 'place-spacing')).toEqual(['holds: 8.0 m from Their router.'])
  })

  it.each([
    ['of another mesh', { model: 'fenmarrow-lattice-3', modelVersion: 1 }],
    ['whose model nobody knows', { makeModel: 'Marlin 7' }],
    ['that makes no mesh', { model: 'quillet-reed', modelVersion: 1 }],
    ['that is no router and no node', { ...heron, kind: 'printer' }]
  ])('proves nothing of a node where it is one %s', (_, set) => {
    const log = drawn(added(set))
    for (const rule of ['place-hops', 'place-spacing']) expect(saidOf(log, rule)[0]).toMatch(/^unproven/)
  })

  it('that was moved after it was drawn proves nothing until it is drawn where it stands', () => {
    const log = drawn(added()).write('unit.event', { unit: theirs, what: 'moved' })
    for (const rule of ['place-hops', 'place-spacing']) expect(saidOf(log, rule)[0]).toMatch(/^unproven/)
    expect(saidOf(drawn(log, 2), 'place-hops')[0]).toMatch(/^holds/)
  })

  it('gives way to a router of ours, and is none once it was taken out', () => {
    const log = drawn(added())
    const root = () => stayingRoot(log.record(), planOf(log.record()))?.id ?? null
    expect(root()).toBe(theirs)
    log.write('unit.set', { id: idOf('own'), set: { ...heron, role: 'router' } })
    expect(root()).toBeNull()
    log.write('thing.removed', { thing: 'unit', id: idOf('own') })
    expect(root()).toBe(theirs)
    log.write('thing.removed', { thing: 'stays', id: theirs })
    expect(root()).toBeNull()
    expect(saidOf(log, 'place-hops')[0]).toMatch(/^unproven/)
  })

  it('is heard by ours as it stands: nearer louder, and as before where nobody drew it', () => {
    const heardOf = (log: Log) => {
      log.write('radio.set', { id: idOf('tr'), set: { unit: theirs, band: '5', channel: 36, widthMHz: 80 } })
      const record = log.record()
      return channelQuestion(record, catalogue, homeRadios(record, catalogue)).neighbours.map(({ dbm }) => dbm)
    }
    const [undrawn] = heardOf(added())
    const [near] = heardOf(drawn(added(), 8))
    const [far] = heardOf(drawn(added(), 1))
    expect(undrawn).toBe(-60)
    expect(near).toBeGreaterThan(far!)
    expect(near).toBeLessThan(0)
  })
})
