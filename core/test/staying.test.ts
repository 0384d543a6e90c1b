import { describe, expect, it } from 'vitest'
import { equipmentOf, staysName } from '@pasado/core/record/equipment'
import { staysWords } from '@pasado/core/documents/stays-words'
import { asStaying, rangeOfStays } from '@pasado/core/work/addresses/staying'
import { complete, home, idOf, opened, router } from '@pasado/testing/logbook'
import { beside, hallRouter } from './stays-cases'

describe('the range of what stays', () => {
  it('is the segment that holds its address', () => {
    expect(rangeOfStays(beside().record(), { kind: 'printer', address: '192.168.1.60' })).toEqual({ segment: home })
  })

  it('is recorded with it where there is none: the home’s first, then what lies outside', () => {
    expect(rangeOfStays(opened().record(), { kind: 'router', address: '192.168.7.1' })).toEqual({
      add: { name: 'Home', use: 'home', cidr: '192.168.7.0/24', gateway: '192.168.7.1' }
    })
    expect(rangeOfStays(beside().record(), { kind: 'modem', address: '10.1.2.254', givesAddresses: 'yes' })).toEqual({
      add: { name: 'Outside', use: 'provider', cidr: '10.1.2.0/24' }
    })
  })

  it('is not guessed of what neither routes nor gives addresses, nor from what is no address', () => {
    expect(rangeOfStays(opened().record(), { kind: 'modem', address: '192.168.100.1' })).toBeNull()
    expect(rangeOfStays(opened().record(), { kind: 'router', address: '192.168.1' })).toBeNull()
    expect(rangeOfStays(opened().record(), { kind: 'router' })).toBeNull()
  })
})

describe('a unit that is turned into something that stays', () => {
  const turned = () => {
    const log = complete()
    return log
      .write('stays.set', { id: router, set: asStaying(log.record(), log.record().units[router]!) })
      .write('thing.removed', { thing: 'unit', id: router })
  }

  it('keeps what is known of it', () => {
    const log = complete()
    expect(asStaying(log.record(), log.record().units[router]!)).toEqual({
      kind: 'router',
      name: 'Hall router',
      model: 'ostrel-heron',
      modelVersion: 1,
      place: 'hall',
      address: '192.168.1.1',
      segment: home,
      givesAddresses: 'yes'
    })
  })

  it('goes on serving its pool, with what it gave proven anew', () => {
    const log = turned()
    expect(log.judge('addr-one-dhcp').map(({ outcome, evidence }) => [outcome, evidence])).toEqual([
      ['holds', 'Exactly one DHCP server: Hall router.']
    ])
    expect(equipmentOf(log.record(), router)).toMatchObject({ name: 'Hall router', isHere: true, unit: null })
    expect(log.judge('addr-unique').map(({ outcome }) => outcome)).toEqual(['holds'])
    log.write('path.seen', { unit: idOf('node'), before: 0, after: 1, address: '192.168.1.104', server: router })
    expect(log.judge('prove-path').map(({ outcome }) => outcome)).toEqual(['holds'])
  })

  it('is ours again when it is turned back', () => {
    const log = turned()
      .write('thing.removed', { thing: 'stays', id: router })
      .write('thing.restored', { thing: 'unit', id: router })
    expect(equipmentOf(log.record(), router)).toMatchObject({ isHere: true, stays: null })
    expect(log.judge('addr-one-dhcp').map(({ outcome }) => outcome)).toEqual(['holds'])
  })
})

it('what stays is told in one line', () => {
  const stays = beside().record().stays![hallRouter]!
  expect([staysName(stays), staysWords(stays)]).toEqual([
    'Marlin 7',
    'router · 192.168.1.1 · gives addresses · stands at hall'
  ])
})

it('it is restarted and looked at as units are, and its lines say whose they are', () => {
  const log = beside()
    .write('unit.event', { unit: hallRouter, what: 'restarted' })
    .write('lamp.seen', { unit: hallRouter, lamps: [{ lamp: 'power', colour: 'green', pattern: 'solid' }] })
  const { events, sightings } = log.record().stays![hallRouter]!
  expect([events.map(({ what }) => what), sightings.length]).toEqual([['restarted'], 1])
})
