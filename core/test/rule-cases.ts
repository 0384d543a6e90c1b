import type { CableEnd } from '@pasado/core/record/things/cable'
import { packDigest } from '@pasado/core/record/seal'
import { channels, proveCases, type RuleCase } from './prove-rule-cases'
import { box, complete, home, idOf, mixed, network, node, opened, router, type Log } from '@pasado/testing/logbook'
const elsewhere = {
  by: 'mac' as const,
  home: idOf('other home'),
  visit: idOf('other visit'),
  since: '2025-11-02T10:00:00.000Z',
  sealed: true
}
const [ground, upper] = [idOf('ground'), idOf('upper')]
/** The complete visit with two rooms side by side, an outlet in each, router and node beside them; a storey above. */
export const planned = () =>
  complete()
    .write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
    .write('storey.set', { id: upper, set: { name: 'Upper floor', floorM: 2.8, heightM: 2.5 } })
    .write('room.set', { id: idOf('r1'), set: { name: 'Hall', storey: ground, x: 0, y: 0, widthM: 5, depthM: 4 } })
    .write('room.set', { id: idOf('r2'), set: { name: 'Study', storey: ground, x: 5, y: 0, widthM: 5, depthM: 4 } })
    .write('outlet.set', { id: idOf('o1'), set: { storey: ground, kind: 'mains', x: 0.5, y: 2 } })
    .write('outlet.set', { id: idOf('o2'), set: { storey: ground, kind: 'mains', x: 9.5, y: 2 } })
    .write('unit.set', { id: router, set: { storey: ground, x: 1, y: 2 } })
    .write('unit.set', { id: node, set: { storey: ground, x: 9, y: 2 } })
/** The same with nothing said by whoever stood there. */
export const drawn = () => {
  const log = opened()
  for (const { kind, body } of planned().entries.slice(1)) if (kind !== 'rule.answered') log.write(kind, body)
  return log
}
/** A node in a long room, farther than a hop is to be, with nothing between. */
const afar = () =>
  planned()
    .write('room.set', { id: idOf('r1'), set: { widthM: 20 } })
    .write('room.set', { id: idOf('r2'), set: { x: 20 } })
    .write('unit.set', { id: node, set: { x: 18 } })
const seenSince = (rule: string) => (log: Log) => log.write('rule.answered', { rule, subject: node, answer: 'yes' })
const readThere = (dbm: number) => (log: Log) =>
  log.write('reading.set', { id: idOf('read'), set: { room: idOf('r1'), unit: router, x: 18, y: 2, band: '5', dbm } })
/** A leading point and one that joined it; all that is answered is answered on the leading one. */
const lattices = () => {
  const point = { model: 'fenmarrow-lattice-3', modelVersion: 1 }
  const log = opened()
    .write('unit.set', {
      id: other,
      set: {
        name: 'Hall point',
        ...point,
        role: 'router',
        localAdminOnly: true,
        remoteAdmin: 'off',
        accountOwner: 'customer',
        technicianRemoved: true,
        pushButton: 'off',
        updates: 'automatic'
      }
    })
    .write('unit.set', { id: second, set: { name: 'Loft point', ...point, role: 'node' } })
    .secret('admin-password', 'unit', other)
  for (const prompt of ['usage', 'crash', 'cloud', 'location'])
    log.write('prompt.answered', { unit: other, prompt, answer: 'no', by: 'customer' })
  return log
}
/** A controller with its login, and an access point that it adopted. */
const adopted = () =>
  opened()
    .write('unit.set', {
      id: other,
      set: { model: 'tolvane-distaff', modelVersion: 1, role: 'controller', recovery: 'not-asked' }
    })
    .write('unit.set', {
      id: second,
      set: { model: 'tolvane-spindle', modelVersion: 1, role: 'access-point', method: 'adoption' }
    })
    .secret('label-login', 'unit', other)
    .secret('admin-password', 'unit', other)
/** Long rooms behind metal walls, for what is too far. */
const metal = (log: Log) => {
  log.write('brief.set', { set: { innerMaterial: 'metal', innerMm: 5 } })
  for (const at of [0, 1, 2, 3])
    log.write('room.set', {
      id: idOf(`long${at}`),
      set: { name: `Shed ${at}`, storey: ground, x: 10 + at * 4, y: 0, widthM: 4, depthM: 4 }
    })
}
const barn = (log: Log) => {
  log.write('room.set', {
    id: idOf('barn'),
    set: { name: 'Barn', storey: ground, x: 20, y: 0, widthM: 6, depthM: 5, building: 'Barn' }
  })
  unit(node, { x: 22, y: 2 })(log)
}
const guest = idOf('guest')
const second = idOf('second')
const other = idOf('other')
const unit = (id: string, set: Record<string, unknown>) => (log: Log) => log.write('unit.set', { id, set })
const host =
  (address: string, more: Record<string, unknown> = {}) =>
  (log: Log) =>
    log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home, address, ...more } })
const both = (set: Record<string, unknown>) => (log: Log) => [router, node].forEach((id) => unit(id, set)(log))
const net = (set: Record<string, unknown>) => (log: Log) => log.write('network.set', { id: network, set })
const seen = (colour: string, pattern: 'solid' | 'blink' | 'off') => (log: Log) =>
  log.write('lamp.seen', { unit: node, lamps: [{ lamp: 'status', colour, pattern }] })
const twoPools = (log: Log) =>
  log.write('pool.set', {
    id: idOf('p2'),
    set: { segment: home, unit: node, from: '192.168.1.50', to: '192.168.1.60' }
  })
export const choices = (log: Log, lamp = 'bright') => {
  for (const [choice, answer] of Object.entries({
    guest: 'no',
    parental: 'no',
    security: 'no',
    updates: 'automatic',
    lamp
  }))
    log.write('choice.answered', { choice: choice as 'guest', answer })
  return log
}
/** A router that is seen starting an hour after it was first seen so; its model allows four minutes. */
const startedLate = (log: Log): Log => {
  unit(second, { model: 'ostrel-heron', modelVersion: 1 })(log)
  for (const at of ['2026-01-05T09:00:00Z', '2026-01-05T10:00:00Z'])
    log.write('lamp.seen', { unit: second, lamps: [{ lamp: 'status', colour: 'amber', pattern: 'solid' }] }, { at })
  return log
}
const yes = (rule: string) => (log: Log) => log.write('rule.answered', { rule, answer: 'yes' })
const weir =
  (set: Record<string, unknown> = {}) =>
  (log: Log) =>
    log.write('unit.set', {
      id: other,
      set: { name: 'Old router', model: 'oldmere-weir', modelVersion: 1, role: 'access-point', ...set }
    })
const guests = (set: Record<string, unknown>) => (log: Log) =>
  log.write('network.set', {
    id: guest,
    set: { ssid: 'Razorbill guests', use: 'guest', bands: ['2.4'], security: 'wpa2-aes', segment: home, ...set }
  })
const asked = (set: Record<string, unknown>) => (log: Log) => {
  weir(set)(log)
  log.secret('label-login', 'unit', other).secret('admin-password', 'unit', other)
}
const made = (log: Log) => log.write('pack.made', { digest: packDigest(log.record()) })

const wan = idOf('wan')
const end = (id: string, port: string): CableEnd => ({ thing: 'unit', id, port })
const wall: CableEnd = { thing: 'outlet', id: idOf('line'), port: 'wall' }
const split = (port: string): CableEnd => ({ thing: 'fitting', id: idOf('split'), port })
const cable = (log: Log, a: CableEnd, b: CableEnd, more: Record<string, unknown> = {}, name = 'c1') =>
  log.write('cable.set', { id: idOf(name), set: { a, b, ...more } })
const modem = (log: Log) =>
  log.write('unit.set', { id: other, set: { name: 'Modem', model: 'karstine-sill', modelVersion: 1, role: 'modem' } })
