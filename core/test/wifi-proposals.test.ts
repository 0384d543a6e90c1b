import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deviceSecurities } from '@pasado/core/record/things/device'
import { standing, thingsOf } from '@pasado/core/record/record'
import type { Policy } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { makeNetworkName } from '@pasado/core/work/wifi/make-name'
import { takesPassphraseFrom } from '@pasado/core/work/wifi/passphrase'
import { nameProblem, proposeNetworks, type ProposedNetwork } from '@pasado/core/work/wifi/propose'
import { adviseSecurity, canJoin } from '@pasado/core/work/wifi/security'
import { catalogue, complete, home, idOf, network, type Log, node } from '@pasado/testing/logbook'

const extender = (log: Log) =>
  log.write('unit.set', {
    id: idOf('reed'),
    set: { name: 'Landing extender', model: 'quillet-reed', modelVersion: 1, role: 'extender' }
  })
const take = (log: Log, { networks, surplus }: { networks: ProposedNetwork[]; surplus: string[] }) => {
  networks.forEach(({ existing, set }, at) =>
    log.write('network.set', { id: existing ?? idOf(`p${at}${set.ssid}`), set })
  )
  for (const id of surplus) log.write('thing.removed', { thing: 'network', id })
}
const wifiRules = ['wifi-name', 'wifi-naming-school', 'wifi-security', 'wifi-segment']

