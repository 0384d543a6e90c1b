import { describe, expect, it } from 'vitest'
import { auditAddresses, byCodePoint } from '@pasado/core/address/audit'
import { findingCodes, type AuditInput, type FindingCode } from '@pasado/core/address/audit-schema'
import { hasEnds, isPrivate, parseCidr, parseIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { translationDepths } from '@pasado/core/address/translations'
import { calculate } from '@pasado/core/calc/registry'
import { Refusal } from '@pasado/core/values/problem'

const plain: AuditInput['segments'][number] = {
  id: 'home',
  cidr: '192.168.1.0/24',
  gateway: '192.168.1.1',
  dhcp: [{ device: 'router', from: '192.168.1.100', to: '192.168.1.199' }]
}
const with1 = (address: string, more: Partial<AuditInput['hosts'][number]> = {}): AuditInput => ({
  segments: [plain],
  hosts: [{ device: 'one', segment: 'home', address, ...more }]
})
const segment = (change: Partial<AuditInput['segments'][number]>, more: Partial<AuditInput> = {}): AuditInput => ({
  segments: [{ ...plain, ...change }],
  hosts: [],
  ...more
})
const found = (input: AuditInput) => auditAddresses(input).findings.map(({ code, subject }) => `${code} ${subject}`)

/** One home for each code, with all that is found in it. */
const examples: Record<FindingCode, [AuditInput, string[]]> = {
  'malformed-address': [with1('192.168.1'), ['malformed-address one']],
  'not-private': [with1('8.8.8.8'), ['not-private one', 'outside-subnet one']],
  'outside-subnet': [with1('192.168.2.5'), ['outside-subnet one']],
  'network-address': [with1('192.168.1.0'), ['network-address one']],
  'broadcast-address': [with1('192.168.1.255'), ['broadcast-address one']],
  'gateway-clash': [with1('192.168.1.1'), ['gateway-clash one']],
  'duplicate-address': [
    { segments: [plain], hosts: ['a', 'b'].map((device) => ({ device, segment: 'home', address: '192.168.1.5' })) },
    ['duplicate-address b']
  ],
  'inside-pool': [with1('192.168.1.100'), ['inside-pool one']],
  'outside-pool': [{ ...with1('192.168.1.5'), poolSchool: 'inside' }, ['outside-pool one']],
  'no-dhcp': [segment({ dhcp: [] }), ['no-dhcp home']],
  'two-dhcp': [
    segment({ dhcp: [...plain.dhcp!, { device: 'other', from: '192.168.1.50', to: '192.168.1.60' }] }),
    ['two-dhcp home']
  ],
  'pool-outside-subnet': [
    segment({ dhcp: [{ device: 'router', from: '192.168.1.200', to: '192.168.2.20' }] }),
    ['pool-outside-subnet home']
  ],
  'pool-inverted': [
    segment({ dhcp: [{ device: 'router', from: '192.168.1.20', to: '192.168.1.10' }] }),
    ['pool-inverted home']
  ],
  'pool-holds-gateway': [
    segment({ dhcp: [{ device: 'router', from: '192.168.1.1', to: '192.168.1.10' }] }),
    ['pool-holds-gateway home']
  ],
  'subnets-overlap': [
    {
      segments: [
        plain,
        {
          ...plain,
          id: 'shed',
          cidr: '192.168.1.128/25',
          gateway: '192.168.1.129',
          dhcp: [{ device: 'router', from: '192.168.1.200', to: '192.168.1.210' }]
        }
      ],
      hosts: []
    },
    ['subnets-overlap shed']
  ],
  'double-nat': [
    {
      segments: ['street', 'box', 'home'].map((id, at) => ({
        ...plain,
        id,
        cidr: `192.168.${at}.0/24`,
        gateway: `192.168.${at}.1`,
        dhcp: [{ device: id, from: `192.168.${at}.100`, to: `192.168.${at}.110` }]
      })),
      hosts: [],
      links: [
        { outer: 'street', inner: 'box', nat: true },
        { outer: 'box', inner: 'home', nat: true }
      ]
    },
    ['double-nat home']
  ]
}

describe('the audit', () => {
  it.each(findingCodes)('finds %s, and nothing beside it', (code) => {
    const [input, all] = examples[code]
    expect(found(input)).toEqual(all)
    for (const { detail } of auditAddresses(input).findings) expect(detail).toMatch(/\S/)
  })

  it.each<[string, AuditInput, string[]]>([
    ['a reserved address in a pool is fine', with1('192.168.1.120', { reserved: true }), []],
    ['either end of a pool is in it', with1('192.168.1.199'), ['inside-pool one']],
    [
      'the gateway’s owner is no clash',
      { segments: [plain], hosts: [{ device: 'router', segment: 'home', address: '192.168.1.1' }] },
      []
    ],
    [
      'two that serve are both owners, one of them twice there',
      {
        segments: [{ ...plain, dhcp: [...plain.dhcp!, { device: 'two', from: '192.168.1.20', to: '192.168.1.30' }] }],
        hosts: ['router', 'two'].map((device) => ({ device, segment: 'home', address: '192.168.1.1' }))
      },
      ['duplicate-address two', 'two-dhcp home']
    ],
    [
      'a device is no duplicate of itself',
      { segments: [plain], hosts: [1, 2].map(() => ({ device: 'a', segment: 'home', address: '192.168.1.9' })) },
      []
    ],
    [
      'a /31 has neither a network’s address nor one for broadcasts',
      {
        segments: [{ id: 'link', cidr: '10.0.0.0/31', dhcp: [{ device: 'a', from: '10.0.0.1', to: '10.0.0.1' }] }],
        hosts: ['10.0.0.0'].map((address) => ({ device: 'b', segment: 'link', address }))
      },
      []
    ],
    [
      'a public range is no finding on the provider’s side',
      {
        segments: [
          {
            ...plain,
            id: 'street',
            cidr: '203.0.113.0/24',
            gateway: '203.0.113.1',
            dhcp: [{ device: 'p', from: '203.0.113.9', to: '203.0.113.9' }]
          },
          plain
        ],
        hosts: [],
        links: [{ outer: 'street', inner: 'home', nat: true }]
      },
      []
    ],
    [
      'a range only half private is one',
      segment({ cidr: '192.0.0.0/2', gateway: '192.168.1.1' }),
      ['not-private home']
    ],
    [
      'a pool upside down holds nothing',
      {
        segments: [{ ...plain, dhcp: [{ device: 'router', from: '192.168.1.199', to: '192.168.1.100' }] }],
        hosts: [{ device: 'a', segment: 'home', address: '192.168.1.150' }]
      },
      ['pool-inverted home']
    ]
  ])('%s', (_, input, all) => expect(found(input)).toEqual(all))

  it('suggests nothing where nothing is free', () => {
    expect(
      auditAddresses({ segments: [{ id: 'l', cidr: '10.0.0.0/32', gateway: '10.0.0.0' }], hosts: [] }).suggestions
    ).toEqual([])
    expect(
      auditAddresses({
        segments: [
          { ...plain, cidr: '192.168.1.0/30', dhcp: [{ device: 'r', from: '192.168.1.1', to: '192.168.1.2' }] }
        ],
        hosts: []
      }).suggestions
    ).toEqual([])
  })

  it('is quick over a whole /8 with its pool on top', () => {
    const { suggestions } = auditAddresses({
      segments: [{ id: 'big', cidr: '10.0.0.0/8', dhcp: [{ device: 'r', from: '10.0.0.5', to: '10.255.255.255' }] }],
      hosts: [{ device: 'a', segment: 'big', address: '10.0.0.4' }]
    })
    expect(suggestions).toEqual([{ segment: 'big', address: '10.0.0.3' }])
  })

  it.each([
    [
      'an unknown segment',
      { segments: [plain], hosts: [{ device: 'a', segment: 'attic', address: '192.168.1.5' }] },
      'hosts[0].segment'
    ],
    ['a segment listed twice', { segments: [plain, plain], hosts: [] }, 'segments[1].id'],
    ['bits behind the prefix', { segments: [{ ...plain, cidr: '192.168.1.1/24' }], hosts: [] }, 'segments[0].cidr'],
    [
      'a gateway that is no address',
      { segments: [{ ...plain, gateway: '192.168.1' }], hosts: [] },
      'segments[0].gateway'
    ],
    [
      'a link to itself',
      { segments: [plain], hosts: [], links: [{ outer: 'home', inner: 'home', nat: true }] },
      'links'
    ],
    [
      'a translation that is none',
      { segments: [plain], hosts: [], links: [{ outer: 'home', inner: 'home', nat: false }] },
      'links[0].nat'
    ],
    ['null for a gateway', { segments: [{ ...plain, gateway: null }], hosts: [] }, 'segments[0].gateway']
  ])('%s is refused by its place', (_, input, where) => {
    expect(() => calculate('address-audit', input)).toThrow(Refusal)
    expect(() => calculate('address-audit', input)).toThrow(where)
  })
})

describe('addresses', () => {
  it.each([
    ['192.168.1.20', true],
    ['192.168.1.020', false],
    ['192.168.1.256', false],
    ['192.168.1', false],
    ['192.168.1.1.1', false],
    [' 192.168.1.1', false],
    ['0.0.0.0', true],
    ['1e1.0.0.0', false],
    ['-1.0.0.0', false],
    ['', false]
  ])('%j: %s', (text, right) => expect(parseIpv4(text) !== null).toBe(right))

  it('ranges know their ends, and what is private', () => {
    const range = parseCidr('172.16.0.0/12') as Range4
    expect([
      isPrivate(range.first, range.last),
      isPrivate(range.last + 1),
      hasEnds(range),
      hasEnds(parseCidr('10.0.0.0/31') as Range4)
    ]).toEqual([true, false, true, false])
    for (const text of ['10.0.0.0', '10.0.0.0/', '10.0.0.0/08', '10.0.0.0/33', '10.0.0/8', 'x/8'])
      expect('problem' in parseCidr(text), text).toBe(true)
  })

  it('translations are counted along the longest chain, however long', () => {
    const ids = Array.from({ length: 5000 }, (_, at) => `s${at}`)
    const links = ids.slice(1).map((inner, at) => ({ outer: ids[at]!, inner, nat: true as const }))
    expect(translationDepths(ids, links)!.get('s4999')).toBe(4999)
    expect(
      translationDepths(
        ['a', 'b', 'c', 'd'],
        [
          ['a', 'b'],
          ['a', 'd'],
          ['b', 'c'],
          ['c', 'd']
        ].map(([outer, inner]) => ({ outer: outer!, inner: inner!, nat: true as const }))
      )!.get('d')
    ).toBe(3)
  })

  it('texts are in order of their code points', () =>
    expect(['\u{1F41A}', '\uFFFD', 'a', 'Z'].sort(byCodePoint)).toEqual(['Z', 'a', '\uFFFD', '\u{1F41A}']))
})
