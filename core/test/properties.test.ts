import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { auditAddresses } from '@pasado/core/address/audit'
import { auditInput, type AuditInput } from '@pasado/core/address/audit-schema'
import { formatIpv4, parseCidr, parseIpv4 } from '@pasado/core/values/ipv4'
import { calculate } from '@pasado/core/calc/registry'
import { Refusal } from '@pasado/core/values/problem'
import { compareVersions } from '@pasado/core/values/version'
import { followLamps } from '@pasado/core/catalogue/follow'
import { lookKey } from '@pasado/core/catalogue/look'
import { canonicalJson } from '@pasado/core/values/canonical'
import { chained, chainProblem, chainStart } from '@pasado/core/record/chain'
import type { Entry } from '@pasado/core/record/entry'
import { apply, emptyRecord, reduce } from '@pasado/core/record/reduce'
import { makePassphrase, madeBits, pickerFrom } from '@pasado/core/secrets/make'
import { isPrivateName } from '@pasado/core/secrets/names'
import { judgeStrength } from '@pasado/core/secrets/strength'
import { wifiQr, wifiQrInput, wpaPassphraseProblem } from '@pasado/core/values/wifi-qr'
import { demoModels } from '@pasado/demo/models/all'
import { type Log, complete, idOf, opened, router } from '@pasado/testing/logbook'

const octet = fc.integer({ min: 0, max: 255 })
/** Small ranges around the edge of a private block, so that every kind of finding comes up. */
const smallRange = fc
  .record({
    base: fc.constantFrom('192.168.7.0', '10.255.255.0', '192.167.255.0'),
    prefix: fc.integer({ min: 26, max: 32 }),
    block: fc.integer({ min: 0, max: 3 })
  })
  .map(({ base, prefix, block }) => {
    const size = 2 ** (32 - prefix)
    return `${formatIpv4(parseIpv4(base)! + block * size)}/${prefix}`
  })
const near = fc
  .record({ base: fc.constantFrom('192.168.7.', '10.255.255.', '192.167.255.'), last: fc.integer({ min: 0, max: 80 }) })
  .map(({ base, last }) => base + last)
const oneHome: fc.Arbitrary<AuditInput> = fc
  .record({
    segments: fc.array(
      fc.record({
        cidr: smallRange,
        gateway: fc.option(near, { nil: undefined }),
        dhcp: fc.array(fc.record({ device: fc.constantFrom('a', 'b'), from: near, to: near }), { maxLength: 3 })
      }),
      { minLength: 1, maxLength: 3 }
    ),
    hosts: fc.array(
      fc.record({
        device: fc.constantFrom('a', 'b', 'c', 'd'),
        segment: fc.integer({ min: 0, max: 2 }),
        address: near,
        reserved: fc.boolean()
      }),
      { maxLength: 8 }
    ),
    poolSchool: fc.constantFrom('outside' as const, 'inside' as const)
  })
  .map(({ segments, hosts, poolSchool }) => ({
    segments: segments.map((segment, index) => ({
      id: `s${index}`,
      cidr: segment.cidr,
      dhcp: segment.dhcp,
      ...(segment.gateway === undefined ? {} : { gateway: segment.gateway })
    })),
    hosts: hosts.map((host) => ({ ...host, segment: `s${host.segment % segments.length}` })),
    poolSchool
  }))

