import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readClientList } from '@pasado/core/address/client-list'
import {
  conversionOf,
  freeBeside,
  maskOf,
  modesCompared,
  type Conversion
} from '@pasado/core/work/configure/conversion'
import { auditHome, routersOf } from '@pasado/core/work/addresses/home-audit'
import { formatIpv4, parseCidr, parseIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { neighboursFromCsv } from '@pasado/core/documents/neighbours-csv'
import { standing } from '@pasado/core/record/record'
import { catalogue, complete, home, idOf, type Log } from '@pasado/testing/logbook'

const old = idOf('old')
const withOld = () =>
  complete().write('unit.set', {
    id: old,
    set: {
      name: 'Old router',
      model: 'oldmere-weir',
      modelVersion: 1,
      role: 'access-point',
      defaultSsid: 'WEIR5301',
      pageAddress: 'http://192.168.0.1/',
      mac: '00:00:5e:00:53:09'
    }
  })
const worked = (log = withOld(), school: 'outside' | 'inside' = 'outside') => {
  const record = log.record()
  return conversionOf(record, catalogue, record.units[old]!, school)
}

describe('an old router made an access point', () => {
  it('gets every value from the main range, and steps that never lock anybody out', () => {
    const found = worked() as Conversion
    expect([found.address, found.mask, found.gateway, found.from]).toEqual([
      '192.168.1.254',
      '255.255.255.0',
      '192.168.1.1',
      '192.168.0.1'
    ])
    const at = (id: string) => found.steps.findIndex((step) => step.id === id)
    // What cuts off comes after all that still needs the page at its old address; the cable comes once it gives out no addresses.
    expect([
      at('join') < at('name'),
      at('extras') < at('address'),
      at('dhcp') < at('address'),
      at('address') < at('restart'),
      at('dhcp') < at('cable'),
      at('cable') < at('reach')
    ]).toEqual([true, true, true, true, true, true])
    for (const step of found.steps) expect([step.check.length > 0, step.ifLost.length > 0]).toEqual([true, true])
    expect(found.steps.find(({ id }) => id === 'address')!.ifLost).toContain('192.168.1.253')
  })

  it('what is recorded is done; what is missing is said', () => {
    const found = worked(
      withOld()
        .write('unit.set', { id: old, set: { dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' } })
        .write('host.set', { id: idOf('ho'), set: { unit: old, segment: home, address: '192.168.1.250' } })
    ) as Conversion
    expect([found.address, found.steps.filter(({ done }) => done).map(({ id }) => id)]).toEqual([
      '192.168.1.250',
      ['extras', 'dhcp', 'address']
    ])
    expect(worked(withOld().write('segment.set', { id: home, set: { gateway: null } }))).toEqual({
      missing: expect.stringContaining('gateway') as string
    })
    expect(worked(withOld().write('segment.set', { id: home, set: { cidr: '192.168.1.0/31' } }))).toEqual({
      missing: expect.stringContaining('no room') as string
    })
    expect(worked(withOld().write('thing.removed', { thing: 'segment', id: home }))).toEqual({
      missing: expect.stringContaining('range first') as string
    })
  })

  it('one with the main router’s own address is kept apart from it first', () => {
    const found = worked(withOld().write('unit.set', { id: old, set: { pageAddress: '192.168.1.1' } })) as Conversion
    expect(found.steps[1]!.do).toContain('keep them apart')
  })

  it('an address that is proposed is never one that the audit would flag, in whatever home', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 22, max: 29 }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 1, max: 60 }),
        fc.array(fc.integer({ min: 2, max: 250 }), { maxLength: 8 }),
        fc.constantFrom('outside' as const, 'inside' as const),
        (prefix, start, length, taken, school) => {
          const size = 2 ** (32 - prefix)
          const first = 10 * 2 ** 24 + 5 * 2 ** 16
          const within = (offset: number) => formatIpv4(first + 2 + (offset % (size - 3)))
          const from = 2 + (start % (size - 3))
          const to = Math.min(size - 2, from + length)
          const log = withOld()
            .write('segment.set', {
              id: home,
              set: { cidr: `${formatIpv4(first)}/${prefix}`, gateway: formatIpv4(first + 1) }
            })
            .write('pool.set', {
              id: idOf('pool'),
              set: { from: formatIpv4(first + from), to: formatIpv4(first + to) }
            })
            .write('thing.removed', { thing: 'host', id: idOf('hr') })
            .write('thing.removed', { thing: 'host', id: idOf('hn') })
          taken.forEach((offset, at) =>
            log.write('host.set', {
              id: idOf(`t${at}`),
              set: { name: `Device ${at}`, segment: home, address: within(offset) }
            })
          )
          const found = worked(log, school)
          if ('missing' in found) return
          const record = log
            .write('host.set', { id: idOf('ho'), set: { unit: old, segment: home, address: found.address } })
            .record()
          const audit = auditHome({
            segments: standing(record.segments),
            pools: standing(record.pools),
            hosts: standing(record.hosts),
            unitNames: new Map([[old, 'Old router']]),
            routers: routersOf(standing(record.units)),
            school
          })
          expect([found.address, audit.ofHost.get(idOf('ho'))]).toEqual([found.address, []])
        }
      ),
      { numRuns: 80 }
    )
  })

  it('the laptop’s address, should one be lost, is in the range and nobody’s, in whatever home', () => {
    const home28 = fc.record({
      prefix: fc.integer({ min: 22, max: 30 }),
      taken: fc.array(fc.integer({ min: 0, max: 250 }), { maxLength: 12 }),
      own: fc.integer({ min: 1, max: 1022 })
    })
    fc.assert(
      fc.property(home28, ({ prefix, taken, own }) => {
        const range = parseCidr(`10.5.0.0/${prefix}`) as Range4
        const size = range.last - range.first + 1
        const address = formatIpv4(range.first + 1 + (own % (size - 2)))
        const held = taken.map((offset) => formatIpv4(range.first + (offset % size)))
        const found = freeBeside(range, address, held, [])
        if (found === null) {
          expect(
            new Set([address, ...held, formatIpv4(range.first), formatIpv4(range.last)]).size
          ).toBeGreaterThanOrEqual(size)
          return
        }
        const number = parseIpv4(found)!
        expect([number > range.first, number < range.last, found === address, held.includes(found)]).toEqual([
          true,
          true,
          false,
          false
        ])
      }),
      { numRuns: 500 }
    )
    expect(freeBeside(parseCidr('192.168.1.0/27') as Range4, '192.168.1.30', ['192.168.1.1'], [])).toBe('192.168.1.29')
  })

  it('no address of the main router’s own is kept, and a restart counts after the change only', () => {
    const bare = () =>
      withOld()
        .write('thing.removed', { thing: 'pool', id: idOf('pool') })
        .write('host.set', { id: idOf('ho'), set: { unit: old, segment: home, address: '192.168.1.1' } })
    expect((worked(bare()) as Conversion).address).not.toBe('192.168.1.1')
    const restart = (log: Log) => (worked(log) as Conversion).steps.find(({ id }) => id === 'restart')!.done
    const log = withOld()
      .write('unit.event', { unit: old, what: 'restarted' })
      .write('host.set', { id: idOf('ho'), set: { unit: old, segment: home, address: '192.168.1.250' } })
    expect([restart(log), restart(log.write('unit.event', { unit: old, what: 'restarted' }))]).toEqual([false, true])
  })

  it('masks, and what either way means', () => {
    expect([0, 8, 24, 26, 32].map(maskOf)).toEqual([
      '0.0.0.0',
      '255.0.0.0',
      '255.255.255.0',
      '255.255.255.192',
      '255.255.255.255'
    ])
    expect(modesCompared(complete().record()).length).toBeGreaterThan(3)
  })
})

