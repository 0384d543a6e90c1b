import { idOf, complete, home, network, node, opened, router, type Log } from '@pasado/testing/logbook'
import { channels, type RuleCase } from './prove-rule-cases'
import { choices, drawn, planned } from './rule-cases'
import { beside, hallRouter } from './stays-cases'
import { unseen } from './stale-cases'

const [second, third, ground] = [idOf('second'), idOf('third'), idOf('ground')]
const unit = (id: string, set: Record<string, unknown>) => (log: Log) => log.write('unit.set', { id, set })
const both = (set: Record<string, unknown>) => (log: Log) => [router, node].map((id) => unit(id, set)(log))
const net = (set: Record<string, unknown>) => (log: Log) => log.write('network.set', { id: network, set })
const another = (set: Record<string, unknown>) => (log: Log) => log.write('network.set', { id: second, set })
const range = (set: Record<string, unknown>) => (log: Log) => log.write('segment.set', { id: home, set })
const printer =
  (address: string, set: Record<string, unknown> = {}) =>
  (log: Log) =>
    log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home, address, ...set } })
const all =
  (...changes: ((log: Log) => unknown)[]) =>
  (log: Log) =>
    changes.forEach((change) => change(log))
const nothing = () => 0
const secretOf =
  (purpose: 'wifi-passphrase' | 'admin-password', id: string, assessed: Record<string, unknown>) => (log: Log) =>
    log.secret(purpose, purpose === 'wifi-passphrase' ? 'network' : 'unit', id, assessed)
/** An old router that is an access point now, all of it switched off, with no address yet. */
const oldRouter = (set: Record<string, unknown> = {}) =>
  unit(second, {
    name: 'Old router',
    model: 'oldmere-weir',
    modelVersion: 1,
    role: 'access-point',
    dhcpServer: 'off',
    dhcpRelay: 'off',
    secondaryAddress: 'off',
    ...set
  })
const ofOldRouter = (set: Record<string, unknown>) => (log: Log) =>
  log.write('host.set', { id: idOf('ho'), set: { unit: second, ...set } })
const removed = (thing: 'segment' | 'pool' | 'host' | 'network' | 'unit', id: string) => (log: Log) =>
  log.write('thing.removed', { thing, id })
/** The complete visit without one fact of a unit. */
const unsaid = (id: string, field: string) => unit(id, { [field]: null })
const old = (returns: 'customer' | 'recycled') => (log: Log) =>
  log.write('fitting.set', { id: idOf('old'), set: { kind: 'old-router', disconnected: true, returns } })