describe('addresses', () => {
  it('print and read back', () =>
    fc.assert(
      fc.property(octet, octet, octet, octet, (...groups) => {
        const text = groups.join('.')
        expect(formatIpv4(parseIpv4(text)!)).toBe(text)
      })
    ))

  it('a suggestion is the highest address at which a new device would get no finding', () =>
    fc.assert(
      fc.property(oneHome, (input) => {
        expect(auditInput.safeParse(input).success).toBe(true)
        const { suggestions } = auditAddresses(input)
        for (const segment of input.segments) {
          const range = parseCidr(segment.cidr)
          if ('problem' in range) throw new Error('a range of the test is none')
          let highest: string | undefined
          for (let address = range.last; address >= range.first && highest === undefined; address--) {
            const text = formatIpv4(address)
            const { findings } = auditAddresses({
              ...input,
              hosts: [...input.hosts, { device: 'new', segment: segment.id, address: text }]
            })
            if (text !== segment.gateway && !findings.some(({ subject }) => subject === 'new')) highest = text
          }
          expect(suggestions.find((suggestion) => suggestion.segment === segment.id)?.address).toBe(highest)
        }
      }),
      { numRuns: 300 }
    ))

  it('findings come in order, one for each code and subject', () =>
    fc.assert(
      fc.property(oneHome, (input) => {
        const keys = auditAddresses(input).findings.map(({ code, subject }) => `${code} ${subject}`)
        expect(keys).toEqual([...new Set(keys)].sort())
      })
    ))
})

describe('lamps', () => {
  const models = fc.constantFrom(...demoModels.filter((model) => model.lamps.length > 0))
  const walk = fc.tuple(models, fc.array(fc.nat(20), { maxLength: 12 })).map(([model, steps]) => {
    const table = {
      states: model.states.map(({ state, lamps, maxMin }) => ({
        state,
        lamps,
        ...(maxMin === undefined ? {} : { maxMin })
      })),
      moves: model.moves,
      start: model.start
    }
    let state = model.start
    const seen = steps.map((step, index) => {
      const next = model.moves.filter(({ from }) => from === state)
      if (next.length) state = next[step % next.length]!.to
      return { atMin: index, lamps: model.states.find((row) => row.state === state)!.lamps }
    })
    return { table, seen, state }
  })

  it('a walk along the moves is never impossible, and its end is among the candidates', () =>
    fc.assert(
      fc.property(walk, ({ table, seen, state }) => {
        const { candidates, impossible } = followLamps({ ...table, seen })
        expect(impossible).toEqual([])
        expect(candidates).toContain(state)
      })
    ))

  it('an impossible sighting changes nothing but the list of the impossible', () =>
    fc.assert(
      fc.property(walk, fc.nat(12), ({ table, seen }, at) => {
        const strange = {
          atMin: seen[at]?.atMin ?? seen.at(-1)?.atMin ?? 0,
          lamps: [{ lamp: table.states[0]!.lamps[0]!.lamp, colour: 'purple', pattern: 'fast-blink' as const }]
        }
        const mixed = [...seen.slice(0, at), strange, ...seen.slice(at)].sort((a, b) => a.atMin - b.atMin)
        const plain = followLamps({ ...table, seen })
        const withStrange = followLamps({ ...table, seen: mixed })
        expect({ ...withStrange, impossible: [] }).toEqual(plain)
        expect(withStrange.impossible).toHaveLength(1)
      })
    ))

  it('the two colours of an alternating lamp have no order', () => {
    expect(lookKey({ colour: 'green/orange', pattern: 'alternate' })).toBe(
      lookKey({ colour: 'orange/green', pattern: 'alternate' })
    )
  })
})

