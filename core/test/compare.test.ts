import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareUnit, wantedOf } from '@pasado/core/work/configure/compare'
import { farthestFirst, upstreamOf } from '@pasado/core/work/configure/upstream'
import { updateOrder } from '@pasado/core/work/configure/firmware-order'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { catalogue, complete, home, idOf, node, router, type Log } from '@pasado/testing/logbook'

const { policy } = firstStandard
const old = idOf('old')
const weir = (log: Log, set: Record<string, unknown> = {}) =>
  log.write('unit.set', {
    id: old,
    set: {
      name: 'Old router',
      model: 'oldmere-weir',
      modelVersion: 1,
      role: 'access-point',
      firmwareBefore: '1.0.7',
      ...set
    }
  })
const read = (log: Log, values: Record<string, string>) => log.write('unit.read', { unit: old, values })
const rowsOf = (log: Log) =>
  Object.fromEntries(
    compareUnit(log.record(), catalogue, policy, log.record().units[old]!).map((row) => [row.name, row])
  )

describe('wanted, recorded and told', () => {
  it('an old router made an access point: what its mode, its servers and its firmware are to be, and who has to be mended', () => {
    const log = read(weir(complete(), { dhcpServer: 'off' }), {
      mode: 'router',
      'dhcp.server': 'on',
      'device.firmware': '1.0.7',
      'lan.address': '192.168.1.1'
    })
    const rows = rowsOf(log)
    expect(rows['dhcp.server']).toMatchObject({ wanted: 'off', recorded: 'off', read: 'on', differs: 'unit' })
    expect(rows.mode).toMatchObject({ wanted: 'access-point', recorded: null, read: 'router', differs: 'both' })
    expect(rows['device.firmware']!.wanted).not.toBe('1.0.7')
    expect(rows['lan.address']).toMatchObject({ recorded: null, read: '192.168.1.1', differs: 'record' })
    // The same MAC address, written otherwise, is the same.
    log.write('unit.set', { id: old, set: { mac: '00:00:5e:00:53:0a' } })
    expect(rowsOf(read(log, { 'device.mac': '0000.5E00.530A' }))['device.mac']!.differs).toBeNull()
    // So is a version.
    log.write('unit.set', { id: old, set: { firmwareAfter: '1.0.9' } })
    expect(rowsOf(read(log, { 'device.firmware': 'v1.0.9.0' }))['device.firmware']!.differs).toBeNull()
  })

  it('an address that the audit flags is not wanted: a free one is', () => {
    const log = weir(complete()).write('host.set', {
      id: idOf('ho'),
      set: { unit: old, segment: home, address: '192.168.1.150' }
    })
    const wanted = wantedOf(log.record(), catalogue, policy, log.record().units[old]!)
    expect(wanted['lan.address']).toBe('192.168.1.254')
    log.write('host.set', { id: idOf('ho'), set: { address: wanted['lan.address']! } })
    expect(log.judge('addr-pool').every(({ outcome }) => outcome === 'holds')).toBe(true)
    expect(wantedOf(log.record(), catalogue, policy, log.record().units[old]!)['lan.address']).toBe('192.168.1.254')
  })

  it('a unit that tells exactly what is wanted and recorded differs in nothing', () => {
    const log = weir(complete(), { mode: 'access-point', dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' })
    const wanted = wantedOf(log.record(), catalogue, policy, log.record().units[old]!)
    log.write('unit.set', { id: old, set: { firmwareAfter: wanted['device.firmware']! } })
    read(log, wanted)
    expect(Object.values(rowsOf(log)).filter(({ differs }) => differs !== null)).toEqual([])
  })
})

describe('who is reached through whom, and updated first', () => {
  it('cables before guesses: an access point behind the node is reached through the node', () => {
    const log = weir(complete()).write('cable.set', {
      id: idOf('c9'),
      set: { a: { thing: 'unit', id: node, port: 'lan-1' }, b: { thing: 'unit', id: old, port: 'lan-1' } }
    })
    const found = upstreamOf(log.record(), catalogue)
    expect([found.get(router)!.through, found.get(node)!.through, found.get(old)!.through]).toEqual([
      null,
      router,
      node
    ])
    expect(farthestFirst(log.record(), catalogue).map(({ unit }) => unit.id)).toEqual([old, node, router])
  })

  it('nobody is updated before all that is reached through them, and rounds hold the time', () => {
    const models = [
      ['oldmere-weir', 'access-point', '1.0.7'],
      ['ostrel-tern', 'node', '2.8.1'],
      ['quillet-reed', 'extender', ''],
      ['brackwater-c3', 'gateway', '']
    ] as const
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...models), { maxLength: 6 }),
        fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { maxLength: 4 }),
        (list, cables) => {
          const log = complete()
            .write('unit.set', { id: router, set: { firmwareAfter: null } })
            .write('unit.set', { id: node, set: { firmwareAfter: null } })
          list.forEach(([model, role, before], at) =>
            log.write('unit.set', {
              id: idOf(`u${at}`),
              set: {
                name: `Unit ${at}`,
                model,
                modelVersion: 1,
                role,
                firmwareBefore: before || catalogue.get(`${model}@1`)!.firmware.releases[0]!.version
              }
            })
          )
          cables.forEach(([a, b], at) =>
            log.write('cable.set', {
              id: idOf(`k${at}`),
              set: {
                a: { thing: 'unit', id: idOf(`u${a}`), port: 'lan-1' },
                b: { thing: 'unit', id: idOf(`u${b}`), port: 'lan-2' }
              }
            })
          )
          const record = log.record()
          const up = upstreamOf(record, catalogue)
          const { steps, besideMin, afterMin } = updateOrder(record, catalogue)
          for (const [at, step] of steps.entries()) {
            for (let through = up.get(step.unit.id)!.through; through !== null; through = up.get(through)!.through) {
              const later = steps.findIndex(({ unit }) => unit.id === through)
              if (later >= 0) {
                expect(later).toBeGreaterThan(at)
                expect(steps[later]!.round).toBeGreaterThan(step.round)
              }
            }
          }
          expect(besideMin).toBeLessThanOrEqual(afterMin)
          if (steps.length)
            expect(besideMin).toBeGreaterThanOrEqual(Math.max(...steps.map(({ usualMin }) => usualMin ?? 0)))
        }
      ),
      { numRuns: 80 }
    )
  })
})