const measured = (set: Record<string, unknown>) => (log: Log) => log.write('measurement.set', { id: idOf('src'), set })
const eel = (id: string, x: number) =>
  unit(id, { name: 'Eel', model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter', storey: ground, x, y: 2 })
const lampsOf =
  (id: string, lamps: Record<string, [colour: string, pattern: 'solid' | 'blink' | 'off']>) => (log: Log) =>
    log.write('lamp.seen', {
      unit: id,
      lamps: Object.entries(lamps).map(([lamp, [colour, pattern]]) => ({ lamp, colour, pattern }))
    })

/** A node in a long room, farther than the plan is sure of. */
const far = () =>
  drawn()
    .write('room.set', { id: idOf('r2'), set: { widthM: 20 } })
    .write('unit.set', { id: node, set: { x: 16 } })
const readBeside = (set: Record<string, unknown>) => (log: Log) =>
  log.write('reading.set', {
    id: idOf('read'),
    set: { room: idOf('r2'), unit: router, band: '5', dbm: -55, x: 16, y: 2, ...set }
  })
const withPortsTested = () => {
  const log = complete()
  for (const id of [router, node])
    log.write('measurement.set', {
      id: idOf(`port ${id}`.slice(-8)),
      set: { at: 'port', unit: id, runs: [{ downMbps: 290 }] }
    })
  return log
}

/** Each sentence that a rule can say and no other case brings it to say: said.test.ts holds that none is left. */
export const sentenceCases: RuleCase[] = [
  [
    'addr-applied',
    'a change was taken off the list that is not in it any more',
    complete,
    (log) => log.write('rule.answered', { rule: 'addr-applied', subject: `${idOf('gone')} wifi`, answer: 'no' }),
    'unproven'
  ],
  ['addr-valid', 'outside its range', complete, printer('192.168.7.9'), 'breaks'],
  ['addr-valid', 'the network’s own address', complete, printer('192.168.1.0'), 'breaks'],
  ['addr-valid', 'the address for broadcasts', complete, printer('192.168.1.255'), 'breaks'],
  ['addr-valid', 'no range of its segment', complete, all(range({ cidr: null }), printer('192.168.1.9')), 'unproven'],
  [
    'addr-one-dhcp',
    'a provider’s own range',
    complete,
    all(range({ use: 'provider' }), (log) => log.write('pool.set', { id: idOf('pool'), set: { unit: null } })),
    'holds'
  ],
  ['addr-one-dhcp', 'no range at all', complete, removed('segment', home), 'unproven'],
  ['addr-ap-mode', 'all off, and no address of its own', complete, oldRouter(), 'unproven'],
  [
    'addr-ap-mode',
    'an address in another range than the main one',
    complete,
    all(
      oldRouter(),
      (log) => log.write('segment.set', { id: third, set: { name: 'Guests', use: 'guests', cidr: '192.168.2.0/24' } }),
      ofOldRouter({ segment: third, address: '192.168.2.4' })
    ),
    'breaks'
  ],
  ['brief-method', 'none chosen', complete, unsaid(node, 'method'), 'unproven'],
  [
    'brief-line-alarm',
    'several of them, and nobody told',
    () => opened({ lineCarries: 'several' }),
    nothing,
    'unproven'
  ],
  ['cable-old-kit', 'stays with the customer', complete, old('customer'), 'holds'],
  ['cable-old-kit', 'is recycled', complete, old('recycled'), 'holds'],
  [
    'cred-admin',
    'a default login of another label',
    complete,
    (log) =>
      log
        .secret('label-login', 'unit', router, { print: 'as-printed' })
        .secret('admin-password', 'unit', node, { print: 'as-printed' }),
    'breaks'
  ],
  [
    'cred-admin',
    'the default key of a label',
    complete,
    secretOf('admin-password', node, { print: `label-key-${router}` }),
    'breaks'
  ],
  ['cred-admin', 'a setup code', complete, secretOf('admin-password', node, { print: `setup-code-${node}` }), 'breaks'],
  [
    'cred-admin',
    'a passphrase of the Wi-Fi',
    complete,
    secretOf('admin-password', node, { print: `wifi-passphrase-${network}` }),
    'breaks'
  ],
  [
    'cred-admin',
    'what was a passphrase until it was replaced',
    complete,
    all(
      secretOf('wifi-passphrase', network, { print: 'newer' }),
      secretOf('admin-password', node, { print: `wifi-passphrase-${network}` })
    ),
    'holds'
  ],
  ['cred-admin', 'used at another home', complete, secretOf('admin-password', node, { usedElsewhere: true }), 'breaks'],
  ['cred-admin', 'weaker than the standard wants', complete, secretOf('admin-password', node, { score: 2 }), 'breaks'],
  [
    'cred-admin',
    'just as strong as the standard wants',
    complete,
    secretOf('admin-password', node, { score: 3 }),
    'holds'
  ],
  ['cred-local-admin', 'from outside as well', complete, both({ localAdminOnly: false }), 'breaks'],
  ['cred-local-admin', 'remote administration not recorded', complete, both({ remoteAdmin: null }), 'unproven'],
  ['cred-account', 'technicians’ accounts not looked at', complete, both({ technicianRemoved: null }), 'unproven'],
  ['cred-account', 'a technician’s account left on it', complete, both({ technicianRemoved: false }), 'breaks'],
  ['cred-account', 'no account is used', complete, both({ accountOwner: 'none' }), 'holds'],
  ['firm-minimum', 'withdrawn, and nothing newer', complete, both({ firmwareAfter: '3.0.0' }), 'breaks'],
  [
    'firm-minimum',
    'of which the number does not tell whether it is newer',
    complete,
    unit(node, { firmwareAfter: '3.0.2b' }),
    'unproven'
  ],
  [
    'firm-same',
    'two of which the number does not tell which is newer',
    complete,
    all(unit(router, { firmwareAfter: '3.1.0' }), unit(node, { model: 'ostrel-heron', firmwareAfter: '3.1.0b' })),
    'breaks'
  ],
  ['kit-identity', 'a model that nobody recorded', complete, unsaid(node, 'model'), 'unproven'],
  ['kit-identity', 'one serial twice', complete, both({ serial: 'HE1-1', model: 'ostrel-tern' }), 'breaks'],
  [
    'kit-identity',
    'recorded in a visit elsewhere that is open',
    complete,
    (log) =>
      log.write('unit.elsewhere', {
        unit: node,
        found: [
          {
            by: 'serial',
            home: idOf('other home'),
            visit: idOf('other visit'),
            since: '2025-11-02T10:00:00.000Z',
            sealed: false
          }
        ]
      }),
    'breaks'
  ],
  [
    'kit-complete',
    'a box that is in no catalogue',
    complete,
    (log) => log.write('box.set', { id: idOf('box2'), set: { model: 'no-such', modelVersion: 1 } }),
    'unproven'
  ],
  ['kit-role', 'two roles that do not go together', complete, unit(router, { alsoRole: 'node' }), 'breaks'],
  [
    'place-outlet',
    'powered over its cable by a network socket',
    planned,
    all(
      (log) => log.write('outlet.set', { id: idOf('o3'), set: { storey: ground, kind: 'network', x: 9, y: 2.5 } }),
      unit(node, { model: 'tolvane-spindle', role: 'access-point' })
    ),
    'holds'
  ],
  [
    'place-outlet',
    'powerline on circuits that nobody noted',
    planned,
    all(eel(second, 1), eel(third, 8.5)),
    'unproven'
  ],
  [
    'place-clear',
    'in the open, some way off',
    planned,
    all(both({ cabinet: false }), (log) =>
      log.write('trouble.set', { id: idOf('t1'), set: { kind: 'fish-tank', storey: ground, x: 5, y: 3.5 } })
    ),
    'holds'
  ],
  ['place-height', 'too high', planned, unit(node, { heightM: 2.6 }), 'breaks'],
  [
    'place-spacing',
    'farther than the plan is sure of, and nobody read it',
    drawn,
    all((log) => log.write('room.set', { id: idOf('r2'), set: { widthM: 20 } }), unit(node, { x: 16 })),
    'unproven'
  ],
  [
    'place-floors',
    'not in the plan, and why without a cable is said',
    complete,
    unit(node, { floorsReason: 'Rented walls' }),
    'holds'
  ],
  [
    'prove-source',
    'the median of several runs',
    complete,
    measured({ runs: [{ downMbps: 280 }, { downMbps: 290 }, { downMbps: 100 }] }),
    'holds'
  ],
  [
    'prove-after-move',
    'two found it otherwise without knowing of each other',
    complete,
    all(
      (log) => log.write('unit.event', { unit: node, what: 'tested-good' }),
      unseen((log) => log.write('unit.event', { unit: node, what: 'tested-bad' }))
    ),
    'unproven'
  ],
  [
    'start-good-lamp',
    'two saw it otherwise without knowing of each other',
    complete,
    all(lampsOf(node, { status: ['white', 'solid'] }), unseen(lampsOf(node, { status: ['amber', 'solid'] }))),
    'unproven'
  ],
  ['wifi-name', 'prepared only', complete, net({ ssid: null, preparedName: 'Guillemot' }), 'unproven'],
  ['wifi-name', 'none yet', complete, net({ ssid: null }), 'unproven'],
  [
    'wifi-passphrase',
    'prepared only',
    complete,
    all(another({ ssid: 'Offices', use: 'office', security: 'wpa2-aes' }), (log) =>
      log.prepared(second, idOf('later'))
    ),
    'unproven'
  ],
  [
    'wifi-passphrase',
    'another secret of the visit',
    complete,
    secretOf('wifi-passphrase', network, { print: `admin-password-${node}` }),
    'breaks'
  ],
  [
    'wifi-passphrase',
    'weak, and WEP at that',
    complete,
    all(net({ security: 'wep' }), secretOf('wifi-passphrase', network, { score: 1, bits: 40 })),
    'breaks'
  ],
  [
    'wifi-guest',
    'nobody said whether they are apart',
    complete,
    another({ ssid: 'Visitors', use: 'guest', security: 'wpa2-aes' }),
    'unproven'
  ],
  [
    'wifi-guest',
    'apart, on an open network',
    complete,
    another({ ssid: 'Visitors', use: 'guest', security: 'open', isolated: true }),
    'holds'
  ],
  [
    'wifi-security',
    'guests apart',
    complete,
    another({ ssid: 'Visitors', use: 'guest', security: 'open', isolated: true }),
    'holds'
  ],
  ['wifi-segment', 'a range for nothing yet', complete, range({ use: null }), 'breaks'],
  [
    'wifi-segment',
    'one VLAN for two ranges',
    complete,
    all(range({ vlan: 20 }), (log) =>
      log.write('segment.set', { id: third, set: { name: 'Guests', use: 'guests', cidr: '192.168.2.0/24', vlan: 20 } })
    ),
    'breaks'
  ],
  [
    'wifi-naming-school',
    'one name a band, as agreed',
    complete,
    all(
      (log) => log.write('brief.set', { set: { bandNames: 'one-a-band' } }),
      net({ bands: ['2.4'] }),
      another({ ssid: 'Guillemot', use: 'main', bands: ['5'], security: 'wpa2-aes' })
    ),
    'holds'
  ],
  ['wifi-pushbutton-off', 'left on as the customer asked', complete, unit(node, { pushButton: 'asked' }), 'holds'],
  [
    'kit-role',
    'two roles of one model that do not go together',
    complete,
    unit(second, { model: 'quillet-reed', modelVersion: 1, role: 'extender', alsoRole: 'access-point' }),
    'breaks'
  ],
  [
    'prove-wired',
    'restarted since a port was tested',
    () =>
      complete().write('measurement.set', {
        id: idOf('port'),
        set: { at: 'port', unit: router, runs: [{ downMbps: 290 }] }
      }),
    (log) => log.write('unit.event', { unit: router, what: 'reset' }),
    'unproven'
  ],
  [
    'place-outlet',
    'powerline that somebody saw in a strip',
    complete,
    all(unit(second, { name: 'Eel', model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter' }), (log) =>
      log.write('rule.answered', { rule: 'place-outlet', subject: second, answer: 'no' })
    ),
    'breaks'
  ],
  [
    'start-good-lamp',
    'one of two lamps, which may mean either',
    complete,
    all(
      unit(second, { model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' }),
      lampsOf(second, { system: ['blue', 'solid'] })
    ),
    'unproven'
  ],
  [
    'start-good-lamp',
    'a look of the one lamp that may mean either',
    complete,
    all(
      unit(second, { model: 'quillet-rush', modelVersion: 1, role: 'node' }),
      lampsOf(second, { status: ['amber', 'solid'] })
    ),
    'unproven'
  ],
  [
    'start-good-lamp',
    'a state that is well in some role, of a unit whose role nobody recorded',
    complete,
    all(
      unit(second, { model: 'quillet-reed', modelVersion: 1 }),
      lampsOf(second, { power: ['green', 'solid'], status: ['green', 'solid'] })
    ),
    'unproven'
  ],
  [
    'wifi-passphrase',
    'of an extender that takes it from what stays',
    beside,
    all(
      (log) => log.write('network.set', { id: idOf('main'), set: { stays: hallRouter } }),
      another({ ssid: 'Razorbill', use: 'main', security: 'wpa2-aes', extender: idOf('reed') })
    ),
    'not-here'
  ],
  [
    'wifi-name',
    'all that is recorded is theirs, and an extender is ours',
    beside,
    (log) => log.write('network.set', { id: idOf('main'), set: { stays: hallRouter } }),
    'unproven'
  ],
  [
    'wifi-naming-school',
    'an extender by the name of the router',
    complete,
    another({ ssid: 'Razorbill', use: 'main', security: 'wpa2-aes', extender: node }),
    'holds'
  ],
  [
    'wifi-name',
    'two named it without having seen each other',
    complete,
    all(net({ ssid: 'Guillemot' }), unseen(net({ ssid: 'Kittiwake' }))),
    'unproven'
  ],
  [
    'wifi-passphrase',
    'two made one without having seen each other',
    complete,
    all(
      secretOf('wifi-passphrase', network, { print: 'one' }),
      unseen(secretOf('wifi-passphrase', network, { print: 'other' }))
    ),
    'unproven'
  ],
  [
    'radio-plan',
    'all on one channel that a neighbour fills',
    complete,
    all(
      channels([1, 36, 20]),
      (log) =>
        log.write('neighbours.noted', {
          networks: [1, 2, 3].map((at) => ({
            ssid: `next ${at}`,
            band: '2.4',
            channel: 1,
            widthMHz: 20,
            dbm: -40 - at,
            busy: 0.6
          }))
        }),
      (log) =>
        log
          .write('radio.set', { id: idOf('n1a'), set: { channel: 6 } })
          .write('radio.set', { id: idOf('n1b'), set: { channel: 44 } })
    ),
    'breaks'
  ],
  [
    'wifi-name',
    'sent by what stays, and nothing of ours sends',
    beside,
    all(removed('unit', idOf('reed')), (log) =>
      log.write('network.set', { id: idOf('main'), set: { stays: hallRouter } })
    ),
    'not-here'
  ],
  ['wifi-name', 'the model of a unit is not recorded', complete, unit(second, { name: 'Landing' }), 'unproven'],
  [
    'wifi-name',
    'the customer’s name is not recorded',
    complete,
    (log) => log.write('brief.set', { set: { customerName: null } }),
    'unproven'
  ],
  [
    'wifi-name',
    'the street is not recorded',
    complete,
    (log) => log.write('brief.set', { set: { street: null } }),
    'unproven'
  ],
  ['wifi-segment', 'what it is for is not recorded', complete, net({ use: null }), 'unproven'],
  [
    'wifi-passphrase',
    'of a network of which nobody said what it is for',
    complete,
    another({ ssid: 'Guillemot', security: 'wpa2-aes' }),
    'unproven'
  ],
  [
    'hand-choices',
    'no guest network, and a network of which nobody said what it is for',
    () => choices(complete()),
    another({ ssid: 'Guillemot', security: 'wpa2-aes' }),
    'unproven'
  ],
  [
    'hand-choices',
    'no guest network, and one is prepared',
    () => choices(complete()),
    another({ use: 'guest' }),
    'breaks'
  ],
  ['place-spacing', 'read at its place', far, readBeside({}), 'holds'],
  ['place-spacing', 'read just as far from it as counts', far, readBeside({ y: 4 }), 'holds'],
  ['place-spacing', 'read in its room, at no point that is noted', far, readBeside({ x: null, y: null }), 'holds'],
  ['place-spacing', 'read in its room, how deep in it is not noted', far, readBeside({ y: null }), 'holds'],
  ['place-spacing', 'read in its room, how far along it is not noted', far, readBeside({ x: null }), 'holds'],
  ['place-spacing', 'read too far from it', far, readBeside({ x: 13.9 }), 'unproven'],
  ['place-spacing', 'read in another room', far, readBeside({ room: idOf('r1') }), 'unproven'],
  ['place-spacing', 'read of itself', far, readBeside({ unit: node }), 'unproven'],
  ['place-spacing', 'read at the band that reaches farther', far, readBeside({ band: '2.4' }), 'unproven'],
  ['place-spacing', 'a reading without a value', far, readBeside({ dbm: null }), 'unproven'],
  [
    'place-spacing',
    'read twice, the last time weak',
    far,
    all(readBeside({}), (log) =>
      log.write('reading.set', {
        id: idOf('read2'),
        set: { room: idOf('r2'), unit: router, band: '5', dbm: -80 }
      })
    ),
    'breaks'
  ],
  [
    'place-spacing',
    'read, and taken out again',
    far,
    all(readBeside({}), (log) => log.write('thing.removed', { thing: 'reading', id: idOf('read') })),
    'unproven'
  ],
  [
    'prove-wired',
    'a modem has ports that nobody need test',
    complete,
    unit(second, { model: 'karstine-sill', modelVersion: 1, role: 'modem' }),
    'unproven'
  ],
  [
    'prove-wired',
    'an access point hangs on the one port that it has',
    () => withPortsTested(),
    unit(second, { model: 'tolvane-spindle', modelVersion: 1, role: 'access-point' }),
    'holds'
  ],
  [
    'prove-wired',
    'an access point that has ports beside the one it hangs on',
    () => withPortsTested(),
    oldRouter(),
    'unproven'
  ],
  [
    'cred-admin',
    'typed, and the login on its label is not recorded',
    complete,
    all(oldRouter(), secretOf('admin-password', second, {})),
    'unproven'
  ],
  [
    'cred-admin',
    'the login on its label is the same',
    complete,
    all(
      oldRouter(),
      (log) => log.secret('label-login', 'unit', second, { print: 'as-printed' }),
      secretOf('admin-password', second, { print: 'as-printed' })
    ),
    'breaks'
  ],
  [
    'wifi-passphrase',
    'typed, and the default key of a router is not recorded',
    complete,
    unit(second, { name: 'Old router', model: 'oldmere-weir', modelVersion: 1 }),
    'unproven'
  ]
]