describe('MAC addresses and codes to join', () => {
  it('every way of writing one MAC address reads the same', () =>
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 6, maxLength: 6 }),
        fc.constantFrom('', ' ', '\t', '\r\n'),
        (octets, blank) => {
          const pairs = [...octets].map((value) => value.toString(16).padStart(2, '0'))
          const bare = pairs.join('')
          fc.pre(!/^(0{12}|f{12})$/.test(bare))
          for (const text of [pairs.join(':'), pairs.join('-').toUpperCase(), bare, bare.match(/..../g)!.join('.')]) {
            expect(calculate('mac', { text: blank + text + blank })).toMatchObject({
              mac: pairs.join(':'),
              multicast: (octets[0]! & 1) === 1,
              locallyAdministered: (octets[0]! & 2) === 2
            })
          }
        }
      )
    ))

  it('a code to join, taken apart as a phone does, gives name and passphrase back', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary', minLength: 1, maxLength: 32 }),
        fc.string({
          minLength: 8,
          maxLength: 63,
          unit: fc.integer({ min: 0x20, max: 0x7e }).map((code) => String.fromCharCode(code))
        }),
        fc.boolean(),
        (ssid, passphrase, hidden) => {
          const input = { ssid, security: 'wpa' as const, passphrase, hidden }
          fc.pre(wifiQrInput.safeParse(input).success)
          const { payload } = wifiQr(input)
          const fields = new Map(
            [...payload.slice(5).matchAll(/([TSPH]):((?:\\[\s\S]|[^\\;])*);/g)].map(([, key, value]) => [
              key!,
              value!.replace(/\\([\s\S])/g, '$1')
            ])
          )
          expect([fields.get('S'), fields.get('P'), fields.get('H')]).toEqual([
            ssid,
            passphrase,
            hidden ? 'true' : undefined
          ])
          expect(payload.endsWith(';;')).toBe(true)
        }
      )
    ))

  it.each([
    ['null for a field that may be left out', { ssid: 'a', security: 'open', hidden: null }],
    ['an unknown field', { ssid: 'a', security: 'open', extra: 1 }],
    ['a lone surrogate', { ssid: '\ud800', security: 'open' }],
    ['a number for text', { ssid: 5, security: 'open' }]
  ])('%s is refused', (_, input) => {
    expect(() => calculate('wifi-qr', input)).toThrow(Refusal)
  })
})

describe('the logbook', () => {
  const frozen = <T>(value: T): T => {
    if (value && typeof value === 'object') for (const inner of Object.values(Object.freeze(value))) frozen(inner)
    return value
  }

  it('the reducer changes nothing that it is given', () => {
    const { entries } = complete()
    let record = frozen(emptyRecord)
    for (const entry of entries) record = frozen(apply(record, frozen(entry)))
    expect(record.lastSeq).toBe(entries.length)
  })

  it('reducing in parts is reducing at once', () =>
    fc.assert(
      fc.property(fc.nat(60), (cut) => {
        const { entries } = complete()
        expect(reduce(entries.slice(cut), reduce(entries.slice(0, cut)))).toEqual(reduce(entries))
      }),
      { numRuns: 30 }
    ))

  it('entries on different fields of two devices merge, whichever comes first', () => {
    const phone = (log: Log, base: number) =>
      log.write('brief.set', { set: { phone: '555-0177' } }, { from: idOf('a'), base })
    const speed = (log: Log, base: number) =>
      log.write('brief.set', { set: { speedDownMbps: 50 } }, { from: idOf('b'), base })
    const [first, two] = [opened(), opened()]
    phone(first, 1)
    speed(first, 1)
    speed(two, 1)
    phone(two, 1)
    expect(first.record().brief.facts).toEqual(two.record().brief.facts)
    expect(first.record().conflicts).toEqual([])
  })

  it('the same field set unseen to another value is a conflict; to the same value, or seen, or from one device, it is not', () => {
    const set = (value: string, from: string, base: number) => (log: Log) =>
      log.write('unit.set', { id: router, set: { place: value } }, { from: idOf(from), base })
    const conflictsOf = (...steps: ((log: Log) => Log)[]) =>
      steps.reduce((log, step) => step(log), opened()).record().conflicts.length
    expect(conflictsOf(set('hall', 'a', 1), set('study', 'b', 1))).toBe(1)
    expect(conflictsOf(set('hall', 'a', 1), set('hall', 'b', 1))).toBe(0)
    expect(conflictsOf(set('hall', 'a', 1), set('study', 'b', 2))).toBe(0)
    expect(conflictsOf(set('hall', 'a', 1), set('study', 'a', 1))).toBe(0)
    expect(conflictsOf(set('hall', 'a', 1), set('study', 'b', 1), set('attic', 'a', 3))).toBe(0)
  })

  it('any change in a chain is found out', () => {
    const entries: Entry[] = []
    for (const placed of complete().entries) entries.push(chained(entries.at(-1)?.hash ?? chainStart, placed))
    expect(chainProblem(entries)).toBeNull()
    fc.assert(
      fc.property(fc.nat(entries.length - 1), fc.constantFrom('at', 'received', 'id', 'by', 'body'), (at, field) => {
        const other = (entry: (typeof entries)[number]) => {
          if (field === 'body') return { ...entry.body, x: 1 }
          return field === 'by' ? { ...entry.by, name: 'Somebody Else' } : `${String(entry[field as 'id'])}0`
        }
        const changed = entries.map((entry, index) => (index === at ? { ...entry, [field]: other(entry) } : entry))
        expect(chainProblem(changed)).not.toBeNull()
      })
    )
    expect(chainProblem(entries.filter((_, index) => index !== 3))).toContain('missing')
  })

  it('canonical JSON does not depend on the order of fields', () =>
    fc.assert(
      fc.property(fc.dictionary(fc.string({ unit: 'binary' }), fc.jsonValue()), (value) => {
        const turned = Object.fromEntries(Object.entries(value).reverse())
        expect(canonicalJson(turned)).toBe(canonicalJson(value))
        expect(canonicalJson(JSON.parse(canonicalJson(value)))).toBe(canonicalJson(value))
      })
    ))
})

