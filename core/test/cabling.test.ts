import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkCabling } from '@pasado/core/work/cabling/check'
import { cableMbps, type CableProblem } from '@pasado/core/work/cabling/known-cable'
import { cableBetween, portOwners, type PortKind } from '@pasado/core/work/cabling/ports'
import type { CableEnd } from '@pasado/core/record/things/cable'
import { catalogue, complete, idOf, node, router, type Log } from '@pasado/testing/logbook'

const kinds: PortKind[] = [
  'internet',
  'lan',
  'socket',
  'coax',
  'fibre',
  'telephone',
  'telephone-line',
  'provider-line',
  'splitter-line',
  'splitter-modem',
  'splitter-phone',
  'usb',
  'mains'
]
const old = idOf('old')
const withOld = () =>
  complete().write('unit.set', {
    id: old,
    set: { name: 'Old router', model: 'oldmere-weir', modelVersion: 1, role: 'access-point' }
  })
const unit = (id: string, port: string): CableEnd => ({ thing: 'unit', id, port })
const cable = (log: Log, name: string, a: CableEnd, b: CableEnd, more: Record<string, unknown> = {}) =>
  log.write('cable.set', { id: idOf(name), set: { a, b, ...more } })
const codes = (log: Log) =>
  checkCabling(log.record(), catalogue).map(({ code, outcome }): [CableProblem['code'], string] => [code, outcome])

