import { allRules } from '@pasado/core/rules/all'
import { complete, home, idOf, network, node, opened, router, type Log } from '@pasado/testing/logbook'
import type { RuleCase } from './prove-rule-cases'
import { beside, hallRouter, reed, stays } from './stays-cases'

const [tv, third, theirs] = [idOf('tv'), idOf('third'), idOf('theirs')]
const event =
  (unit: string, what: 'moved' | 'reset' | 'restarted' | 'updated' | 'settings-changed' | 'tested-good') =>
  (log: Log): unknown =>
    log.write('unit.event', { unit, what })
const set =
  (unit: string, facts: Record<string, unknown>) =>
  (log: Log): unknown =>
    log.write('unit.set', { id: unit, set: facts })
const named = (ssid: string) => (log: Log) => log.write('network.set', { id: network, set: { ssid } })
const rejoined = () => complete().write('device.set', { id: tv, set: { name: 'Television', rejoined: true } })
const called = () =>
  ['out', 'in'].reduce(
    (log, subject) => log.write('rule.answered', { rule: 'prove-voice', subject, answer: 'yes' }),
    complete().write('brief.set', { set: { telephone: true } })
  )
const gone = () =>
  complete()
    .write('unit.set', { id: router, set: { defaultSsid: 'OSTREL-AA11' } })
    .write('rule.answered', { rule: 'prove-names-gone', subject: router, answer: 'yes' })
const read = () => complete().write('rule.answered', { rule: 'hand-cautions', answer: 'yes' })
/** Does something with the knowledge of what stood before the last line only, from another device. */
export const unseen = (act: (log: Log) => unknown) => (log: Log) => {
  const before = log.entries.length
  act(log)
  for (const entry of log.entries.slice(before)) Object.assign(entry, { from: theirs, base: before - 1 })
}
/** Taken out and put back: what it was meanwhile nobody knows. */
const outAndIn = (thing: 'unit' | 'network' | 'segment' | 'host', id: string) => (log: Log) =>
  log.write('thing.removed', { thing, id }).write('thing.restored', { thing, id })
const measured = (facts: Record<string, unknown>) => (log: Log) =>
  log.write('measurement.set', { id: idOf('mst'), set: facts })
/** A passphrase other than the one that stands. */
const passphrase = (log: Log) => log.secret('wifi-passphrase', 'network', network, { print: 'another' })

/** What was proven and then changed, what somebody else did unseen, and what leaves it standing. */
export const changes: readonly (readonly [
  rule: string,
  from: () => Log,
  breaking: readonly ((log: Log) => unknown)[],
  harmless: readonly ((log: Log) => unknown)[]
])[] = [
  [
    'prove-source',
    complete,
    [event(router, 'reset'), event(router, 'updated'), set(router, { serial: 'HE1-9' })],
    [event(node, 'reset'), event(router, 'restarted'), named('Guillemot')]
  ],
  [
    'prove-rooms',
    complete,
    [
      event(node, 'moved'),
      event(router, 'reset'),
      set(node, { place: 'loft' }),
      set(router, { firmwareAfter: '3.1.1' }),
      named('Guillemot'),
      passphrase,
      set(node, { model: 'ostrel-heron' }),
      set(node, { serial: 'TE1-9' }),
      outAndIn('unit', node),
      outAndIn('network', network),
      measured({ unit: router }),
      measured({ band: '2.4' })
    ],
    [
      event(node, 'restarted'),
      measured({ by: 'laptop' }),
      set(node, { heightM: 1.3 }),
      set(node, { name: 'Desk node' })
    ]
  ],
  [
    'prove-path',
    complete,
    [
      event(node, 'moved'),
      event(node, 'reset'),
      set(node, { mode: 'access-point' }),
      (log) => log.write('segment.set', { id: home, set: { cidr: '192.168.0.0/16' } }),
      (log) => log.write('pool.set', { id: idOf('pool'), set: { to: '192.168.1.220' } }),
      set(node, { serial: 'TE1-9' }),
      outAndIn('unit', node),
      outAndIn('segment', home),
      passphrase
    ],
    [event(node, 'restarted'), (log) => log.write('segment.set', { id: home, set: { name: 'Ours' } })]
  ],
  [
    'prove-after-move',
    complete,
    [
      event(node, 'moved'),
      event(node, 'reset'),
      event(router, 'updated'),
      set(node, { place: 'loft' }),
      set(node, { serial: 'TE1-9' }),
      outAndIn('unit', node),
      outAndIn('unit', router)
    ],
    [event(node, 'restarted'), named('Guillemot')]
  ],
  [
    'prove-voice',
    called,
    [event(router, 'reset'), event(router, 'updated')],
    [event(node, 'reset'), event(router, 'moved')]
  ],
  [
    'prove-rejoined',
    rejoined,
    [named('Guillemot'), passphrase, outAndIn('network', network)],
    [event(router, 'restarted')]
  ],
  ...['place-hops', 'place-spacing', 'place-floors', 'place-outbuilding'].map((rule): (typeof changes)[number] => [
    rule,
    complete,
    [event(router, 'moved'), event(node, 'moved'), set(router, { place: 'cellar' }), outAndIn('unit', router)],
    [event(router, 'restarted'), event(node, 'reset')]
  ]),
  [
    'prove-names-gone',
    gone,
    [event(router, 'reset'), event(node, 'reset'), named('Guillemot'), set(router, { defaultSsid: 'Kitchen' })],
    [event(router, 'restarted'), set(router, { defaultSsid: 'OSTREL-AA11' })]
  ],
  [
    'addr-reachable',
    complete,
    [
      event(router, 'reset'),
      (log) => log.write('host.set', { id: idOf('hn'), set: { address: '192.168.1.21' } }),
      (log) => log.write('segment.set', { id: home, set: { cidr: '192.168.0.0/22' } }),
      outAndIn('host', idOf('hn')),
      set(router, { serial: 'HE1-9' })
    ],
    [event(router, 'restarted')]
  ],
  [
    'addr-applied',
    complete,
    [
      event(node, 'settings-changed'),
      named('Guillemot'),
      passphrase,
      (log) => log.write('network.set', { id: idOf('n2'), set: { ssid: 'Guillemot', use: 'guest' } }),
      set(node, { remoteAdmin: 'agreed' }),
      outAndIn('network', network)
    ],
    [event(node, 'restarted'), set(node, { place: 'loft' })]
  ],
  [
    'hand-cautions',
    read,
    [set(node, { heightM: 2.6 }), (log) => log.write('brief.set', { set: { accessLine: 'fibre' } })],
    [set(node, { name: 'Desk node' })]
  ],
  ...(['place-clear', 'place-outlet', 'place-hops', 'place-spacing', 'place-floors', 'place-outbuilding'] as const).map(
    (rule) =>
      [rule, complete, [event(node, 'moved'), set(node, { place: 'loft' })], [event(node, 'restarted')]] as const
  )
]