describe('secrets', () => {
  it('a made passphrase has at least 60 bits, is one by the rules of WPA, and strong', () =>
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        let state = seed >>> 0
        const passphrase = makePassphrase(pickerFrom(() => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0)))
        expect(madeBits).toBeGreaterThanOrEqual(60)
        expect(wpaPassphraseProblem(passphrase)).toBeNull()
        expect(judgeStrength(passphrase).score).toBe(4)
      }),
      { numRuns: 40 }
    ))

  it('the picker is fair: what would tip the balance is drawn again', () => {
    const draws = [2 ** 32 - 1, 5]
    expect(pickerFrom(() => draws.shift()!)(10)).toBe(5)
  })

  it('weak ones are told by their score, also where they hold a name of the home', () => {
    expect(judgeStrength('password1').score).toBe(0)
    expect(judgeStrength('oakumoakum', ['Cressa Oakum']).score).toBeLessThan(3)
    expect([isPrivateName('TRAWL-net', ['6 Trawl Street']), isPrivateName('Street view', ['6 Trawl Street'])]).toEqual([
      'Trawl',
      null
    ])
    const told = (text: string, ...names: string[]) => isPrivateName(text, names)
    expect([
      told('LeeFamily', 'Ann Lee'),
      told('Cox-Wifi', 'Jo Cox'),
      told('myoakumnet', 'Cressa Oakum'),
      told('annashome', 'Anna Gannet'),
      told('VonLee_5G', 'Ann van Lee')
    ]).toEqual(['Lee', 'Cox', 'Oakum', 'Anna', 'Lee'])
    // Inside another word a short one stands by chance; what any name or address has tells nobody.
    expect([
      told('Savannah', 'Anna Gannet'),
      told('Leeds', 'Ann Lee'),
      told('La Mar', 'Jo de la Rive'),
      told('Kelp 6', '6 Trawl Street')
    ]).toEqual([null, null, null, null])
  })
})

it('versions are in a total order', () =>
  fc.assert(
    fc.property(
      fc.array(fc.stringMatching(/^v?[0-9]{1,3}([._-][0-9a-z]{1,3}){0,3}$/), { minLength: 3, maxLength: 3 }),
      ([a, b, c]) => {
        expect(Math.sign(compareVersions(a!, b!))).toBe(-Math.sign(compareVersions(b!, a!)) + 0)
        if (compareVersions(a!, b!) <= 0 && compareVersions(b!, c!) <= 0)
          expect(compareVersions(a!, c!)).toBeLessThanOrEqual(0)
      }
    )
  ))
