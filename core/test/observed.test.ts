import { describe, expect, it } from 'vitest'
import { House, playHouse } from '@pasado/core/house/house'
import { observeAll, observeHouse } from '@pasado/core/house/observed'
import { observationOf, observations } from '@pasado/core/work/diagnose/observations'
import { faultyHouse, plantable } from '@pasado/demo/faulty-houses'
import { demoHouses } from '@pasado/demo/houses'
import { catalogue } from '@pasado/testing/logbook'

const seeds = [1, 2, 3, 4, 5, 6]
type Cause = (typeof plantable)[number]

/** What is seen of each cause in whatever house, all that its planted fault changes among it. */
const seen: Record<Cause, Record<string, unknown>> = {
  'backhaul-weak': { 'hop-signal': expect.stringMatching(/^(?:weak|none)$/), family: 'same' },
  'too-far': { 'signal-room': 'weak' },
  'bad-wan-cable': {
    'router-lamp': 'no-internet',
    'wan-link': 'none',
    'swap-wan-cable': 'helped',
    'wired-router': 'no',
    'wan-address': 'none',
    'wired-modem': 'yes',
    'ping-number': 'no'
  },
  'line-down': { 'line-lamp': 'no-line', 'wired-modem': 'no', 'provider-status': 'outage', others: 'down' },
  'modem-stuck': { 'line-lamp': 'good', 'restart-modem': 'helped', 'wired-modem': 'no', 'provider-status': 'none' },
  'channel-crowded': { 'channel-busy': 'busy' },
  'wrong-network': { 'network-name': 'other', 'client-count': 'stays', rejoin: 'helped', 'wifi-unit': 'no' },
  'bad-unit-cable': { address: 'none', 'unit-link': 'none', 'swap-unit-cable': 'helped', 'ping-number': 'no' },
  'wrong-port': { ports: 'wrong', 'wan-address': 'none' },
  'pairing-missed': { 'pairing-time': 'late' },
  'provider-settings': { 'line-lamp': 'login', 'wired-modem': 'no', 'provider-status': 'none' },
  'double-dhcp': { 'dhcp-servers': 'two' },
  'wrong-passphrase': { 'unit-lamp': 'ready', 'wifi-unit': 'no-network', rejoin: 'helped', 'pairing-time': 'in-time' },
  dns: { 'wired-router': 'no', 'ping-number': 'yes', 'name-lookup': 'no' },
  'radio-off': { 'unit-lamp': 'radio-off', 'wifi-unit': 'no-network', 'client-count': 'stays' },
  'old-firmware': { firmware: 'old' },
  'nat-clash': { 'wan-address': 'same-range' },
  'address-clash': { 'duplicate-address': 'yes' },
  'wrong-adapter': { 'unit-lamp': 'starts-over', 'adapter-label': 'other' },
  'unit-broken': { 'unit-lamp': 'starts-over', 'adapter-label': 'own' },
  'family-mismatch': { family: 'other' }
}

const truth = (cause: Cause, seed: number) => {
  const { definition, actions, complaint } = faultyHouse(cause, seed)
  return observeAll(playHouse(definition, actions, catalogue), complaint)
}

describe('what somebody truthful answers in a house', () => {
  it('has its row for every cause that can be planted', () => {
    expect(Object.keys(seen).sort()).toEqual([...plantable].sort())
  })

  it.each(plantable)('%s: what tells of it, in whatever house', (cause) => {
    for (const seed of seeds) expect(truth(cause, seed), `seed ${seed}`).toMatchObject(seen[cause])
  })

  it.each(plantable)('%s: only what can be answered is, and nobody is asked what its people did', (cause) => {
    for (const seed of seeds)
      for (const [id, answer] of Object.entries(truth(cause, seed))) {
        expect(
          observationOf(id)!.answers.map((item) => item.id),
          id
        ).toContain(answer)
        expect(id).not.toBe('changed-last')
      }
  })

  it('one question is answered as among all of them, and the same each time', () => {
    const { definition, actions, complaint } = faultyHouse('bad-wan-cable', 2)
    const house = playHouse(definition, actions, catalogue)
    const all = observeAll(house, complaint)
    for (const { id } of observations)
      for (let turn = 0; turn < 2; turn++) expect(observeHouse(house, complaint, id), id).toBe(all[id] ?? null)
  })

  it('of a unit that is not there nothing is told', () => {
    const { definition, complaint } = faultyHouse('dns', 1)
    const house = new House(definition, catalogue)
    expect(observeAll(house, { ...complaint, unit: 'nobody' })).toEqual({})
    expect(observeHouse(house, { ...complaint, unit: 'nobody' }, 'line-lamp')).toBeNull()
  })

  it('a cable that hangs loose at the modem leads to no router: nothing is told of its link, nor by swapping it', () => {
    const { definition, complaint } = faultyHouse('bad-unit-cable', 1)
    const loose = { id: 'loose', kind: 'network' as const, category: 'cat5e' as const, lengthM: 1 }
    const house = new House(
      {
        ...definition,
        faults: [],
        cables: [{ ...loose, a: definition.cables.at(-1)!.a! }, ...definition.cables.slice(0, -1)]
      },
      catalogue
    )
    expect(definition.units.some(({ role }) => role === 'router')).toBe(false)
    for (const id of ['wan-link', 'swap-wan-cable', 'ports', 'wan-address'] as const)
      expect(observeHouse(house, complaint, id), id).toBeNull()
  })

  it('before anything is plugged in every lamp is dark, and nothing comes through', () => {
    const [definition] = demoHouses
    const house = new House(
      { ...definition!, units: definition!.units.map((unit) => ({ ...unit, running: false })) },
      catalogue
    )
    const node = definition!.units.find(({ role }) => role === 'node')!
    const all = observeAll(house, { unit: node.id, where: { storey: 'Ground floor', x: 1, y: 1, heightM: 1 } })
    expect(all).toMatchObject({
      'line-lamp': 'dark',
      'router-lamp': 'dark',
      'unit-lamp': 'dark',
      'wired-modem': 'no',
      'ping-number': 'no',
      'client-count': 'stays',
      others: 'down'
    })
    expect(all).not.toHaveProperty('pairing-time')
  })
})