const stayGone = (log: Log) => log.write('thing.removed', { thing: 'stays', id: hallRouter })
const moved = (place: string) => stays(hallRouter, { place })
const staying: typeof changes = [
  [
    'prove-path',
    beside,
    [
      event(hallRouter, 'reset'),
      event(reed, 'reset'),
      (log) => stayGone(log).write('thing.restored', { thing: 'stays', id: hallRouter })
    ],
    [event(hallRouter, 'restarted'), stays(hallRouter, { name: 'Customer’s router' })]
  ],
  [
    'prove-after-move',
    beside,
    [
      event(hallRouter, 'moved'),
      event(hallRouter, 'reset'),
      moved('loft'),
      stays(hallRouter, { makeModel: 'Marlin 9' })
    ],
    [event(hallRouter, 'restarted')]
  ],
  [
    'prove-rooms',
    beside,
    [event(hallRouter, 'moved'), event(hallRouter, 'updated'), moved('loft'), stayGone],
    [event(hallRouter, 'restarted'), event(reed, 'restarted'), stays(hallRouter, { login: 'customer' })]
  ],
  [
    'prove-source',
    beside,
    [event(hallRouter, 'reset'), stays(hallRouter, { makeModel: 'Marlin 9' })],
    [event(hallRouter, 'restarted')]
  ]
]

const placed = ['place-clear', 'place-outlet', 'place-hops', 'place-spacing', 'place-floors', 'place-outbuilding']

const resetAfter = (log: Log) =>
  log.write('unit.set', { id: node, set: { used: true } }).write('unit.event', { unit: node, what: 'reset' })

/** A unit of which only so much is recorded. */
const only = (facts: Record<string, unknown>) => (log: Log) =>
  log.write('unit.set', { id: third, set: { name: 'Loft node', place: 'loft', ...facts } })
/** The complete visit with both units of one model, which no rule of mixtures is against. */
const alike = () => complete().write('unit.set', { id: router, set: { model: 'ostrel-tern' } })
const withoutNeed = {
  model: only({ role: 'node' }),
  role: only({ model: 'ostrel-tern', modelVersion: 1 }),
  method: only({ model: 'ostrel-tern', modelVersion: 1, role: 'node' }),
  firmwareAfter: only({ model: 'ostrel-tern', modelVersion: 1, role: 'node' })
}

