import type { Outcome } from '@pasado/core/rules/rule'
import { complete, idOf, network, node, opened, router, study, type Log } from '@pasado/testing/logbook'

/** A rule, what is tried, the visit it begins from, what is changed in it, and what the rule then says. */
export type RuleCase = [rule: string, what: string, from: () => Log, change: (log: Log) => unknown, outcome: Outcome]

const unit = (id: string, set: Record<string, unknown>) => (log: Log) => log.write('unit.set', { id, set })
const source = (log: Log, downMbps: number) =>
  log.write('measurement.set', { id: idOf('src'), set: { runs: [{ downMbps, idleMs: 9 }] } })
const inStudy = (log: Log, set: Record<string, unknown>) => log.write('measurement.set', { id: idOf('mst'), set })
const printer = (set: Record<string, unknown>) => (log: Log) =>
  log.write('device.set', { id: idOf('printer'), set: { name: 'Printer', ...set } })
const seenOn = (log: Log, address: string, server = router) =>
  log.write('path.seen', { unit: node, before: 0, after: 1, address, server })
const office = (log: Log) =>
  log
    .write('segment.set', {
      id: idOf('office'),
      set: { name: 'Office', use: 'office', cidr: '192.168.2.0/24', gateway: '192.168.2.1' }
    })
    .write('pool.set', {
      id: idOf('pool2'),
      set: { segment: idOf('office'), unit: router, from: '192.168.2.100', to: '192.168.2.199' }
    })
    .write('network.set', {
      id: idOf('staff'),
      set: { ssid: 'Staff', use: 'office', security: 'wpa2-aes', segment: idOf('office') }
    })
const telephone = (log: Log) => log.write('brief.set', { set: { telephone: true } })

/** Both units on one channel a band. */
export const channels =
  ([narrow, wide, width]: [number, number, 20 | 40 | 80 | 160]) =>
  (log: Log) => {
    for (const [at, unitId] of [router, node].entries()) {
      log.write('unit.set', { id: unitId, set: { autoChannels: null } })
      log.write('radio.set', { id: idOf(`n${at}a`), set: { unit: unitId, band: '2.4', channel: narrow, widthMHz: 20 } })
      log.write('radio.set', { id: idOf(`n${at}b`), set: { unit: unitId, band: '5', channel: wide, widthMHz: width } })
    }
  }

