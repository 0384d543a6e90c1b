import { complete, home, idOf, network, node, opened, router, type Log } from '@pasado/testing/logbook'
import type { RuleCase } from './prove-rule-cases'
import { beside, hallRouter } from './stays-cases'

const without =
  (kind: string, field: string, at = 0) =>
  (): Log => {
    const log = complete()
    const entry = log.entries.filter((candidate) => candidate.kind === kind)[at]!
    const { [field]: _, ...set } = (entry.body as { set: Record<string, unknown> }).set
    Object.assign(entry, { body: { ...entry.body, set } })
    return log
  }
const unit = (id: string, set: Record<string, unknown>) => (log: Log) => log.write('unit.set', { id, set })
const brief = (set: Record<string, unknown>) => (log: Log) => log.write('brief.set', { set })
const nothing = () => 0
const gateway = () =>
  complete().write('unit.set', {
    id: idOf('gw'),
    set: { name: 'Gateway', model: 'brackwater-c3', modelVersion: 1, role: 'gateway' }
  })
/** A node, and no router that it hangs on. */
const nodeAlone = () =>
  opened().write('unit.set', {
    id: node,
    set: { name: 'Study node', model: 'ostrel-tern', modelVersion: 1, role: 'node', place: 'study' }
  })
/** The plan shows the node; where the router stands in it nobody said. */
const halfDrawn = () =>
  complete()
    .write('storey.set', { id: idOf('floor'), set: { name: 'Ground' } })
    .write('room.set', {
      id: idOf('drawn'),
      set: { name: 'Hall', storey: idOf('floor'), x: 0, y: 0, widthM: 8, depthM: 6 }
    })
    .write('unit.set', { id: node, set: { storey: idOf('floor'), x: 3, y: 3 } })

/** What nobody said clears no rule: it is unproven until somebody does. */
export const unsaidCases: RuleCase[] = [
  ['addr-reachable', 'a router whose address is not recorded', without('host.set', 'address'), nothing, 'unproven'],
  ['addr-reachable', 'an address that is nobody’s', without('host.set', 'unit', 1), nothing, 'unproven'],
  [
    'addr-reachable',
    'a router that has no address at all',
    complete,
    (log) => log.write('thing.removed', { thing: 'host', id: idOf('hr') }),
    'unproven'
  ],
  [
    'addr-reachable',
    'a node that is run from another’s page',
    complete,
    (log) => log.write('thing.removed', { thing: 'host', id: idOf('hn') }),
    'holds'
  ],
  [
    'addr-one-dhcp',
    'a second pool, of no range',
    complete,
    (log) => log.write('pool.set', { id: idOf('p2'), set: { unit: node, from: '192.168.1.200', to: '192.168.1.220' } }),
    'unproven'
  ],
  ['addr-pool', 'a pool without its end', without('pool.set', 'to'), nothing, 'unproven'],
  ['addr-pool', 'a pool of no range', without('pool.set', 'segment'), nothing, 'unproven'],
  ['addr-valid', 'a range without its gateway', without('segment.set', 'gateway'), nothing, 'unproven'],
  [
    'addr-unique',
    'an address that a printer that stays has, of which nobody said the range',
    complete,
    (log) =>
      log.write('stays.set', { id: idOf('pr'), set: { kind: 'printer', name: 'Printer', address: '192.168.1.20' } }),
    'breaks'
  ],
  ['cable-speed', 'a cable of which one end is not recorded', without('cable.set', 'b'), nothing, 'unproven'],
  ['cable-speed', 'the speed paid for is not recorded', complete, brief({ speedDownMbps: null }), 'unproven'],
  ['prove-voice', 'a unit that takes a telephone, and nobody said', gateway, nothing, 'unproven'],
  ['prove-voice', 'no telephone, says the brief', gateway, brief({ telephone: false }), 'not-here'],
  ['hand-voice-power', 'a unit that takes a telephone, and nobody said', gateway, nothing, 'unproven'],
  [
    'hand-voice-power',
    'a telephone line, and nobody said',
    complete,
    brief({ accessLine: 'telephone-line' }),
    'unproven'
  ],
  ['brief-line-alarm', 'a unit that takes a telephone, and nobody said', gateway, nothing, 'unproven'],
  ['brief-line-alarm', 'what line comes in is not recorded', complete, brief({ accessLine: null }), 'unproven'],
  ['brief-line-alarm', 'no telephone on coax', gateway, brief({ telephone: false }), 'not-here'],
  [
    'hand-choices',
    'how a unit is updated is not recorded',
    () =>
      (['guest', 'parental', 'security', 'updates', 'lamp'] as const).reduce(
        (log, choice) => log.write('choice.answered', { choice, answer: choice === 'updates' ? 'automatic' : 'no' }),
        complete()
      ),
    (log) => [router, node].forEach((id) => unit(id, { updates: null })(log)),
    'unproven'
  ],
  ...(['place-hops', 'place-spacing', 'place-floors', 'place-outbuilding', 'prove-after-move'] as const).map(
    (rule): RuleCase => [rule, 'a node, and no router is recorded', nodeAlone, nothing, 'unproven']
  ),
  ...(['place-hops', 'place-spacing', 'place-floors'] as const).flatMap((rule): RuleCase[] => [
    [rule, 'the plan does not show what it hangs on, and somebody saw it', halfDrawn, nothing, 'holds'],
    [
      rule,
      'the plan does not show what it hangs on, and somebody saw that it is not so',
      halfDrawn,
      (log) => log.write('rule.answered', { rule, subject: node, answer: 'no' }),
      'breaks'
    ]
  ]),
  ['place-height', 'nobody said', complete, unit(node, { heightM: null }), 'unproven'],
  [
    'place-height',
    'a model for the ceiling goes by its own',
    opened,
    unit(node, { name: 'Point', model: 'tolvane-spindle', modelVersion: 1, role: 'access-point', heightM: 2.6 }),
    'not-here'
  ],
  ['place-outlet', 'of which nobody said the role', complete, unit(node, { role: null }), 'unproven'],
  [
    'prove-rooms',
    'the only unit is of a model not known',
    () => opened().write('unit.set', { id: router, set: { name: 'R', role: 'router' } }),
    nothing,
    'unproven'
  ],
  [
    'prove-path',
    'no network is recorded that could have been joined',
    complete,
    (log) => log.write('thing.removed', { thing: 'network', id: network }),
    'unproven'
  ],
  [
    'prove-path',
    'a network without its name, whose passphrase changed',
    without('network.set', 'ssid'),
    (log) => log.secret('wifi-passphrase', 'network', network, { print: 'another' }),
    'unproven'
  ],
  [
    'prove-rooms',
    'what stays and nobody said what it is, moved',
    beside,
    (log) => {
      log.write('stays.set', { id: hallRouter, set: { kind: null } })
      log.write('unit.event', { unit: hallRouter, what: 'moved' })
    },
    'unproven'
  ],
  [
    'wifi-segment',
    'its range is there',
    complete,
    (log) => log.write('segment.set', { id: home, set: { name: 'H' } }),
    'holds'
  ]
]