export const staleCases: RuleCase[] = [
  ...allRules.flatMap(({ id, needs = [] }) =>
    needs.map((need): RuleCase => [
      id,
      `left out: the ${need} of a unit`,
      id === 'kit-family' ? alike : complete,
      withoutNeed[need],
      'unproven'
    ])
  ),
  [
    'addr-no-overlap',
    'left out: the range of a segment',
    complete,
    (log) => log.write('segment.set', { id: idOf('seg2'), set: { name: 'Guests', use: 'guests' } }),
    'unproven'
  ],
  [
    'wifi-naming-school',
    'left out: the name of a network',
    complete,
    (log) => log.write('network.set', { id: idOf('n2'), set: { bands: ['5'] } }),
    'unproven'
  ],
  [
    'addr-unique',
    'an address of a unit that was taken out is free',
    complete,
    (log) =>
      log
        .write('thing.removed', { thing: 'unit', id: node })
        .write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home, address: '192.168.1.20' } }),
    'holds'
  ],
  [
    'addr-single-nat',
    'a router behind the customer’s own',
    () => complete().write('brief.set', { set: { accessLine: 'existing-router' } }),
    () => 0,
    'breaks'
  ],
  [
    'addr-single-nat',
    'the range outside is a private one',
    complete,
    (log) =>
      log
        .write('segment.set', { id: idOf('out'), set: { name: 'Outside', use: 'provider', cidr: '192.168.0.0/24' } })
        .write('segment.set', { id: home, set: { behind: idOf('out') } }),
    'breaks'
  ],
  ['addr-one-dhcp', 'who serves works as an access point', complete, set(router, { mode: 'access-point' }), 'unproven'],
  [
    'addr-ap-mode',
    'a router set to access-point mode whose DHCP server is on',
    complete,
    set(router, { mode: 'access-point', dhcpServer: 'on' }),
    'breaks'
  ],
  [
    'addr-ap-mode',
    'no main segment is recorded',
    () =>
      complete()
        .write('segment.set', { id: home, set: { use: 'office' } })
        .write('thing.removed', { thing: 'pool', id: idOf('pool') }),
    set(router, { mode: 'access-point', dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' }),
    'unproven'
  ],
  ['kit-reset', 'reset after it was configured', complete, resetAfter, 'unproven'],
  [
    'kit-reset',
    'reset, then configured',
    opened,
    (log) =>
      log
        .write('unit.set', {
          id: node,
          set: { name: 'Node', model: 'ostrel-tern', modelVersion: 1, role: 'node', used: true }
        })
        .write('unit.event', { unit: node, what: 'reset' })
        .write('unit.set', { id: node, set: { pushButton: 'off' } }),
    'holds'
  ],
  ['kit-reset', 'used, and stood here before', complete, set(node, { used: true, stayed: true }), 'not-here'],
  [
    'prove-settle',
    'a look that is over before the mesh has settled',
    complete,
    (log) => {
      log.write('check.cancelled', { id: idOf('check') })
      log.write('check.booked', { id: idOf('soon'), from: '2026-01-05T18:00:00Z', to: '2026-01-06T08:00:00Z' })
    },
    'breaks'
  ],
  [
    'prove-settle',
    'tested by a clock that is set a year ahead',
    complete,
    (log) => {
      log.write('unit.event', { unit: node, what: 'tested-good' }, { received: '2026-01-05T10:00:00.000Z' })
      Object.assign(log.entries.at(-1)!, { at: '2027-01-05T10:00:00.000Z' })
    },
    'holds'
  ],
  [
    'wifi-naming-school',
    'one name a band, and two bands of one name',
    () => complete().write('brief.set', { set: { bandNames: 'one-a-band' } }),
    (log) =>
      log
        .write('network.set', { id: network, set: { bands: ['2.4'] } })
        .write('network.set', { id: idOf('n2'), set: { ssid: 'Razorbill', bands: ['5'], segment: home } }),
    'breaks'
  ],
  ...[...changes, ...staying].flatMap(([rule, from, breaking, harmless]): RuleCase[] => [
    ...breaking.flatMap((act, index): RuleCase[] => [
      [rule, `proven, then changed (${index + 1})`, from, act, 'unproven'],
      [rule, `changed by somebody who did not know of the proof (${index + 1})`, from, unseen(act), 'unproven']
    ]),
    ...harmless.map((act, index): RuleCase => [
      rule,
      `proven, and what does not touch it (${index + 1})`,
      from,
      act,
      'holds'
    ])
  ]),
  [
    'start-fresh-lamp',
    'restarted by somebody who did not know of the look',
    complete,
    (log) => {
      log.write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
      unseen(event(node, 'restarted'))(log)
    },
    'unproven'
  ],
  ...placed.flatMap((rule): RuleCase[] => [
    [
      rule,
      'of a unit that no plan shows nobody said',
      complete,
      (log) =>
        log.write('unit.set', {
          id: third,
          set: { name: 'Loft node', model: 'ostrel-tern', modelVersion: 1, role: 'node', place: 'loft' }
        }),
      'unproven'
    ],
    [
      rule,
      'not so, says whoever stood there',
      complete,
      (log) => log.write('rule.answered', { rule, subject: node, answer: 'no' }),
      'breaks'
    ],
    [
      rule,
      'what stood before was seen then',
      () =>
        [router, node].reduce(
          (log, id) =>
            log.write('unit.set', {
              id,
              set: { name: id, model: 'ostrel-tern', modelVersion: 1, role: 'node', stayed: true }
            }),
          opened()
        ),
      (log) => log.entries.forEach((entry) => Object.assign(entry, { received: log.entries[0]!.received })),
      'not-here'
    ]
  ])
]