const l2 = (log: Log) =>
  log
    .write('brief.set', { set: { accessLine: 'telephone-line' } })
    .write('outlet.set', { id: idOf('line'), set: { kind: 'line' } })
    .write('unit.set', {
      id: other,
      set: { name: 'Gateway', model: 'brackwater-l2', modelVersion: 1, role: 'gateway' }
    })
const splitter = (log: Log) => log.write('fitting.set', { id: idOf('split'), set: { kind: 'splitter' } })
const old = (set: Record<string, unknown>) => (log: Log) =>
  log.write('fitting.set', { id: idOf('old'), set: { kind: 'old-router', ...set } })
/** Access points on the powered switch, each over a socket in its room and one in the cupboard. */
const overWall = (log: Log, count: number) => {
  log.write('unit.set', { id: second, set: { model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' } })
  for (let at = 0; at < count; at++) {
    const [room, cupboard] = [idOf(`w${at}`), idOf(`v${at}`)]
    log.write('outlet.set', { id: cupboard, set: { kind: 'network' } })
    log.write('outlet.set', { id: room, set: { kind: 'network', cableTo: cupboard } })
    cable(log, end(second, `lan-${at + 1}`), { thing: 'outlet', id: cupboard, port: 'wall' }, {}, `c1${at}`)
    cable(log, { thing: 'outlet', id: room, port: 'wall' }, end(idOf(`ap${at}`), 'lan'), {}, `c2${at}`)
  }
}
const spindle = (count: number) => (log: Log) => {
  for (let at = 0; at < count; at++)
    log.write('unit.set', {
      id: idOf(`ap${at}`),
      set: { name: `Spindle ${at}`, model: 'tolvane-spindle', modelVersion: 1, role: 'access-point' }
    })
}
const fed = (count: number) => (log: Log) => {
  log.write('unit.set', {
    id: second,
    set: { name: 'Bobbin', model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' }
  })
  for (let at = 0; at < count; at++)
    cable(log, end(second, `lan-${at + 1}`), end(idOf(`ap${at}`), 'lan'), { linkMbps: 1000 }, `p${at}`)
}

/** A network telephone at a port of the switch, or at none. */
const phone = (port: string | null, set: Record<string, unknown>) => (log: Log) => {
  log.write('fitting.set', { id: idOf('tel'), set: { kind: 'network-telephone', ...set } })
  if (port === null) return
  log.write('unit.set', { id: second, set: { model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' } })
  cable(log, end(second, port), { thing: 'fitting', id: idOf('tel'), port: 'lan' }, { linkMbps: 1000 }, 'tel')
}

/** What each rule says of a visit that is as it should be, after one change. */
export const cases: RuleCase[] = [
  ...proveCases,
  ['brief-contact', 'all there', complete, () => 0, 'holds'],
  [
    'brief-contact',
    'no second contact',
    complete,
    (log) => log.write('brief.set', { set: { secondContact: null } }),
    'unproven'
  ],
  ['brief-service', 'all there', complete, () => 0, 'holds'],
  [
    'brief-service',
    'no speed',
    complete,
    (log) => log.write('brief.set', { set: { speedDownMbps: null } }),
    'unproven'
  ],
  ['brief-method', 'ready', complete, () => 0, 'holds'],
  ['brief-method', 'a method of another model', complete, unit(node, { method: 'own-page' }), 'breaks'],
  ['brief-method', 'Bluetooth not ready', complete, unit(router, { needsReady: ['app-latest'] }), 'unproven'],
  ['brief-line-alarm', 'no telephone line', complete, () => 0, 'not-here'],
  ['brief-line-alarm', 'not asked', () => opened({ accessLine: 'telephone-line' }), () => 0, 'unproven'],
  [
    'brief-line-alarm',
    'asked, and what was answered nobody recorded',
    () => opened({ telephone: true }),
    yes('brief-line-alarm'),
    'unproven'
  ],
  [
    'brief-line-alarm',
    'asked, with what was answered beside the yes',
    () => opened({ telephone: true }),
    (log) => log.write('rule.answered', { rule: 'brief-line-alarm', answer: 'yes', note: 'None of them.' }),
    'holds'
  ],
  [
    'brief-line-alarm',
    'nothing on it',
    () => opened({ telephone: true }),
    (log) => log.write('brief.set', { set: { lineCarries: 'nothing' } }),
    'holds'
  ],
  [
    'brief-line-alarm',
    'an alarm, and nobody told of it',
    () => opened({ telephone: true }),
    (log) => log.write('brief.set', { set: { lineCarries: 'alarm' } }),
    'unproven'
  ],
  [
    'brief-line-alarm',
    'an alarm, and its company told',
    () => opened({ telephone: true }),
    (log) => log.write('brief.set', { set: { lineCarries: 'alarm', lineTold: 'Beacon Alarms' } }),
    'holds'
  ],
  [
    'brief-line-alarm',
    'not asked, by its own word',
    () => opened({ telephone: true }),
    (log) =>
      log
        .write('brief.set', { set: { lineCarries: 'nothing' } })
        .write('rule.answered', { rule: 'brief-line-alarm', answer: 'no' }),
    'breaks'
  ],
  ['kit-complete', 'all ticked', complete, () => 0, 'holds'],
  [
    'kit-complete',
    'one missing, replaced from the van',
    complete,
    (log) =>
      log.write('items.checked', {
        box,
        items: ['network cable 1 m'],
        state: 'missing',
        done: 'took one from the van'
      }),
    'holds'
  ],
  [
    'kit-complete',
    'one not looked at',
    complete,
    (log) => log.write('items.checked', { box, items: ['start card'], state: 'open' }),
    'unproven'
  ],
  [
    'kit-complete',
    'a new unit from no box',
    complete,
    unit(second, { model: 'quillet-reed', modelVersion: 1 }),
    'unproven'
  ],
  ['kit-complete', 'nothing came in a box', () => opened(), () => 0, 'not-here'],
  ['kit-adapter', 'its own', complete, () => 0, 'holds'],
  ['kit-adapter', 'that of another country', complete, unit(node, { adapterPlug: 'flat two-pin' }), 'breaks'],
  ['kit-adapter', 'too many volts', complete, unit(node, { adapterVolts: 19 }), 'breaks'],
  ['kit-adapter', 'too few amps', complete, unit(node, { adapterAmps: 1 }), 'breaks'],
  ['kit-adapter', 'more amps than it needs', complete, unit(node, { adapterAmps: 3 }), 'holds'],
  ['kit-adapter', 'not compared', complete, unit(node, { adapterAmps: null }), 'unproven'],
  [
    'kit-adapter',
    'stood here before',
    complete,
    (log) => {
      for (const id of [node, router]) unit(id, { adapterAmps: null, stayed: true })(log)
    },
    'not-here'
  ],
  [
    'kit-identity',
    'live at another home',
    complete,
    (log) => log.write('unit.elsewhere', { unit: node, found: [elsewhere] }),
    'breaks'
  ],
  [
    'kit-identity',
    'brought from there',
    complete,
    (log) =>
      log
        .write('unit.elsewhere', { unit: node, found: [elsewhere] })
        .write('unit.transferred', { unit: node, from: elsewhere.home, reason: 'The customer moved house.' }),
    'holds'
  ],
  [
    'kit-identity',
    'no longer anywhere else',
    complete,
    (log) =>
      log
        .write('unit.elsewhere', { unit: node, found: [elsewhere] })
        .write('unit.elsewhere', { unit: node, found: [] }),
    'holds'
  ],
  [
    'kit-label',
    'a key of another home',
    complete,
    (log) => log.secret('setup-code', 'unit', node, { usedElsewhere: true }),
    'breaks'
  ],
  ['kit-identity', 'all there', complete, () => 0, 'holds'],
  ['kit-identity', 'the same MAC twice', complete, unit(node, { mac: '00:00:5e:00:53:01' }), 'breaks'],
  ['kit-identity', 'no serial', complete, unit(node, { serial: null }), 'unproven'],
  ['kit-label', 'recorded', complete, () => 0, 'holds'],
  [
    'kit-label',
    'one code read twice',
    complete,
    (log) => log.secret('setup-code', 'unit', node, { print: `setup-code-${router}` }),
    'breaks'
  ],
  ['kit-label', 'not recorded', complete, weir(), 'unproven'],
  ['kit-role', 'one it can take', complete, () => 0, 'holds'],
  ['kit-role', 'one it cannot take', complete, unit(node, { role: 'switch' }), 'breaks'],
  ['kit-role', 'none yet', complete, unit(node, { role: null }), 'unproven'],
  ['kit-family', 'mixed models of one family', mixed, () => 0, 'breaks'],
  ['kit-family', 'a set that its maker sells as one', complete, () => 0, 'holds'],
  [
    'kit-family',
    'another family',
    complete,
    unit(second, { name: 'Point', model: 'fenmarrow-lattice-3', modelVersion: 1, role: 'node' }),
    'breaks'
  ],
  ['kit-family', 'one member', complete, (log) => log.write('thing.removed', { thing: 'unit', id: node }), 'not-here'],
  ['kit-reset', 'nothing used', complete, () => 0, 'not-here'],
  ['kit-reset', 'used, reset', complete, weir({ used: true, wasReset: true }), 'holds'],
  ['kit-reset', 'used, not reset', complete, weir({ used: true, wasReset: false }), 'breaks'],
  ['kit-reset', 'used, nobody said', complete, weir({ used: true }), 'unproven'],
  ['place-height', 'within', complete, () => 0, 'holds'],
  ['place-height', 'on the floor', complete, unit(node, { heightM: 0.1 }), 'breaks'],
  ['place-count', 'two of four', complete, () => 0, 'holds'],
  [
    'place-count',
    'many of a mesh of any number',
    () => opened(),
    (log) => {
      for (const name of ['n1', 'n2', 'n3', 'n4', 'n5', 'n6'])
        log.write('unit.set', { id: idOf(name), set: { model: 'fenmarrow-lattice-3', modelVersion: 1, role: 'node' } })
    },
    'holds'
  ],
  [
    'place-count',
    'five of four',
    complete,
    (log) => {
      for (const name of ['n3', 'n4', 'n5'])
        log.write('unit.set', { id: idOf(name), set: { model: 'ostrel-tern', modelVersion: 1, role: 'node' } })
    },
    'breaks'
  ],
  ['place-clear', 'no plan, and seen so', complete, () => 0, 'holds'],
  ['place-clear', 'no plan, in a cabinet', complete, unit(node, { cabinet: true }), 'breaks'],
  ['place-clear', 'in the open', planned, () => 0, 'holds'],
  ['place-clear', 'drawn, and said to be in no cabinet', drawn, unit(router, { cabinet: false }), 'unproven'],
  ['place-clear', 'drawn, and nobody looked', drawn, () => 0, 'unproven'],
  [
    'place-clear',
    'drawn, each said to be in no cabinet',
    drawn,
    (log) => [router, node].forEach((id) => unit(id, { cabinet: false })(log)),
    'holds'
  ],
  [
    'place-clear',
    'beside a fish tank',
    planned,
    (log) => log.write('trouble.set', { id: idOf('tank'), set: { storey: ground, kind: 'fish-tank', x: 9.5, y: 2 } }),
    'breaks'
  ],
  ['place-clear', 'in a cabinet', planned, unit(node, { cabinet: true }), 'breaks'],
  ['place-outlet', 'beside one', planned, () => 0, 'holds'],
  ['place-outlet', 'out of reach', planned, unit(node, { x: 6 }), 'breaks'],
  [
    'place-outlet',
    'out of reach, and fed over its cable',
    planned,
    (log) => {
      for (const name of ['o1', 'o2']) log.write('thing.removed', { thing: 'outlet', id: idOf(name) })
      for (const id of [router, node]) log.write('thing.removed', { thing: 'unit', id })
      spindle(1)(log)
      unit(idOf('ap0'), { storey: ground, x: 4, y: 3 })(log)
      fed(1)(log)
      log.write('thing.removed', { thing: 'unit', id: second })
      log.write('fitting.set', { id: idOf('inj'), set: { kind: 'injector' } })
      cable(log, { thing: 'fitting', id: idOf('inj'), port: 'out' }, end(idOf('ap0'), 'lan'), {}, 'p0')
    },
    'holds'
  ],
  [
    'place-outlet',
    'powerline whose partner nobody drew',
    planned,
    (log) => {
      unit(second, { model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter', storey: ground, x: 1, y: 1.5 })(
        log
      )
      log.write('outlet.set', { id: idOf('o1'), set: { circuit: 'A' } })
    },
    'unproven'
  ],
  [
    'place-outlet',
    'none drawn',
    planned,
    (log) => {
      for (const name of ['o1', 'o2']) log.write('thing.removed', { thing: 'outlet', id: idOf(name) })
    },
    'unproven'
  ],
  [
    'place-outlet',
    'powerline in a strip',
    planned,
    (log) => {
      unit(second, { model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter', storey: ground, x: 1, y: 1.5 })(
        log
      )
      log.write('outlet.set', { id: idOf('o1'), set: { strip: true } })
    },
    'breaks'
  ],
  [
    'place-outlet',
    'powerline on two circuits',
    planned,
    (log) => {
      for (const [name, x, outlet, circuit] of [
        ['e1', 1, 'o1', 'A'],
        ['e2', 9, 'o2', 'B']
      ] as const) {
        unit(idOf(name), { model: 'quillet-eel', modelVersion: 1, role: 'powerline-adapter', storey: ground, x, y: 2 })(
          log
        )
        log.write('outlet.set', { id: idOf(outlet), set: { circuit } })
      }
    },
    'breaks'
  ],
  ['place-hops', 'one', planned, () => 0, 'holds'],
  [
    'place-hops',
    'three in a row behind metal',
    planned,
    (log) => {
      metal(log)
      for (const [at, x] of [14, 18, 22].entries())
        unit(idOf(`far${at}`), { model: 'ostrel-tern', modelVersion: 1, role: 'node', storey: ground, x, y: 2 })(log)
    },
    'breaks'
  ],
  ['place-hops', 'cabled', planned, unit(node, { cabled: true }), 'holds'],
  ['place-spacing', 'near', planned, () => 0, 'holds'],
  ['place-spacing', 'far, and good by the plan only', afar, () => 0, 'unproven'],
  ['place-spacing', 'far, and seen to be good', afar, seenSince('place-spacing'), 'holds'],
  ['place-spacing', 'far, and read to be good', afar, readThere(-60), 'holds'],
  ['place-spacing', 'far, and read to be weak', afar, readThere(-84), 'breaks'],
  [
    'place-spacing',
    'far, and read to be weak although somebody said it is good',
    afar,
    (log) => {
      seenSince('place-spacing')(log)
      readThere(-84)(log)
    },
    'breaks'
  ],
  [
    'place-spacing',
    'far, and seen to be good by who knew of the weak reading',
    afar,
    (log) => {
      readThere(-84)(log)
      seenSince('place-spacing')(log)
    },
    'holds'
  ],
  [
    'place-spacing',
    'far, said to be good, read to be weak, and the router moved since',
    afar,
    (log) => {
      seenSince('place-spacing')(log)
      readThere(-84)(log)
      log.write('unit.event', { unit: router, what: 'moved' })
    },
    'unproven'
  ],
  [
    'place-spacing',
    'far, said to be good, read to be weak, and the reading taken out',
    afar,
    (log) => {
      seenSince('place-spacing')(log)
      readThere(-84)(log)
      log.write('thing.removed', { thing: 'reading', id: idOf('read') })
    },
    'unproven'
  ],
  [
    'place-spacing',
    'far, and moved since it was read',
    afar,
    (log) => {
      readThere(-60)(log)
      log.write('unit.event', { unit: router, what: 'moved' })
    },
    'unproven'
  ],
  [
    'place-spacing',
    'far, behind metal',
    planned,
    (log) => {
      metal(log)
      unit(node, { x: 23 })(log)
    },
    'breaks'
  ],
  ['place-floors', 'one storey', planned, () => 0, 'not-here'],
  ['place-floors', 'upstairs without a cable', planned, (log) => unit(node, { storey: upper })(log), 'breaks'],
  [
    'place-floors',
    'upstairs, with the reason',
    planned,
    unit(node, { storey: upper, floorsReason: 'Rented; nothing may be drilled.' }),
    'holds'
  ],
  ['place-outbuilding', 'none', planned, () => 0, 'not-here'],
  ['place-outbuilding', 'without a cable', planned, barn, 'breaks'],
  [
    'place-outbuilding',
    'cabled, nothing noted',
    planned,
    (log) => {
      barn(log)
      unit(node, { cabled: true })(log)
    },
    'unproven'
  ],
  [
    'place-outbuilding',
    'on fibre',
    planned,
    (log) => {
      barn(log)
      unit(node, { cabled: true, surgeNote: 'Fibre.' })(log)
    },
    'holds'
  ],
  ['place-final', 'recorded', complete, () => 0, 'holds'],
  ['place-final', 'set up elsewhere, no move yet', complete, unit(node, { setUpPlace: 'hall' }), 'unproven'],
  [
    'place-final',
    'moved',
    complete,
    (log) => unit(node, { setUpPlace: 'hall' })(log).write('unit.event', { unit: node, what: 'moved' }),
    'holds'
  ],
  ['place-final', 'not recorded', complete, unit(node, { place: null }), 'unproven'],
  ...(
    [
      ['an access point that works as a router', 'access-point', 'green', 'breaks'],
      ['an access point that works as one', 'access-point', 'cyan', 'holds'],
      ['a router that works as one', 'router', 'green', 'holds'],
      ['a router that works as an access point', 'router', 'cyan', 'breaks']
    ] as const
  ).map(([what, role, colour, outcome]): RuleCase => [
    'start-good-lamp',
    what,
    () => opened(),
    (log) => {
      unit(other, { name: 'Sluice', model: 'oldmere-sluice', modelVersion: 1, role })(log)
      log.write('lamp.seen', { unit: other, lamps: [{ lamp: 'status', colour, pattern: 'solid' }] })
    },
    outcome
  ]),
  [
    'brief-method',
    'a leading point by the buttons that join it to another',
    () => opened(),
    unit(other, { model: 'fenmarrow-lattice-3', modelVersion: 1, role: 'router', method: 'push-button' }),
    'breaks'
  ],
  ...(
    ['cred-admin', 'cred-local-admin', 'cred-account', 'wifi-pushbutton-off', 'firm-updates', 'start-prompts'] as const
  ).flatMap((rule): RuleCase[] => [
    [rule, 'answered once for a mesh', lattices, () => 0, 'holds'],
    [rule, 'answered for a unit that is run by itself', lattices, unit(second, { role: 'access-point' }), 'unproven']
  ]),
  [
    'start-prompts',
    'answered on no member of the mesh',
    lattices,
    (log) => log.write('thing.removed', { thing: 'unit', id: other }),
    'unproven'
  ],
  ['cred-account', 'otherwise on one member', lattices, unit(second, { accountOwner: 'technician' }), 'breaks'],
  [
    'cred-admin',
    'an extender has a login of its own, whatever its router has',
    lattices,
    unit(node, { name: 'Reed', model: 'quillet-reed', modelVersion: 1, role: 'extender' }),
    'unproven'
  ],
  ...(
    [
      ['its controller has it', () => 0, 'holds'],
      [
        'its controller was taken out',
        (log: Log) => log.write('thing.removed', { thing: 'unit', id: other }),
        'unproven'
      ],
      ['it was set up by itself', unit(second, { method: null }), 'unproven']
    ] as const
  ).map(([what, change, outcome]): RuleCase => ['cred-admin', `an access point: ${what}`, adopted, change, outcome]),
  ['start-good-lamp', 'white steady', complete, () => 0, 'holds'],
  ['start-good-lamp', 'too far', complete, seen('amber', 'solid'), 'breaks'],
  ['start-good-lamp', 'a look that nothing explains', complete, seen('purple', 'solid'), 'unproven'],
  [
    'start-good-lamp',
    'restarted since, and nobody looked: what was seen stands',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'restarted' }),
    'unproven'
  ],
  ['start-good-lamp', 'dark, as asked', complete, (log) => choices(seen('off', 'off')(log), 'off'), 'holds'],
  [
    'start-good-lamp',
    'ready, on its way',
    () => opened(),
    (log) => {
      unit(node, { model: 'ostrel-tern', modelVersion: 1 })(log)
      seen('blue', 'blink')(log)
    },
    'unproven'
  ],
  ['start-fresh-lamp', 'nothing since', complete, () => 0, 'holds'],
  [
    'start-fresh-lamp',
    'restarted since',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'restarted' }),
    'breaks'
  ],
  ['start-in-time', 'in time', complete, () => 0, 'holds'],
  ['start-in-time', 'starting for an hour', complete, startedLate, 'breaks'],
  [
    'start-in-time',
    'starting for an hour, then well',
    complete,
    (log) => {
      startedLate(log)
      log.write('lamp.seen', { unit: second, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })
      log.write('lamp.seen', { unit: second, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] })
    },
    'breaks'
  ],
  [
    'start-in-time',
    'starting for an hour, then restarted',
    complete,
    (log) => startedLate(log).write('unit.event', { unit: second, what: 'restarted' }),
    'breaks'
  ],
  [
    'start-in-time',
    'starting for an hour, then restarted and well in its time',
    complete,
    (log) =>
      startedLate(log)
        .write('unit.event', { unit: second, what: 'restarted' })
        .write('lamp.seen', { unit: second, lamps: [{ lamp: 'status', colour: 'blue', pattern: 'blink' }] })
        .write('lamp.seen', { unit: second, lamps: [{ lamp: 'status', colour: 'white', pattern: 'solid' }] }),
    'holds'
  ],
  ['start-prompts', 'all answered', complete, () => 0, 'holds'],
  [
    'start-prompts',
    'none answered',
    () => opened(),
    unit(router, { model: 'ostrel-heron', modelVersion: 1 }),
    'unproven'
  ],
  ['addr-one-dhcp', 'one', complete, () => 0, 'holds'],
  ['addr-one-dhcp', 'two', complete, twoPools, 'breaks'],
  [
    'addr-one-dhcp',
    'none recorded',
    complete,
    (log) => log.write('thing.removed', { thing: 'pool', id: idOf('pool') }),
    'unproven'
  ],
  [
    'addr-one-dhcp',
    'whose the pool is nobody said',
    complete,
    (log) => log.write('pool.set', { id: idOf('pool'), set: { unit: null } }),
    'unproven'
  ],
  ['addr-one-dhcp', 'a second one is on, without a pool', complete, unit(node, { dhcpServer: 'on' }), 'breaks'],
  [
    'addr-one-dhcp',
    'one whose own server is on, without a pool',
    complete,
    (log) => {
      log.write('thing.removed', { thing: 'pool', id: idOf('pool') })
      unit(router, { dhcpServer: 'on' })(log)
    },
    'holds'
  ],
  ['addr-one-dhcp', 'the one that serves is recorded off', complete, unit(router, { dhcpServer: 'off' }), 'breaks'],
  [
    'addr-one-dhcp',
    'the one that served was taken out',
    complete,
    (log) => log.write('thing.removed', { thing: 'unit', id: router }),
    'unproven'
  ],
  [
    'addr-one-dhcp',
    'the provider’s own range with a fixed address',
    complete,
    (log) => log.write('segment.set', { id: other, set: { name: 'Line', use: 'provider', cidr: '203.0.113.8/30' } }),
    'holds'
  ],
  [
    'addr-one-dhcp',
    'upside down',
    complete,
    (log) => log.write('pool.set', { id: idOf('pool'), set: { from: '192.168.1.199', to: '192.168.1.100' } }),
    'breaks'
  ],
  ['addr-valid', 'all right', complete, () => 0, 'holds'],
  ['addr-valid', '192.169 for 192.168', complete, host('192.169.1.20'), 'breaks'],
  ['addr-valid', 'three groups', complete, host('192.168.20'), 'breaks'],
  [
    'addr-valid',
    'no address',
    complete,
    (log) => log.write('host.set', { id: idOf('hx'), set: { name: 'Printer', segment: home } }),
    'unproven'
  ],
  ['addr-unique', 'once', complete, () => 0, 'holds'],
  ['addr-unique', 'twice', complete, host('192.168.1.20'), 'breaks'],
  ['addr-pool', 'outside', complete, () => 0, 'holds'],
  ['addr-pool', 'inside', complete, host('192.168.1.120'), 'breaks'],
  ['addr-pool', 'inside but reserved', complete, host('192.168.1.120', { reserved: true }), 'holds'],
  ['addr-no-overlap', 'one segment', complete, () => 0, 'not-here'],
  [
    'addr-no-overlap',
    'two that overlap',
    complete,
    (log) => log.write('segment.set', { id: second, set: { name: 'Shed', cidr: '192.168.0.0/16' } }),
    'breaks'
  ],
  ['addr-single-nat', 'none', complete, () => 0, 'holds'],
  [
    'addr-single-nat',
    'what it stands behind is not recorded',
    complete,
    (log) => log.write('brief.set', { set: { accessLine: null } }),
    'unproven'
  ],
  [
    'addr-single-nat',
    'two',
    complete,
    (log) =>
      log
        .write('segment.set', { id: second, set: { name: 'Box', cidr: '192.168.2.0/24', behind: other } })
        .write('segment.set', { id: other, set: { name: 'Street', cidr: '192.168.3.0/24' } })
        .write('segment.set', { id: home, set: { behind: second } }),
    'breaks'
  ],
  [
    'addr-applied',
    'one was taken off the list in order again',
    complete,
    (log) => log.write('rule.answered', { rule: 'addr-applied', subject: `${router} wifi`, answer: 'no' }),
    'unproven'
  ],
  [
    'addr-applied',
    'one was taken off, and all said to be applied since',
    complete,
    (log) => {
      log.write('rule.answered', { rule: 'addr-applied', subject: `${router} wifi`, answer: 'no' })
      yes('addr-applied')(log)
    },
    'holds'
  ],
  ['addr-ap-mode', 'no such unit', complete, () => 0, 'not-here'],
  ['addr-ap-mode', 'its DHCP server on', complete, weir({ dhcpServer: 'on' }), 'breaks'],
  ['addr-ap-mode', 'nobody said', complete, weir(), 'unproven'],
  [
    'addr-ap-mode',
    'all off, in the main segment',
    complete,
    (log) =>
      weir({ dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' })(log).write('host.set', {
        id: idOf('hw'),
        set: { unit: other, segment: home, address: '192.168.1.30' }
      }),
    'holds'
  ],
  ['addr-reachable', 'reached', complete, () => 0, 'holds'],
  [
    'addr-reachable',
    'changed since',
    complete,
    (log) => log.write('host.set', { id: idOf('hn'), set: { address: '192.168.1.21' } }),
    'unproven'
  ],
  [
    'addr-reachable',
    'not reached',
    complete,
    (log) => log.write('rule.answered', { rule: 'addr-reachable', subject: idOf('hn'), answer: 'no' }),
    'breaks'
  ],
  ['addr-applied', 'answered', complete, () => 0, 'holds'],
  ['addr-applied', 'nobody said', () => opened(), unit(router, { name: 'R' }), 'unproven'],
  ['wifi-name', 'its own', complete, () => 0, 'holds'],
  ['wifi-name', 'the default', complete, net({ ssid: 'Ostrel-9001' }), 'breaks'],
  ['wifi-name', 'the customer’s name', complete, net({ ssid: 'oakum wifi' }), 'breaks'],
  ['wifi-name', 'a trailing blank', complete, net({ ssid: 'Razorbill ' }), 'breaks'],
  ['wifi-name', 'none', () => opened(), () => 0, 'unproven'],
  ['wifi-naming-school', 'one name', complete, () => 0, 'holds'],
  [
    'wifi-naming-school',
    'a name a band',
    complete,
    (log) => log.write('network.set', { id: second, set: { ssid: 'Razorbill 5', use: 'main', bands: ['5'] } }),
    'breaks'
  ],
  [
    'wifi-naming-school',
    'an extender with a suffix',
    complete,
    (log) =>
      log.write('network.set', {
        id: second,
        set: { ssid: 'Razorbill_EXT', use: 'main', bands: ['5'], extender: node }
      }),
    'breaks'
  ],
  [
    'wifi-naming-school',
    'an extender’s name, and the router’s is not recorded',
    complete,
    net({ extender: node }),
    'unproven'
  ],
  ...['wifi-security', 'wifi-passphrase', 'wifi-segment'].map((rule): RuleCase => [
    rule,
    'no network at all',
    complete,
    (log) => log.write('thing.removed', { thing: 'network', id: network }),
    'unproven'
  ]),
  ['wifi-security', 'WPA2 and WPA3', complete, () => 0, 'holds'],
  ['wifi-security', 'WEP', complete, net({ security: 'wep' }), 'breaks'],
  ['wifi-security', 'not recorded', complete, net({ security: null }), 'unproven'],
  ['wifi-passphrase', 'strong', complete, () => 0, 'holds'],
  [
    'wifi-passphrase',
    'weak',
    complete,
    (log) => log.secret('wifi-passphrase', 'network', network, { score: 2, print: 'weak' }),
    'breaks'
  ],
  [
    'wifi-passphrase',
    'the default key',
    complete,
    (log) => log.secret('wifi-passphrase', 'network', network, { print: `label-key-${router}` }),
    'breaks'
  ],
  [
    'wifi-passphrase',
    'holding the name',
    complete,
    (log) => log.secret('wifi-passphrase', 'network', network, { holdsName: true, print: 'named' }),
    'breaks'
  ],
  ['wifi-passphrase', 'none', complete, guests({}), 'unproven'],
  ['wifi-guest', 'no guests', complete, () => 0, 'not-here'],
  [
    'wifi-guest',
    'apart',
    complete,
    (log) => guests({ isolated: true })(log).secret('wifi-passphrase', 'network', guest),
    'holds'
  ],
  ['wifi-guest', 'not apart', complete, guests({ isolated: false }), 'breaks'],
  [
    'wifi-guest',
    'with the home’s passphrase',
    complete,
    (log) =>
      guests({ isolated: true })(log).secret('wifi-passphrase', 'network', guest, {
        print: `wifi-passphrase-${network}`
      }),
    'breaks'
  ],
  ['wifi-segment', 'home lands in home', complete, () => 0, 'holds'],
  ['wifi-segment', 'guests land in home', complete, guests({ isolated: false }), 'breaks'],
  ['wifi-segment', 'nowhere', complete, net({ segment: null }), 'unproven'],
  ['wifi-pushbutton-off', 'off', complete, () => 0, 'holds'],
  ['wifi-pushbutton-off', 'on', complete, unit(node, { pushButton: 'on' }), 'breaks'],
  ['wifi-pushbutton-off', 'nobody said', complete, unit(node, { pushButton: null }), 'unproven'],
  ['cred-admin', 'ours', complete, () => 0, 'holds'],
  [
    'cred-admin',
    'that of another home',
    complete,
    (log) => log.secret('admin-password', 'unit', node, { usedElsewhere: true }),
    'breaks'
  ],
  [
    'cred-admin',
    'a Wi-Fi passphrase',
    complete,
    (log) => log.secret('admin-password', 'unit', node, { print: `wifi-passphrase-${network}` }),
    'breaks'
  ],
  [
    'cred-admin',
    'the provider’s login, and a Wi-Fi passphrase as well',
    complete,
    (log) => {
      log.secret('provider-login', 'brief' as 'unit', 'brief', { print: 'twice' })
      log.secret('wifi-passphrase', 'network', network, { print: 'twice' })
      log.secret('admin-password', 'unit', node, { print: 'twice' })
    },
    'breaks'
  ],
  ['cred-admin', 'none', complete, weir(), 'unproven'],
  ['cred-admin', 'recovery questions not spoken of', complete, asked({}), 'unproven'],
  ['cred-admin', 'recovery questions answered truly', complete, asked({ recovery: 'real' }), 'breaks'],
  [
    'cred-admin',
    'recovery questions answered with made-up words that nobody kept',
    complete,
    asked({ recovery: 'made-up' }),
    'unproven'
  ],
  [
    'cred-admin',
    'recovery questions answered with made-up words',
    complete,
    (log) => {
      asked({ recovery: 'made-up' })(log)
      log.secret('recovery-answers', 'unit', other)
    },
    'holds'
  ],
  ['cred-local-admin', 'inside only', complete, () => 0, 'holds'],
  ['cred-local-admin', 'remote on', complete, unit(node, { remoteAdmin: 'on' }), 'breaks'],
  ['cred-local-admin', 'nobody said', complete, both({ localAdminOnly: null }), 'unproven'],
  ['cred-account', 'the customer’s', complete, () => 0, 'holds'],
  ['cred-account', 'the technician’s', complete, unit(router, { accountOwner: 'technician' }), 'breaks'],
  ['cred-account', 'nobody said', complete, both({ accountOwner: null }), 'unproven'],
  ['cred-no-leak', 'compared', complete, () => 0, 'holds'],
  ['cred-no-leak', 'no secret yet', () => opened(), () => 0, 'not-here'],
  ['firm-recorded', 'both', complete, () => 0, 'holds'],
  ['firm-recorded', 'no version after', complete, unit(node, { firmwareAfter: null }), 'unproven'],
  ['firm-minimum', 'above', complete, () => 0, 'holds'],
  ['firm-minimum', 'below', complete, unit(node, { firmwareAfter: '2.8.1' }), 'breaks'],
  ['firm-minimum', 'withdrawn', complete, unit(node, { firmwareAfter: 'v3.0.0' }), 'breaks'],
  ['firm-minimum', 'not in the catalogue', complete, unit(node, { firmwareAfter: '9.9' }), 'unproven'],
  [
    'firm-same',
    'two apart',
    complete,
    unit(second, { model: 'ostrel-tern', modelVersion: 1, firmwareAfter: '3.0.2' }),
    'breaks'
  ],
  [
    'firm-same',
    'two alike',
    complete,
    unit(second, { model: 'ostrel-tern', modelVersion: 1, firmwareAfter: 'V3.1.0' }),
    'holds'
  ],
  ['firm-same', 'one of each', complete, () => 0, 'not-here'],
  ['firm-updates', 'by the school', complete, () => 0, 'holds'],
  ['firm-updates', 'against the school', complete, unit(node, { updates: 'managed' }), 'breaks'],
  ['firm-updates', 'nobody said', complete, both({ updates: null }), 'unproven'],
  ['hand-choices', 'asked', complete, choices, 'holds'],
  ['hand-choices', 'not asked', complete, () => 0, 'unproven'],
  [
    'hand-choices',
    'a guest network, and none is recorded',
    complete,
    (log) => choices(log).write('choice.answered', { choice: 'guest', answer: 'yes' }),
    'breaks'
  ],
  [
    'hand-choices',
    'a guest network that is recorded',
    complete,
    (log) => guests({})(choices(log).write('choice.answered', { choice: 'guest', answer: 'yes' })),
    'holds'
  ],
  ['hand-choices', 'no guest network, and one is recorded', complete, (log) => guests({})(choices(log)), 'breaks'],
  [
    'hand-choices',
    'no automatic updates, and units are set to them',
    complete,
    (log) => choices(log).write('choice.answered', { choice: 'updates', answer: 'no' }),
    'breaks'
  ],
  [
    'hand-choices',
    'updates managed, and a unit is set to automatic',
    complete,
    (log) =>
      unit(node, { updates: 'managed' })(
        choices(log).write('choice.answered', { choice: 'updates', answer: 'managed' })
      ),
    'breaks'
  ],
  [
    'hand-choices',
    'lamps off, where none can be switched off',
    opened,
    (log) => {
      weir({})(log)
      choices(log, 'off')
    },
    'breaks'
  ],
  [
    'hand-lamp',
    'off, where none can be switched off',
    opened,
    (log) => {
      weir({})(log)
      choices(log, 'off')
    },
    'not-here'
  ],
  ['cable-mode', 'the internet port leads to the provider’s box', complete, () => 0, 'holds'],
  [
    'cable-mode',
    'the internet port leads to a computer',
    complete,
    (log) =>
      log
        .write('fitting.set', { id: other, set: { kind: 'computer' } })
        .write('cable.set', { id: wan, set: { b: { thing: 'fitting', id: other, port: 'lan' } } }),
    'breaks'
  ],
  [
    'cable-mode',
    'the internet port leads to the provider’s line',
    complete,
    (log) =>
      log.write('cable.set', { id: wan, set: { b: { thing: 'fitting', id: idOf('pbox'), port: 'line' }, kind: null } }),
    'breaks'
  ],
  [
    'cable-mode',
    'the internet port leads to another’s internet port',
    complete,
    (log) => {
      log
        .write('unit.set', {
          id: other,
          set: { name: 'Second router', model: 'ostrel-heron', modelVersion: 1, role: 'router' }
        })
        .write('cable.set', { id: wan, set: { b: end(other, 'internet') } })
    },
    'breaks'
  ],
  [
    'cable-mode',
    'a socket of which nobody knows where it leads',
    complete,
    (log) =>
      log
        .write('outlet.set', { id: idOf('s1'), set: { kind: 'network' } })
        .write('cable.set', { id: wan, set: { b: { thing: 'outlet', id: idOf('s1'), port: 'wall' } } }),
    'unproven'
  ],
  [
    'cable-mode',
    'through the wall to the provider’s box',
    complete,
    (log) =>
      cable(
        log
          .write('outlet.set', { id: idOf('s2'), set: { kind: 'network' } })
          .write('outlet.set', { id: idOf('s1'), set: { kind: 'network', cableTo: idOf('s2') } })
          .write('cable.set', { id: wan, set: { b: { thing: 'outlet', id: idOf('s1'), port: 'wall' } } }),
        { thing: 'fitting', id: idOf('pbox'), port: 'lan' },
        { thing: 'outlet', id: idOf('s2'), port: 'wall' }
      ),
    'holds'
  ],
  [
    'cable-mode',
    'the line of a gateway leads to a telephone',
    opened,
    (log) =>
      cable(l2(log).write('fitting.set', { id: idOf('tel'), set: { kind: 'telephone' } }), end(other, 'line'), {
        thing: 'fitting',
        id: idOf('tel'),
        port: 'line'
      }),
    'breaks'
  ],
  [
    'cable-mode',
    'an access point with a computer in its LAN port',
    complete,
    (log) => {
      weir()(log)
      cable(log.write('fitting.set', { id: idOf('pc'), set: { kind: 'computer' } }), end(other, 'lan-1'), {
        thing: 'fitting',
        id: idOf('pc'),
        port: 'lan'
      })
    },
    'unproven'
  ],
  [
    'cable-speed',
    'a cable that is none',
    complete,
    (log) =>
      log.write('cable.set', { id: wan, set: { b: { thing: 'fitting', id: idOf('pbox'), port: 'line' }, kind: null } }),
    'breaks'
  ],
  [
    'cable-mode',
    'no cable drawn',
    complete,
    (log) => log.write('thing.removed', { thing: 'cable', id: wan }),
    'unproven'
  ],
  [
    'cable-mode',
    'the internet into a LAN port of a router',
    complete,
    (log) => modem(log).write('cable.set', { id: wan, set: { a: end(router, 'lan-1'), b: end(other, 'lan') } }),
    'breaks'
  ],
  [
    'cable-mode',
    'an access point by its internet port',
    complete,
    (log) => {
      weir()(log)
      cable(log, end(other, 'internet'), end(router, 'lan-1'))
    },
    'breaks'
  ],
  [
    'cable-mode',
    'an access point LAN to LAN',
    complete,
    (log) => {
      weir()(log)
      cable(log, end(other, 'lan-1'), end(router, 'lan-1'))
    },
    'holds'
  ],
  ['cable-modem-restart', 'no modem of ours', complete, () => 0, 'not-here'],
  [
    'cable-modem-restart',
    'not since the cable',
    complete,
    (log) =>
      cable(modem(log).write('thing.removed', { thing: 'cable', id: wan }), end(other, 'lan'), end(router, 'internet')),
    'unproven'
  ],
  [
    'cable-modem-restart',
    'restarted, not looked at',
    complete,
    (log) =>
      cable(
        modem(log).write('thing.removed', { thing: 'cable', id: wan }),
        end(other, 'lan'),
        end(router, 'internet')
      ).write('unit.event', { unit: other, what: 'restarted' }),
    'unproven'
  ],
  [
    'cable-modem-restart',
    'restarted and looked at',
    complete,
    (log) =>
      cable(modem(log).write('thing.removed', { thing: 'cable', id: wan }), end(other, 'lan'), end(router, 'internet'))
        .write('unit.event', { unit: other, what: 'restarted' })
        .write('lamp.seen', { unit: other, lamps: [{ lamp: 'power', colour: 'green', pattern: 'solid' }] }),
    'holds'
  ],
  ['cable-speed', 'as fast as both ends', complete, () => 0, 'holds'],
  [
    'cable-speed',
    'not noted',
    complete,
    (log) => log.write('cable.set', { id: wan, set: { linkMbps: null } }),
    'unproven'
  ],
  [
    'cable-speed',
    'slower than is paid for',
    complete,
    (log) => log.write('cable.set', { id: wan, set: { linkMbps: 100 } }),
    'breaks'
  ],
  [
    'cable-speed',
    'slower than both ends',
    complete,
    (log) => {
      weir()(log)
      cable(log, end(other, 'lan-1'), end(router, 'lan-1'), { linkMbps: 10 })
    },
    'breaks'
  ],
  [
    'cable-speed',
    'a loop',
    complete,
    (log) => {
      weir()(log)
      cable(log, end(other, 'lan-1'), end(router, 'lan-1'), { linkMbps: 1000 })
      cable(log, end(other, 'lan-2'), end(router, 'lan-2'), { linkMbps: 1000 }, 'c2')
    },
    'breaks'
  ],
  [
    'cable-speed',
    'no network cable',
    complete,
    (log) => log.write('thing.removed', { thing: 'cable', id: wan }),
    'not-here'
  ],
  [
    'cable-splitter',
    'a telephone on the wall, and its line goes through the gateway',
    complete,
    (log) => {
      l2(log)
      log
        .write('brief.set', { set: { telephone: true } })
        .write('fitting.set', { id: idOf('tel'), set: { kind: 'telephone' } })
      cable(log, { thing: 'fitting', id: idOf('tel'), port: 'line' }, wall)
    },
    'breaks'
  ],
  ['cable-splitter', 'none', complete, () => 0, 'not-here'],
  ['cable-splitter', 'nothing on its sides', complete, splitter, 'unproven'],
  [
    'cable-splitter',
    'each on its side',
    complete,
    (log) => {
      l2(splitter(log))
      cable(cable(log, wall, split('line')), split('modem'), end(other, 'line'), {}, 'c2')
    },
    'holds'
  ],
  [
    'cable-splitter',
    'line and modem the wrong way round',
    complete,
    (log) => {
      l2(splitter(log))
      cable(cable(log, wall, split('modem')), split('line'), end(other, 'line'), {}, 'c2')
    },
    'breaks'
  ],
  ['cable-power', 'nothing powered', complete, () => 0, 'not-here'],
  ['cable-power', 'nothing feeds it', complete, spindle(1), 'unproven'],
  [
    'cable-power',
    'within the budget',
    complete,
    (log) => {
      spindle(1)(log)
      fed(1)(log)
    },
    'holds'
  ],
  [
    'cable-power',
    'three of class 4 on 62 W',
    complete,
    (log) => {
      spindle(3)(log)
      fed(3)(log)
    },
    'breaks'
  ],
  [
    'cable-power',
    'a port without power',
    complete,
    (log) => {
      spindle(1)(log)
      cable(
        log.write('unit.set', { id: second, set: { model: 'tolvane-bobbin-8', modelVersion: 1, role: 'switch' } }),
        end(second, 'lan-7'),
        end(idOf('ap0'), 'lan')
      )
    },
    'breaks'
  ],
  [
    'cable-power',
    'over a wall socket',
    complete,
    (log) => {
      spindle(1)(log)
      overWall(log, 1)
    },
    'holds'
  ],
  [
    'cable-power',
    'three of class 4 over wall sockets on 62 W',
    complete,
    (log) => {
      spindle(3)(log)
      overWall(log, 3)
    },
    'breaks'
  ],
  [
    'cable-power',
    'by an injector',
    complete,
    (log) => {
      spindle(1)(log)
      log.write('fitting.set', { id: idOf('inj'), set: { kind: 'injector' } })
      cable(log, { thing: 'fitting', id: idOf('inj'), port: 'out' }, end(idOf('ap0'), 'lan'))
    },
    'holds'
  ],
  ['cable-power', 'a network telephone whose class nobody says', complete, phone('lan-3', {}), 'unproven'],
  ['cable-power', 'a network telephone that hangs on nothing', complete, phone(null, {}), 'unproven'],
  [
    'cable-power',
    'a network telephone of a known class that hangs on nothing',
    complete,
    phone(null, { powerClass: 2 }),
    'unproven'
  ],
  [
    'cable-power',
    'a network telephone with an adapter of its own alone',
    complete,
    phone(null, { ownPower: true }),
    'not-here'
  ],
  [
    'cable-power',
    'a network telephone at a port of a router, which gives no power',
    complete,
    (log) => {
      log.write('fitting.set', { id: idOf('tel'), set: { kind: 'network-telephone', powerClass: 2 } })
      cable(log, end(router, 'lan-1'), { thing: 'fitting', id: idOf('tel'), port: 'lan' }, { linkMbps: 1000 }, 'tel')
    },
    'unproven'
  ],
  ['cable-power', 'a network telephone, within the budget', complete, phone('lan-3', { powerClass: 2 }), 'holds'],
  [
    'cable-power',
    'a network telephone that is too much beside two access points',
    complete,
    (log) => {
      spindle(2)(log)
      fed(2)(log)
      phone('lan-3', { powerClass: 1 })(log)
    },
    'breaks'
  ],
  ['cable-power', 'a network telephone at a port without power', complete, phone('lan-7', { powerClass: 2 }), 'breaks'],
  [
    'cable-power',
    'a network telephone with an adapter of its own at a port without power',
    complete,
    phone('lan-7', { powerClass: 2, ownPower: true }),
    'holds'
  ],
  ['cable-old-kit', 'none, nothing swapped', complete, () => 0, 'not-here'],
  [
    'cable-old-kit',
    'swapped, nothing recorded',
    complete,
    (log) => log.write('brief.set', { set: { reason: 'swap' } }),
    'unproven'
  ],
  ['cable-old-kit', 'still connected', complete, old({}), 'breaks'],
  ['cable-old-kit', 'where it goes is open', complete, old({ disconnected: true }), 'unproven'],
  ['cable-old-kit', 'returns to the provider', complete, old({ disconnected: true, returns: 'provider' }), 'holds'],
  ['start-method-window', 'within the window', complete, () => 0, 'holds'],
  [
    'start-method-window',
    'the second press too late',
    complete,
    (log) =>
      log
        .write('pairing.pressed', { unit: node, which: 'first', on: router })
        .write('note.written', { text: 'looked for the button' })
        .write('note.written', { text: 'still' })
        .write('pairing.pressed', { unit: node, which: 'second', on: node }),
    'breaks'
  ],
  [
    'start-method-window',
    'the clock was set back',
    complete,
    (log) =>
      log
        .write('pairing.pressed', { unit: node, which: 'first', on: router })
        .write('pairing.pressed', { unit: node, which: 'second', on: node }, { at: '2026-01-04T09:00:00.000Z' }),
    'unproven'
  ],
  [
    'start-method-window',
    'no press recorded',
    complete,
    (log) =>
      log.write('unit.set', {
        id: second,
        set: { model: 'quillet-reed', modelVersion: 1, role: 'extender', method: 'push-button' }
      }),
    'unproven'
  ],
  ['start-method-window', 'set up by an app', complete, unit(node, { method: 'own-page' }), 'not-here'],
  ['radio-channel', 'they choose by themselves', complete, () => 0, 'holds'],
  ['radio-channel', 'none recorded', complete, unit(node, { autoChannels: null }), 'unproven'],
  [
    'radio-channel',
    'by itself, in a country that it is not made for',
    complete,
    (log) => log.write('brief.set', { set: { country: 'XT' } }),
    'breaks'
  ],
  [
    'radio-channel',
    'by itself, in a country that nobody recorded',
    complete,
    (log) => log.write('brief.set', { set: { country: null } }),
    'unproven'
  ],
  [
    'radio-channel',
    'set, in a country that nobody recorded',
    complete,
    (log) => {
      channels([1, 36, 80])(log)
      log.write('brief.set', { set: { country: null } })
    },
    'unproven'
  ],
  [
    'radio-channel',
    'set, in a country of which nothing is known',
    complete,
    (log) => {
      channels([1, 36, 80])(log)
      log.write('brief.set', { set: { country: 'XT' } })
    },
    'unproven'
  ],
  ['radio-channel', 'permitted, of the set', complete, channels([1, 36, 80]), 'holds'],
  ['radio-channel', 'channel 10 is no fourth free one', complete, channels([10, 36, 80]), 'breaks'],
  ['radio-channel', 'channel 14 where there is none', complete, channels([14, 36, 80]), 'breaks'],
  ['radio-channel', '160 MHz where it does not fit', complete, channels([1, 132, 160]), 'breaks'],
  [
    'radio-channel',
    '40 MHz at 2.4 GHz',
    complete,
    (log) => {
      channels([1, 36, 80])(log)
      log.write('radio.set', { id: idOf('n0a'), set: { widthMHz: 40 } })
    },
    'breaks'
  ],
  [
    'radio-channel',
    'one is missing',
    complete,
    (log) => {
      for (const id of [router, node]) unit(id, { autoChannels: null })(log)
      log.write('radio.set', { id: idOf('r'), set: { unit: router, band: '5', channel: 36, widthMHz: 80 } })
    },
    'unproven'
  ],
  ['radio-channel', 'nothing sends', () => opened(), () => 0, 'not-here'],
  [
    'radio-plan',
    'apart',
    complete,
    (log) => {
      channels([1, 36, 80])(log)
      log.write('radio.set', { id: idOf('n1a'), set: { channel: 6 } })
      log.write('radio.set', { id: idOf('n1b'), set: { channel: 100 } })
    },
    'holds'
  ],
  ['radio-plan', 'both on one channel', complete, channels([1, 36, 80]), 'breaks'],
  ['radio-plan', 'not recorded', complete, () => 0, 'not-here'],
  ['radio-radar', 'a radar channel', complete, channels([1, 100, 80]), 'holds'],
  ['radio-radar', 'one of weather radar', complete, channels([1, 116, 80]), 'holds'],
  ['radio-radar', 'none', complete, channels([1, 36, 80]), 'not-here'],
  [
    'start-fresh-lamp',
    'a test is nothing that happens to it',
    complete,
    (log) => log.write('unit.event', { unit: node, what: 'tested-bad' }),
    'holds'
  ],
  ['hand-lamp', 'bright', complete, choices, 'not-here'],
  ['hand-lamp', 'off, not told', complete, (log) => choices(log, 'off'), 'unproven'],
  ['hand-lamp', 'off, told', complete, (log) => yes('hand-lamp')(choices(log, 'off')), 'holds'],
  ['hand-pack', 'not made', complete, () => 0, 'unproven'],
  ['hand-pack', 'made, not given', complete, made, 'unproven'],
  ['hand-pack', 'made and given', complete, (log) => made(log).write('pack.given', { how: 'printed' }), 'holds'],
  [
    'hand-pack',
    'changed since',
    complete,
    (log) => net({ ssid: 'Guillemot' })(made(log).write('pack.given', { how: 'printed' })),
    'breaks'
  ],
  ...[
    (log: Log) =>
      log.write('check.booked', { id: idOf('later'), from: '2026-01-06T08:00:00Z', to: '2026-01-06T17:00:00Z' }),
    (log: Log) => log.write('check.cancelled', { id: idOf('check') }),
    (log: Log) => log.write('host.set', { id: idOf('hr'), set: { address: '192.168.1.2' } }),
    (log: Log) => log.write('storey.set', { id: ground, set: { name: 'Ground floor', floorM: 0, heightM: 2.5 } })
  ].map((change, index): RuleCase => [
    'hand-pack',
    `what it prints changed since (${index + 1})`,
    complete,
    (log) => change(made(log).write('pack.given', { how: 'printed' })),
    'breaks'
  ]),
  [
    'hand-pack',
    'one of before, which signed for less, of this very record',
    complete,
    (log) => log.write('pack.made', { digest: '0'.repeat(64) }).write('pack.given', { how: 'printed' }),
    'holds'
  ],
  [
    'hand-pack',
    'given, and a network in it has no passphrase',
    complete,
    (log) => {
      guests({})(log)
      made(log).write('pack.given', { how: 'printed' })
    },
    'breaks'
  ],
  ['hand-voice-power', 'no telephone', complete, () => 0, 'not-here'],
  ['hand-voice-power', 'not told', () => opened({ telephone: true }), () => 0, 'unproven'],
  [
    'hand-custody',
    'answered',
    complete,
    (log) => log.write('custody.answered', { custody: 'customer-only-now' }),
    'holds'
  ],
  ['hand-custody', 'not answered', complete, () => 0, 'unproven'],
  ['hand-cautions', 'not read', complete, () => 0, 'unproven'],
  ['hand-cautions', 'read', complete, yes('hand-cautions'), 'holds']
]
