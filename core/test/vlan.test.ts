import { describe, expect, it } from 'vitest'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { applyOrder } from '@pasado/core/work/configure/apply-order'
import { catalogue, complete, home, idOf, network, node, router, type Log } from '@pasado/testing/logbook'

const [ceiling, main, guests, guestNet] = [idOf('ceiling'), idOf('switch'), idOf('guests'), idOf('guestnet')]
const standard = nextDraft(firstStandard)
const end = (id: string, port: string) => ({ thing: 'unit', id, port }) as const

/** A router, a switch and a ceiling access point on cables, guests in VLAN 20. */
function cabled(upper: Record<string, unknown>, lower: Record<string, unknown>): Log {
  return complete()
    .write('unit.set', {
      id: main,
      set: { name: 'Comms switch', model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' }
    })
    .write('unit.set', {
      id: ceiling,
      set: { name: 'Ceiling point', model: 'tolvane-spindle', modelVersion: 1, role: 'access-point' }
    })
    .write('cable.set', {
      id: idOf('upper'),
      set: { a: end(router, 'lan-1'), b: end(main, 'lan-1'), kind: 'network', ...upper }
    })
    .write('cable.set', {
      id: idOf('lower'),
      set: { a: end(main, 'lan-2'), b: end(ceiling, 'lan'), kind: 'network', ...lower }
    })
    .write('segment.set', { id: guests, set: { name: 'Guests', use: 'guests', cidr: '192.168.20.0/24', vlan: 20 } })
    .write('pool.set', {
      id: idOf('gpool'),
      set: { segment: guests, unit: router, from: '192.168.20.100', to: '192.168.20.199' }
    })
    .write('network.set', {
      id: guestNet,
      set: { ssid: 'Razorbill guests', use: 'guest', bands: ['5'], security: 'wpa3', isolated: true, segment: guests }
    })
}
describe('in order', () => {
  const vlansOf = (log: Log) =>
    applyOrder(log.record(), catalogue).flatMap(({ name, kind, label }) =>
      kind === 'vlan' ? [`${name}: ${label}`] : []
    )

  it('the ports of each unit are listed with the VLANs that their cables carry, the far units first', () => {
    expect(vlansOf(cabled({ tagged: [20, 30], untagged: 10 }, { tagged: [20] }))).toEqual([
      'Ceiling point: VLANs: port Network and power: 20 tagged',
      'Comms switch: VLANs: port 1: 20 and 30 tagged, 10 untagged; port 2: 20 tagged',
      'Hall router: VLANs: port 1: 20 and 30 tagged, 10 untagged'
    ])
  })

  it('nothing is where no cable has a tagged one, or nobody said', () => {
    expect(vlansOf(cabled({ tagged: [] }, {}))).toEqual([])
  })
})

const said = (log: Log) => log.judge('wifi-segment', standard).find(({ subject }) => subject?.id === guestNet)!
const both = { tagged: [20] }

describe('a network in a VLAN', () => {
  it('lands in its segment where every cable on the way carries it, tagged or as its one untagged VLAN', () => {
    expect(said(cabled(both, both))).toMatchObject({ outcome: 'holds', evidence: 'It lands in Guests, VLAN 20.' })
    expect(said(cabled(both, { tagged: [], untagged: 20 })).outcome).toBe('holds')
  })

  it('breaks where a cable is recorded without it, which is named; whichever it is', () => {
    for (const [upper, lower, named] of [
      [both, { tagged: [] }, /Comms switch.*Ceiling point/],
      [{ tagged: [30], untagged: 30 }, both, /Hall router.*Comms switch/]
    ] as const) {
      const finding = said(cabled(upper, lower))
      expect(finding).toMatchObject({ outcome: 'breaks', place: { kind: 'cable', field: 'tagged' } })
      expect(finding.evidence).toMatch(named)
    }
  })

  it('is unproven where nobody said what a cable carries, and where none is recorded', () => {
    expect(said(cabled(both, {}))).toMatchObject({ outcome: 'unproven', place: { id: idOf('lower') } })
    const gone = cabled(both, both).write('thing.removed', { thing: 'cable', id: idOf('upper') })
    expect(said(gone)).toMatchObject({ outcome: 'unproven', place: { id: 'new', field: ceiling } })
  })

  it('comes by another way where one does not carry it', () => {
    const log = cabled(both, { tagged: [] }).write('cable.set', {
      id: idOf('second'),
      set: { a: end(ceiling, 'lan'), b: end(router, 'lan-2'), kind: 'network', ...both }
    })
    expect(said(log).outcome).toBe('holds')
  })

  it('of nodes that join over the air is carried by them; on a cable they go by what that carries', () => {
    expect(said(cabled(both, both)).outcome).toBe('holds')
    const onCable = cabled(both, both).write('cable.set', {
      id: idOf('third'),
      set: { a: end(node, 'lan'), b: end(main, 'lan-3'), kind: 'network' }
    })
    expect(said(onCable).outcome).toBe('unproven')
    expect(said(onCable).evidence).toMatch(/to Study node is not recorded/)
  })

  it('comes over several hops in the air, in whatever order they were recorded', () => {
    const far = idOf('far')
    const log = cabled(both, both)
    log.write('unit.set', { id: far, set: { name: 'Far node', model: 'ostrel-tern', modelVersion: 1, role: 'node' } })
    expect(said(log).outcome).toBe('holds')
  })

  it('is unproven where nothing that sends the network is recorded', () => {
    const log = cabled(both, both)
    for (const id of [router, node, ceiling]) log.write('thing.removed', { thing: 'unit', id })
    expect(said(log)).toMatchObject({ outcome: 'unproven', place: { kind: 'network' } })
    expect(said(log).evidence).toMatch(/Nothing that sends it/)
  })

  it('has one of its own: two segments with the same break', () => {
    const log = cabled(both, both).write('segment.set', { id: home, set: { vlan: 20 } })
    expect(said(log)).toMatchObject({ outcome: 'breaks', place: { kind: 'segment', field: 'vlan' } })
  })

  it('asks nothing where no segment has one', () => {
    const log = cabled({}, {}).write('segment.set', { id: guests, set: { vlan: null } })
    expect(said(log).outcome).toBe('holds')
  })

  it('is what somebody seen on a unit rests on: a cable that carries otherwise wants a new look', () => {
    const log = cabled(both, both)
    const path = () => log.judge('prove-path', standard).find(({ subject }) => subject?.id === node)!
    log.write('path.seen', { unit: node, before: 0, after: 1, address: '192.168.1.103', server: router, network })
    expect(path().outcome).toBe('holds')
    log.write('cable.set', { id: idOf('lower'), set: { tagged: [20, 30] } })
    expect(path()).toMatchObject({ outcome: 'unproven', wasProven: true })
  })
})