describe('a pasted list of clients', () => {
  it.each([
    [
      'Printer\t192.168.1.40\t02:00:5e:10:00:40\tStatic',
      { name: 'Printer', address: '192.168.1.40', mac: '02:00:5e:10:00:40' }
    ],
    [
      '192.168.1.41,0200.5e10.0041,"Net room screen",23h',
      { name: 'Net room screen', address: '192.168.1.41', mac: '02:00:5e:10:00:41' }
    ],
    [
      '02-00-5E-10-00-42  192.168.1.42  kelp-scale  Online',
      { name: 'kelp-scale', address: '192.168.1.42', mac: '02:00:5e:10:00:42' }
    ],
    ['192.168.1.43', { name: null, address: '192.168.1.43', mac: null }]
  ])('%j', (line, client) => expect(readClientList(line)).toEqual({ clients: [client], skipped: 0 }))

  it('heads, blank lines and addresses with three groups are left out, doubles taken once', () => {
    expect(readClientList('Name,IP,MAC\n\nA,192.168.1,x\nB,192.168.1.5\nB,192.168.1.5')).toEqual({
      clients: [{ name: 'B', address: '192.168.1.5', mac: null }],
      skipped: 2
    })
  })
})

describe('neighbours from a list', () => {
  it('of 50,000 the strongest 300 are kept', () => {
    const lines = Array.from({ length: 50_000 }, (_, at) => `2.4,${1 + (at % 13)},${-40 - (at % 60)}`)
    const found = neighboursFromCsv(`band_ghz,channel,signal_dbm\n${lines.join('\n')}`)
    expect([
      found.networks.length,
      found.of,
      found.problems.length,
      found.networks.every(({ dbm }) => dbm >= -41)
    ]).toEqual([300, 50_000, 0, true])
  })
  it.each([
    ['band_ghz,channel\n5,36', 1, 'signal_dbm is missing'],
    ['band_ghz,channel,signal_dbm\n5,36,20', 2, 'signal_dbm must be'],
    ['band_ghz,channel,signal_dbm\n7,36,-60', 2, 'band_ghz must be'],
    ['band_ghz,channel,signal_dbm,width_mhz\n5,36,-60,30', 2, 'width_mhz must be']
  ])('%j', (text, line, problem) => {
    expect(neighboursFromCsv(text).problems).toEqual([{ line, problem: expect.stringContaining(problem) as string }])
  })
  it('semicolons, decimal commas, a network’s name with an emoji', () => {
    expect(neighboursFromCsv('SSID;Signal_dBm;Channel;Band_GHz;Busy_percent\nGull 🐦;−64,5;6;2,4;30')).toMatchObject({
      networks: [{ ssid: 'Gull 🐦', dbm: -64.5, channel: 6, band: '2.4', busy: 0.3 }],
      problems: []
    })
  })
})