describe('cables', () => {
  it('which cable goes between two ports is the same both ways', () => {
    fc.assert(
      fc.property(fc.constantFrom(...kinds), fc.constantFrom(...kinds), (a, b) => {
        expect(cableBetween(a, b)).toBe(cableBetween(b, a))
      })
    )
    expect([
      cableBetween('internet', 'lan'),
      cableBetween('coax', 'lan'),
      cableBetween('provider-line', 'fibre'),
      cableBetween('mains', 'mains')
    ]).toEqual(['network', null, 'fibre', null])
  })

  it('more length never carries more, a better category never less', () => {
    const order = ['cat5', 'cat5e', 'cat6', 'cat6a'] as const
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 150 }),
        fc.integer({ min: 1, max: 150 }),
        fc.constantFrom(0, 1, 2),
        (a, b, at) => {
          const [short, long] = [Math.min(a, b), Math.max(a, b)]
          expect(cableMbps({ category: order[at], lengthM: long })!).toBeLessThanOrEqual(
            cableMbps({ category: order[at], lengthM: short })!
          )
          expect(cableMbps({ category: order[at + 1]!, lengthM: long })!).toBeGreaterThanOrEqual(
            cableMbps({ category: order[at], lengthM: long })!
          )
        }
      )
    )
    expect([cableMbps({}), cableMbps({ category: 'cat6', lengthM: 120 })]).toEqual([null, 0])
  })

  it.each<[string, (log: Log) => unknown, CableProblem['code']]>([
    [
      'two cables in one port',
      (log) => {
        cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { linkMbps: 1000 })
        cable(log, 'c2', unit(old, 'lan-2'), unit(router, 'lan-1'), { linkMbps: 1000 })
      },
      'port-taken'
    ],
    [
      'a port that its model no longer has',
      (log) => cable(log, 'c1', unit(old, 'lan-9'), unit(router, 'lan-1')),
      'port-gone'
    ],
    [
      'a cable that begins and ends in one port',
      (log) => cable(log, 'c1', unit(old, 'lan-1'), unit(old, 'lan-1')),
      'same-port'
    ],
    [
      'coax into a LAN port',
      (log) => cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { kind: 'coax' }),
      'wrong-kind'
    ],
    [
      'a network cable of 140 m',
      (log) =>
        cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { kind: 'network', lengthM: 140, linkMbps: 1000 }),
      'too-long'
    ],
    [
      '100 Mbit/s between two gigabit ports',
      (log) => cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { linkMbps: 100 }),
      'slow'
    ],
    [
      'a speed that nobody noted',
      (log) => cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1')),
      'speed-missing'
    ],
    [
      'a unit that was taken out',
      (log) =>
        cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { linkMbps: 1000 }).write('thing.removed', {
          thing: 'unit',
          id: old
        }),
      'port-gone'
    ],
    [
      'two DHCP servers joined',
      (log) =>
        cable(
          log.write('unit.set', { id: old, set: { dhcpServer: 'on' } }),
          'c1',
          unit(old, 'lan-1'),
          unit(router, 'lan-1'),
          { linkMbps: 1000 }
        ),
      'two-dhcp'
    ]
  ])('%s is shown at the cable', (_, change, code) => {
    const log = withOld()
    change(log)
    expect(codes(log).map(([item]) => item)).toContain(code)
  })

  it('a loop is told once, wherever it is closed, and a tree has none', () => {
    const log = withOld()
    cable(log, 'c1', unit(old, 'lan-1'), unit(router, 'lan-1'), { linkMbps: 1000 })
    expect(codes(log).filter(([code]) => code === 'loop')).toEqual([])
    cable(log, 'c2', unit(node, 'lan-1'), unit(old, 'lan-2'), { linkMbps: 1000 })
    expect(codes(log).filter(([code]) => code === 'loop')).toEqual([])
    cable(log, 'c3', unit(old, 'lan-3'), unit(router, 'lan-2'), { linkMbps: 1000 })
    expect(codes(log).filter(([code]) => code === 'loop')).toEqual([['loop', 'breaks']])
    // The router's internet side is another network: a cable there closes nothing.
    expect(codes(withOld()).filter(([code]) => code === 'loop')).toEqual([])
  })

  it('sockets that a cable in the wall joins are one network', () => {
    const log = withOld()
      .write('outlet.set', { id: idOf('s1'), set: { kind: 'network', cableTo: idOf('s2') } })
      .write('outlet.set', { id: idOf('s2'), set: { kind: 'network' } })
    cable(log, 'c1', { thing: 'outlet', id: idOf('s1'), port: 'wall' }, unit(router, 'lan-1'), { linkMbps: 1000 })
    cable(log, 'c2', { thing: 'outlet', id: idOf('s2'), port: 'wall' }, unit(old, 'lan-1'), { linkMbps: 1000 })
    expect(codes(log).filter(([code]) => code === 'loop')).toEqual([])
    cable(log, 'c3', unit(old, 'lan-2'), unit(router, 'lan-2'), { linkMbps: 1000 })
    expect(codes(log).filter(([code]) => code === 'loop')).toHaveLength(1)
  })

  it('the line’s outlet has the port of the access line; mains ports lead nowhere', () => {
    const port = (accessLine: 'coax' | 'fibre' | 'telephone-line') =>
      portOwners(
        complete()
          .write('brief.set', { set: { accessLine } })
          .write('outlet.set', { id: idOf('l'), set: { kind: 'line' } })
          .record(),
        catalogue
      ).find(({ name }) => name === 'Line outlet')!.ports[0]!.kind
    expect([port('coax'), port('fibre'), port('telephone-line')]).toEqual(['coax', 'fibre', 'telephone-line'])
    const eel = portOwners(
      complete()
        .write('unit.set', {
          id: old,
          set: { name: 'Eel', model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter' }
        })
        .record(),
      catalogue
    ).find(({ name }) => name === 'Eel')!
    expect(eel.ports.map(({ kind }) => kind)).toEqual(['lan'])
  })

  it('a switch’s power: three of class 4 are too many for 62 W, and the cable says it', () => {
    const log = complete().write('unit.set', {
      id: idOf('sw'),
      set: { name: 'Switch', model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' }
    })
    for (const at of [0, 1, 2]) {
      log.write('unit.set', {
        id: idOf(`a${at}`),
        set: { name: `Ceiling ${at}`, model: 'tolvane-spindle', modelVersion: 1, role: 'access-point' }
      })
      cable(log, `p${at}`, unit(idOf('sw'), `lan-${at + 1}`), unit(idOf(`a${at}`), 'lan'), { linkMbps: 1000 })
      expect(codes(log).some(([code]) => code === 'over-budget')).toBe(at === 2)
    }
  })
})
