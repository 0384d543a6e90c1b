import { home, idOf, opened, study, type Log } from '@pasado/testing/logbook'
import type { RuleCase } from './prove-rule-cases'

export const hallRouter = idOf('hall')
export const reed = idOf('reed')
const street = idOf('street')
const [modem, main, own] = [idOf('modem'), idOf('main'), idOf('own')]

export const stays = (id: string, set: Record<string, unknown>) => (log: Log) => log.write('stays.set', { id, set })
const seenOn = (address: string, server: string) => (log: Log) =>
  log.write('path.seen', { unit: reed, before: 0, after: 1, address, server })

/** An extender paired by button with the customer's router, which stays and gives addresses. */
export const beside = (): Log =>
  opened({ accessLine: 'fibre', reason: 'extend' })
    .write('segment.set', {
      id: home,
      set: { name: 'Home', use: 'home', cidr: '192.168.1.0/24', gateway: '192.168.1.1' }
    })
    .write('stays.set', {
      id: hallRouter,
      set: {
        kind: 'router',
        makeModel: 'Marlin 7',
        address: '192.168.1.1',
        segment: home,
        givesAddresses: 'yes',
        place: 'hall'
      }
    })
    .write('unit.set', {
      id: reed,
      set: { name: 'Landing extender', model: 'quillet-reed', modelVersion: 1, role: 'extender', method: 'push-button' }
    })
    .write('network.set', {
      id: main,
      set: { ssid: 'Razorbill', use: 'main', security: 'wpa2-aes', segment: home }
    })
    .write('pairing.pressed', { unit: reed, which: 'first', on: hallRouter })
    .write('pairing.pressed', { unit: reed, which: 'second', on: reed })
    .write('unit.event', { unit: reed, what: 'tested-good' })
    .write('path.seen', { unit: reed, before: 0, after: 1, address: '192.168.1.23', server: hallRouter })
    .write('measurement.set', {
      id: idOf('src'),
      set: { at: 'source', runs: [{ downMbps: 302, idleMs: 9 }], by: 'laptop', how: 'typed' }
    })
    .write('room.set', { id: study, set: { name: 'Lounge', listed: true } })
    .write('measurement.set', {
      id: idOf('mst'),
      set: {
        at: 'room',
        room: study,
        unit: hallRouter,
        band: '5',
        dbm: -58,
        runs: [{ downMbps: 210, upMbps: 48, idleMs: 14 }],
        by: 'phone',
        how: 'typed'
      }
    })