/** The rules of Prove. */
export const proveCases: RuleCase[] = [
  ['prove-source', 'enough', complete, () => 0, 'holds'],
  [
    'prove-source',
    'never measured',
    complete,
    (log) => log.write('thing.removed', { thing: 'measurement', id: idOf('src') }),
    'unproven'
  ],
  ['prove-source', 'too little', complete, (log) => source(log, 200), 'breaks'],
  [
    'prove-source',
    'too little, and the provider knows',
    complete,
    (log) => source(log, 200).write('brief.set', { set: { providerReference: 'SK-1182' } }),
    'holds'
  ],
  [
    'prove-source',
    'nobody wrote what is paid for',
    complete,
    (log) => log.write('brief.set', { set: { speedDownMbps: null } }),
    'unproven'
  ],
  [
    'prove-source',
    'no unit, and it says why',
    () => opened({ noUnitReason: 'Nobody was at home.' }),
    () => 0,
    'not-here'
  ],
  ['prove-rooms', 'all above the floor', complete, () => 0, 'holds'],
  [
    'prove-rooms',
    'no room on the list',
    complete,
    (log) => log.write('thing.removed', { thing: 'room', id: study }),
    'unproven'
  ],
  [
    'prove-rooms',
    'not measured',
    complete,
    (log) => log.write('room.set', { id: idOf('attic'), set: { name: 'Attic', listed: true } }),
    'unproven'
  ],
  ['prove-rooms', 'too weak', complete, (log) => inStudy(log, { dbm: -68 }), 'breaks'],
  ['prove-rooms', 'too slow', complete, (log) => inStudy(log, { runs: [{ downMbps: 99, idleMs: 14 }] }), 'breaks'],
  [
    'prove-rooms',
    'slow, but so is the source',
    complete,
    (log) => inStudy(source(log, 100), { runs: [{ downMbps: 81, idleMs: 14 }] }),
    'holds'
  ],
  ['prove-rooms', 'too late', complete, (log) => inStudy(log, { runs: [{ downMbps: 210, idleMs: 30 }] }), 'breaks'],
  ['prove-rooms', 'latency left out', complete, (log) => inStudy(log, { runs: [{ downMbps: 210 }] }), 'unproven'],
  [
    'prove-rooms',
    'the other band is enough',
    complete,
    (log) =>
      inStudy(log, { dbm: -80 }).write('measurement.set', {
        id: idOf('m24'),
        set: { at: 'room', room: study, unit: node, band: '2.4', dbm: -50, runs: [{ downMbps: 120, idleMs: 12 }] }
      }),
    'holds'
  ],
  [
    'prove-rooms',
    'the unit was moved since',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'moved' }),
    'unproven'
  ],
  [
    'prove-rooms',
    'what it hangs on was moved since',
    complete,
    (log) => log.write('unit.event', { unit: router, what: 'moved' }),
    'unproven'
  ],
  ['prove-rooms', 'another channel since', complete, channels([1, 36, 40]), 'unproven'],
  [
    'prove-rooms',
    'the unit it was measured through was taken out',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: node }),
    'unproven'
  ],
  [
    'prove-rooms',
    'on a band that the unit does not send on',
    complete,
    (log) => inStudy(log, { band: '6' }),
    'unproven'
  ],
  ['prove-path', 'seen', complete, () => 0, 'holds'],
  [
    'prove-path',
    'nobody was on it',
    complete,
    (log) => log.write('path.seen', { unit: node, before: 1, after: 1, address: '192.168.1.103', server: router }),
    'breaks'
  ],
  [
    'prove-path',
    'an address of nowhere',
    complete,
    (log) => log.write('path.seen', { unit: node, before: 0, after: 1, address: '10.1.1.9', server: router }),
    'breaks'
  ],
  [
    'prove-path',
    'an address nobody served',
    complete,
    (log) => log.write('path.seen', { unit: node, before: 0, after: 1, address: '169.254.7.7' }),
    'breaks'
  ],
  [
    'prove-path',
    'from the wrong server',
    complete,
    (log) => log.write('path.seen', { unit: node, before: 0, after: 1, address: '192.168.1.103', server: node }),
    'breaks'
  ],
  [
    'prove-path',
    'from one whose DHCP server is off',
    complete,
    (log) => {
      unit(node, { dhcpServer: 'off' })(log)
      log.write('pool.set', { id: idOf('pool'), set: { unit: null } })
      seenOn(log, '192.168.1.103', node)
    },
    'breaks'
  ],
  [
    'prove-path',
    'the pool names nobody',
    complete,
    (log) => log.write('pool.set', { id: idOf('pool'), set: { unit: null } }),
    'unproven'
  ],
  [
    'prove-path',
    'no pool is recorded',
    complete,
    (log) => log.write('thing.removed', { thing: 'pool', id: idOf('pool') }),
    'unproven'
  ],
  ['prove-path', 'outside the pool', complete, (log) => seenOn(log, '192.168.1.12'), 'breaks'],
  [
    'prove-path',
    'who gave it was not seen',
    complete,
    (log) => log.write('path.seen', { unit: node, before: 0, after: 1, address: '192.168.1.103' }),
    'unproven'
  ],
  [
    'prove-path',
    'the server was taken out',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: router }),
    'unproven'
  ],
  [
    'prove-path',
    'in another segment than the office’s name lands in',
    complete,
    (log) => office(log).write('network.set', { id: network, set: { use: 'office', segment: idOf('office') } }),
    'breaks'
  ],
  [
    'prove-path',
    'of the network that was joined',
    complete,
    (log) =>
      office(log).write('path.seen', {
        unit: node,
        before: 0,
        after: 1,
        address: '192.168.2.110',
        server: router,
        network: idOf('staff')
      }),
    'holds'
  ],
  [
    'prove-path',
    'joined the office’s, and is in the home’s',
    complete,
    (log) =>
      office(log).write('path.seen', {
        unit: node,
        before: 0,
        after: 1,
        address: '192.168.1.103',
        server: router,
        network: idOf('staff')
      }),
    'breaks'
  ],
  [
    'prove-path',
    'the joined network is gone',
    complete,
    (log) =>
      office(log)
        .write('path.seen', {
          unit: node,
          before: 0,
          after: 1,
          address: '192.168.2.110',
          server: router,
          network: idOf('staff')
        })
        .write('thing.removed', { thing: 'network', id: idOf('staff') }),
    'unproven'
  ],
  [
    'prove-path',
    'where the name lands is not recorded',
    complete,
    (log) => office(log).write('network.set', { id: network, set: { segment: null } }),
    'unproven'
  ],
  [
    'prove-path',
    'the count was not looked at',
    complete,
    (log) => log.write('path.seen', { unit: node, address: '192.168.1.103', server: router }),
    'unproven'
  ],
  ['prove-path', 'moved since', complete, (log) => log.write('unit.event', { unit: node, what: 'moved' }), 'unproven'],
  [
    'prove-path',
    'nothing extends',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: node }),
    'not-here'
  ],
  ['prove-wired', 'tested', complete, () => 0, 'holds'],
  [
    'prove-wired',
    'not tested',
    complete,
    (log) => log.write('thing.removed', { thing: 'measurement', id: idOf('mp2') }),
    'unproven'
  ],
  [
    'prove-wired',
    'what a link of 100 gives, at a port that can do more',
    complete,
    (log) => log.write('measurement.set', { id: idOf('mp2'), set: { runs: [{ downMbps: 94.2 }] } }),
    'unproven'
  ],
  [
    'prove-wired',
    'as little, but so does the source',
    complete,
    (log) => source(log, 98).write('measurement.set', { id: idOf('mp2'), set: { runs: [{ downMbps: 94.2 }] } }),
    'holds'
  ],
  [
    'prove-wired',
    'nothing comes',
    complete,
    (log) => log.write('measurement.set', { id: idOf('mp2'), set: { runs: [{ downMbps: 0 }] } }),
    'breaks'
  ],
  [
    'prove-names-gone',
    'what is here comes without a name',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: router }),
    'not-here'
  ],
  [
    'prove-names-gone',
    'the name it came with nobody typed, and nobody looked for one such',
    () => opened().write('unit.set', { id: router, set: { model: 'ostrel-heron', modelVersion: 1, role: 'router' } }),
    () => 0,
    'unproven'
  ],
  [
    'prove-names-gone',
    'listened for, and typed later',
    complete,
    unit(router, { defaultSsid: 'OSTREL-AA11' }),
    'holds'
  ],
  [
    'prove-names-gone',
    'another name than was listened for',
    complete,
    unit(router, { defaultSsid: 'Kitchen' }),
    'unproven'
  ],
  [
    'prove-names-gone',
    'gone',
    complete,
    (log) => {
      unit(router, { defaultSsid: 'OSTREL-AA11' })(log)
      log.write('rule.answered', { rule: 'prove-names-gone', subject: router, answer: 'yes' })
    },
    'holds'
  ],
  [
    'prove-names-gone',
    'the old name is still there',
    complete,
    (log) =>
      log
        .write('brief.set', { set: { oldSsid: 'Puffin' } })
        .write('rule.answered', { rule: 'prove-names-gone', subject: 'old-name', answer: 'no' }),
    'breaks'
  ],
  [
    'prove-names-gone',
    'the old name was kept',
    complete,
    (log) =>
      log
        .write('thing.removed', { thing: 'unit', id: router })
        .write('brief.set', { set: { oldSsid: 'Razorbill', keepName: true } }),
    'not-here'
  ],
  [
    'prove-names-gone',
    'another old name than was listened for',
    complete,
    (log) =>
      log
        .write('brief.set', { set: { oldSsid: 'Puffin' } })
        .write('rule.answered', { rule: 'prove-names-gone', subject: 'old-name', answer: 'yes' })
        .write('brief.set', { set: { oldSsid: 'Dunlin' } }),
    'unproven'
  ],
  ['prove-rejoined', 'nothing on the list', complete, () => 0, 'not-here'],
  ['prove-rejoined', 'not looked at', complete, printer({}), 'unproven'],
  ['prove-rejoined', 'joined', complete, printer({ rejoined: true }), 'holds'],
  ['prove-rejoined', 'does not join', complete, printer({ rejoined: false }), 'breaks'],
  ['prove-voice', 'no telephone', complete, () => 0, 'not-here'],
  ['prove-voice', 'not called', complete, telephone, 'unproven'],
  [
    'prove-voice',
    'both calls',
    complete,
    (log) => {
      telephone(log)
      for (const subject of ['out', 'in']) log.write('rule.answered', { rule: 'prove-voice', subject, answer: 'yes' })
    },
    'holds'
  ],
  [
    'prove-voice',
    'nobody could ring in',
    complete,
    (log) => {
      telephone(log)
      log.write('rule.answered', { rule: 'prove-voice', subject: 'in', answer: 'no' })
    },
    'breaks'
  ],
  ['prove-settle', 'booked', complete, () => 0, 'holds'],
  ['prove-settle', 'taken back', complete, (log) => log.write('check.cancelled', { id: idOf('check') }), 'unproven'],
  [
    'prove-settle',
    'too soon',
    complete,
    (log) => log.write('check.booked', { id: idOf('check'), from: '2026-01-05T10:00:00Z', to: '2026-01-05T11:00:00Z' }),
    'breaks'
  ],
  ['prove-settle', 'one unit', complete, (log) => log.write('thing.removed', { thing: 'unit', id: node }), 'not-here'],
  ['prove-after-move', 'tested', complete, () => 0, 'holds'],
  [
    'prove-after-move',
    'moved since',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'moved' }),
    'unproven'
  ],
  [
    'prove-after-move',
    'moved, and tested again',
    complete,
    (log) =>
      log.write('unit.event', { unit: node, what: 'moved' }).write('unit.event', { unit: node, what: 'tested-good' }),
    'holds'
  ],
  [
    'prove-after-move',
    'the test failed',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'tested-bad' }),
    'breaks'
  ],
  [
    'prove-after-move',
    'one unit alone',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: node }),
    'not-here'
  ]
]