describe('names and security by the school', () => {
  it('whatever the schools, the devices and what was recorded before, the rules find nothing against what is proposed, and every device can join', () => {
    fc.assert(
      fc.property(
        fc.record({
          bands: fc.constantFrom('one-name' as const, 'one-a-band' as const),
          extenders: fc.constantFrom('same' as const, 'suffix' as const),
          least: fc.constantFrom('wpa2-aes' as const, 'wpa2-wpa3' as const, 'wpa3' as const),
          withExtender: fc.boolean(),
          guests: fc.boolean(),
          guestSegment: fc.boolean(),
          before: fc.constantFrom(...(['one-name', 'one-a-band', 'none'] as const)),
          devices: fc.array(fc.record({ security: fc.constantFrom(...deviceSecurities), narrow: fc.boolean() }), {
            maxLength: 4
          })
        }),
        ({ bands, extenders, least, withExtender, guests, guestSegment, before, devices }) => {
          const policy: Policy = {
            ...firstStandard.policy,
            bandNames: bands,
            extenderNames: extenders,
            leastSecurity: least
          }
          const log = complete()
          if (withExtender) extender(log)
          if (guests) log.write('choice.answered', { choice: 'guest', answer: 'yes' })
          if (guestSegment)
            log.write('segment.set', {
              id: idOf('gs'),
              set: { name: 'Guests', use: 'guests', cidr: '192.168.40.0/24', gateway: '192.168.40.1' }
            })
          if (before === 'none') log.write('thing.removed', { thing: 'network', id: network })
          devices.forEach(({ security, narrow }, at) =>
            log.write('device.set', {
              id: idOf(`d${at}`),
              set: { name: `Thing ${at}`, security, bands: narrow ? ['2.4'] : ['2.4', '5'] }
            })
          )
          if (before === 'one-a-band') {
            const other = proposeNetworks(log.record(), catalogue, { ...policy, bandNames: 'one-a-band' }, 'Puffin')
            if ('networks' in other) take(log, other)
          }
          const found = proposeNetworks(log.record(), catalogue, policy, 'Turnstone')
          if ('problem' in found) throw new Error(found.problem)
          take(log, found)
          const standard = { ...firstStandard, policy }
          const broken = wifiRules
            .flatMap((rule) => log.judge(rule, standard))
            .filter(({ outcome }) => outcome === 'breaks')
          expect(broken.map(({ rule, evidence }) => `${rule}: ${evidence}`)).toEqual([])
          const networks = standing(log.record().networks)
          for (const device of standing(thingsOf(log.record(), 'device')))
            expect(
              networks.some(
                ({ facts }) =>
                  canJoin(device.facts.security, facts.security!) &&
                  facts.bands!.some((band) => device.facts.bands!.includes(band))
              )
            ).toBe(true)
          // Taken once, nothing is left to change.
          const again = proposeNetworks(log.record(), catalogue, policy, 'Turnstone')
          expect(
            'networks' in again && again.networks.every(({ existing }) => existing !== null) && again.surplus
          ).toEqual([])
        }
      ),
      { numRuns: 120 }
    )
  })

  it('one old device gets a network apart instead of less for all', () => {
    const advice = adviseSecurity(
      [{ facts: { name: 'Old printer', security: 'wpa-tkip' } }, { facts: { name: 'Phone', security: 'wpa3' } }],
      'wpa2-aes'
    )
    expect(advice).toMatchObject({ main: 'wpa3', apart: { security: 'wpa-tkip', devices: ['Old printer'] } })
    expect(advice.reason).toContain('Old printer')
    expect(adviseSecurity([], 'wpa2-aes')).toMatchObject({ main: 'wpa2-wpa3', apart: null })
    expect(adviseSecurity([{ facts: { name: 'Kettle', security: 'wpa2-aes' } }], 'wpa3')).toMatchObject({
      main: 'wpa3',
      apart: { security: 'wpa2-aes' }
    })
  })

  it('a name that tells too much, is a default, ends in a blank or leaves no room is refused with the reason', () => {
    const record = complete().record()
    expect(nameProblem('Oakum home', record, catalogue)).toContain('who lives here')
    expect(nameProblem('Trawl', record, catalogue)).toContain('Trawl')
    expect(nameProblem('Puffin ', record, catalogue)).toContain('blank')
    expect(nameProblem('', record, catalogue)).toContain('empty')
    const heron = catalogue.get('ostrel-heron@1')!
    expect(nameProblem(`${heron.defaultSsidPrefix}AB12`, record, catalogue)).toContain('comes with')
    expect(proposeNetworks(record, catalogue, firstStandard.policy, 'n'.repeat(30))).toHaveProperty(
      'problem',
      expect.stringContaining('30 octets')
    )
    expect(nameProblem('Möwe 🐦', record, catalogue)).toBeNull()
  })

  it('what is one network to the customer has one passphrase, and no rule calls that a secret used twice', () => {
    const log = complete()
    extender(log)
    log.secret('label-key', 'unit', idOf('reed'))
    log.write('network.set', {
      id: idOf('ext'),
      set: {
        ssid: 'Razorbill',
        use: 'main',
        bands: ['2.4'],
        security: 'wpa2-wpa3',
        segment: home,
        extender: idOf('reed')
      }
    })
    expect(takesPassphraseFrom(log.record(), log.record().networks[idOf('ext')])).toBe(network)
    expect(log.judge('wifi-passphrase').map(({ outcome }) => outcome)).toEqual(['holds', 'holds'])
    const own =
      log.record().secrets[Object.keys(log.record().secrets).find((ref) => log.record().secrets[ref]!.id === network)!]!
    log.secret('wifi-passphrase', 'network', idOf('ext'), { print: own.assessed.print })
    expect(log.judge('wifi-passphrase').map(({ outcome }) => outcome)).toEqual(['holds', 'holds'])
    // A guest network is another one: the same passphrase there breaks both rules.
    log
      .write('network.set', {
        id: idOf('g'),
        set: {
          ssid: 'Razorbill guests',
          use: 'guest',
          bands: ['2.4'],
          security: 'wpa2-aes',
          segment: home,
          isolated: true
        }
      })
      .secret('wifi-passphrase', 'network', idOf('g'), { print: own.assessed.print })
    expect(log.judge('wifi-passphrase').map(({ outcome }) => outcome)).toContain('breaks')
    expect(log.judge('wifi-guest').map(({ outcome }) => outcome)).toEqual(['breaks'])
  })

  it('a passphrase is held against secrets that are in force, not against one that was replaced', () => {
    const log = complete()
    const own = Object.values(log.record().secrets).find(({ purpose }) => purpose === 'wifi-passphrase')!
    log.secret('admin-password', 'unit', node, { print: own.assessed.print })
    expect(log.judge('wifi-passphrase')).toMatchObject([
      { outcome: 'breaks', evidence: expect.stringContaining('admin password') as string }
    ])
    log.secret('admin-password', 'unit', node, { print: 'another' })
    expect(log.judge('wifi-passphrase')).toMatchObject([{ outcome: 'holds' }])
  })

  it('a made name is two plain words, and always one the rules take', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(2047), { minLength: 2, maxLength: 2 }), (numbers) => {
        const left = [...numbers]
        const name = makeNetworkName((below) => left.shift()! % below)
        expect(name).toMatch(/^[A-Z][a-z]{2,8} [A-Z][a-z]{2,8}$/)
        expect(nameProblem(name, complete().record(), catalogue) ?? '').not.toContain('octets')
      })
    )
  })
})