/** A router of ours behind a modem that stays, with the cable between them. */
const behindModem = (): Log =>
  opened({ accessLine: 'fibre' })
    .write('stays.set', { id: modem, set: { kind: 'modem', makeModel: 'Provider’s modem', whose: 'provider' } })
    .write('unit.set', {
      id: own,
      set: { name: 'Study router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
    })
    .write('cable.set', {
      id: street,
      set: {
        a: { thing: 'unit', id: own, port: 'internet' },
        b: { thing: 'stays', id: modem, port: 'lan-1' },
        kind: 'network',
        category: 'cat5e',
        linkMbps: 1000
      }
    })
const pool = (from: string, to: string) => (log: Log) =>
  log.write('pool.set', { id: idOf('pool'), set: { segment: home, unit: hallRouter, from, to } })
const ourHost = (address: string) => (log: Log) =>
  log.write('host.set', { id: idOf('hn'), set: { unit: reed, segment: home, address } })

/** A router of ours serves the home. */
const ownServes = (log: Log) =>
  log
    .write('unit.set', { id: own, set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' } })
    .write('pool.set', {
      id: idOf('pool'),
      set: { segment: home, unit: own, from: '192.168.1.100', to: '192.168.1.199' }
    })

/** What stays: it gives addresses, opens a pairing, has ports and air, and nothing of ours is asked of it. */
export const stayCases: RuleCase[] = [
  ['prove-path', 'an address that what stays gave', beside, () => 0, 'holds'],
  ['prove-path', 'outside the range of what stays', beside, seenOn('192.168.2.23', hallRouter), 'breaks'],
  ['prove-path', 'from what stays, outside its pool', beside, pool('192.168.1.100', '192.168.1.199'), 'breaks'],
  [
    'prove-path',
    'from what stays, out of its pool',
    beside,
    (log) => seenOn('192.168.1.24', hallRouter)(pool('192.168.1.20', '192.168.1.99')(log)),
    'holds'
  ],
  [
    'prove-path',
    'from what stays and gives no addresses',
    beside,
    (log) => seenOn('192.168.1.24', hallRouter)(stays(hallRouter, { givesAddresses: 'no' })(log)),
    'breaks'
  ],
  [
    'prove-path',
    'from what stays, and whether it gives addresses nobody said',
    beside,
    (log) => seenOn('192.168.1.24', hallRouter)(stays(hallRouter, { givesAddresses: null })(log)),
    'unproven'
  ],
  [
    'prove-path',
    'from something else that stays than gives addresses here',
    beside,
    (log) => seenOn('192.168.1.24', modem)(stays(modem, { kind: 'modem', name: 'Modem' })(log)),
    'breaks'
  ],
  ['addr-one-dhcp', 'what stays gives addresses, and nobody else', beside, () => 0, 'holds'],
  [
    'addr-one-dhcp',
    'what stays and a unit of ours',
    beside,
    (log) => log.write('unit.set', { id: reed, set: { dhcpServer: 'on' } }),
    'breaks'
  ],
  [
    'addr-one-dhcp',
    'what stays is said to give none, and its pool is recorded',
    beside,
    (log) => pool('192.168.1.100', '192.168.1.199')(stays(hallRouter, { givesAddresses: 'no' })(log)),
    'breaks'
  ],
  [
    'addr-one-dhcp',
    'one of ours serves, and whether what stays does nobody said',
    beside,
    (log) => ownServes(stays(hallRouter, { givesAddresses: null })(log)),
    'unproven'
  ],
  [
    'addr-one-dhcp',
    'one of ours serves, and what stays gives none',
    beside,
    (log) => ownServes(stays(hallRouter, { givesAddresses: 'no' })(log)),
    'holds'
  ],
  [
    'addr-one-dhcp',
    'what stayed and gave addresses is gone',
    beside,
    (log) => log.write('thing.removed', { thing: 'stays', id: hallRouter }),
    'unproven'
  ],
  ['addr-valid', 'an address of ours that the gateway that stays has', beside, ourHost('192.168.1.1'), 'breaks'],
  [
    'addr-unique',
    'an address of ours that a printer that stays has',
    beside,
    (log) => ourHost('192.168.1.50')(stays(modem, { kind: 'printer', address: '192.168.1.50', segment: home })(log)),
    'breaks'
  ],
  ['addr-unique', 'an address of its own', beside, ourHost('192.168.1.20'), 'holds'],
  [
    'addr-valid',
    'what stays has an address outside its range',
    beside,
    stays(hallRouter, { address: '10.0.0.1' }),
    'breaks'
  ],
  ['addr-reachable', 'the page of what stays is not asked for', beside, () => 0, 'not-here'],
  [
    'addr-single-nat',
    'a router of ours behind one that stays',
    beside,
    (log) =>
      log.write('unit.set', {
        id: own,
        set: { name: 'Router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
      }),
    'breaks'
  ],
  ['start-method-window', 'paired with what stays', beside, () => 0, 'holds'],
  ['prove-rooms', 'a room on the air of what stays', beside, () => 0, 'holds'],
  ['cable-mode', 'the internet from a modem that stays', behindModem, () => 0, 'holds'],
  [
    'cable-mode',
    'the internet from the side of its line',
    behindModem,
    (log) => log.write('cable.set', { id: street, set: { b: { thing: 'stays', id: modem, port: 'line' } } }),
    'breaks'
  ],
  ['cable-mode', 'the internet from a printer', behindModem, stays(modem, { kind: 'printer' }), 'breaks'],
  ['cable-modem-restart', 'a modem that stays, not restarted since', behindModem, () => 0, 'unproven'],
  [
    'cable-modem-restart',
    'a modem that stays, restarted after the cable',
    behindModem,
    (log) => log.write('unit.event', { unit: modem, what: 'restarted' }),
    'holds'
  ],
  ...['kit-identity', 'firm-recorded', 'cred-admin', 'start-good-lamp', 'kit-reset'].map((rule): RuleCase => [
    rule,
    'nothing of it is asked of what stays',
    () => stays(hallRouter, { kind: 'router', name: 'Hall router' })(opened()),
    () => 0,
    rule === 'kit-identity' ? 'unproven' : 'not-here'
  ])
]
