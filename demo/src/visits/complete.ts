import { methodsFor } from '@pasado/core/work/units/good-look'
import { canPair } from '@pasado/core/work/units/run-as-one'
import type { CableEnd } from '@pasado/core/record/things/cable'
import { singleBox } from '@pasado/core/work/units/boxes'
import { demoModels } from '../models/all'
import type { VisitScript } from '../visit-script'

/** A unit of a plain home: which model, what it is, where it stands, its number for serial and MAC address. */
export interface PlainUnit {
  name: string
  model: string
  role: 'gateway' | 'modem' | 'router' | 'node' | 'extender' | 'access-point' | 'powerline-adapter'
  place: string
  number: number
}

const firmwareOf = (model: string) => demoModels.find((demoModel) => demoModel.id === model)!.firmware
/** The newest release that is neither withdrawn nor, for a model that asks for one, a trial build. */
const newest = (model: string) =>
  firmwareOf(model)
    .releases.filter(({ withdrawn, version }) => !withdrawn && !/b\d/.test(version))
    .at(-1)?.version
const oldest = (model: string) => firmwareOf(model).releases[0]?.version
const cleanStart: Record<string, string> = {
  'brackwater-c3': 'seeking',
  'brackwater-l2': 'training',
  'oldmere-weir': 'router'
}
const goodState = (model: string, role: string) =>
  model === 'oldmere-weir' && role === 'access-point'
    ? 'access-point'
    : demoModels.find((demoModel) => demoModel.id === model)!.states.find(({ good }) => good)!.state

/** Kit: every unit out of its box, with its role. */
export function unbox(script: VisitScript, units: PlainUnit[]): VisitScript {
  const points = units.filter(({ model }) => model === 'fenmarrow-lattice-3')
  const packed = points.length > 1 ? `pack-of-${points.length}` : null
  if (packed) script.unpacked('points', 'fenmarrow-lattice-3', packed)
  const eels = units.some(({ model }) => model === 'quillet-eel')
  if (eels) script.unpacked('eels', 'quillet-eel', singleBox)
  for (const { name, model, role, number } of units) {
    const used = model === 'oldmere-weir'
    const points = packed && model === 'fenmarrow-lattice-3' ? 'points' : null
    const shared = model === 'quillet-eel' ? 'eels' : points
    if (!used && !shared) script.unpacked(name, model, singleBox)
    const { power } = demoModels.find((demoModel) => demoModel.id === model)!
    script.unit(name, model, number, {
      role,
      used,
      ...(used ? { wasReset: true } : { box: script.id('box', shared ?? name) }),
      ...(power ? { adapterPlug: power.plug, adapterVolts: power.volts, adapterAmps: power.amps } : {})
    })
  }
  return script
}

/** The technician's word that models of one family were mixed on purpose. */
export function mixedOnPurpose(script: VisitScript, units: PlainUnit[]): VisitScript {
  const mixed = new Set(units.filter(({ model }) => model.startsWith('ostrel')).map(({ model }) => model)).size > 1
  return mixed
    ? script.write('rule.acknowledged', {
        rule: 'kit-family',
        reason: 'Router and nodes are different models of one family; the customer knows the limits.'
      })
    : script
}

/** Place: where each unit stays, and how high. */
export function place(script: VisitScript, units: PlainUnit[]): VisitScript {
  for (const unit of units) {
    script.setUnit(unit.name, { place: unit.place, heightM: 1.2 })
    seenThere(script, unit)
  }
  return script
}

/** What is seen at a unit’s place by whoever stands there. */
export function seenThere(
  script: VisitScript,
  { name, role, model }: Pick<PlainUnit, 'name' | 'role' | 'model'>
): void {
  const sends = demoModels.find(({ id }) => id === model)!.radios.length > 0
  const rules = [
    ...(sends ? ['place-clear'] : []),
    'place-outlet',
    ...(role === 'node' ? ['place-hops', 'place-spacing', 'place-floors', 'place-outbuilding'] : [])
  ]
  for (const rule of rules) script.answer(rule, script.id('unit', name))
}

/** Connect: the line to the modem or gateway, from there to each router and access point, and the restart once all is in. */
export function connect(script: VisitScript, units: PlainUnit[]): VisitScript {
  const outlet = script.id('outlet', 'line')
  const port = (unit: PlainUnit, ...kinds: string[]) =>
    demoModels.find((demoModel) => demoModel.id === unit.model)!.ports.find(({ kind }) => kinds.includes(kind))
  const modem = units.find(({ role }) => role === 'gateway' || role === 'modem')
  let lan = 0
  /** The next free port that the network comes out of. */
  const source = (): CableEnd => {
    if (!modem) return { thing: 'fitting', id: script.id('fitting', 'provider box'), port: 'lan' }
    const ports = demoModels
      .find((demoModel) => demoModel.id === modem.model)!
      .ports.filter(({ kind }) => kind === 'lan')
    return { thing: 'unit', id: script.id('unit', modem.name), port: ports[lan++ % ports.length]!.id }
  }
  const network = (name: string, a: CableEnd, b: CableEnd, lengthM = 2) =>
    script.write('cable.set', {
      id: script.id('cable', name),
      set: { a, b, kind: 'network', category: 'cat6', lengthM, linkMbps: 1000 }
    })
  if (modem) {
    const line = port(modem, 'coax', 'telephone-line', 'fibre')
    const kind = line?.kind === 'coax' || line?.kind === 'fibre' ? line.kind : 'telephone'
    if (script.lineOutlet === undefined) script.write('outlet.set', { id: outlet, set: { kind: 'line' } })
    const wall: CableEnd = { thing: 'outlet', id: script.lineOutlet!, port: 'wall' }
    const end: CableEnd = { thing: 'unit', id: script.id('unit', modem.name), port: line?.id ?? 'line' }
    if (kind === 'telephone') {
      const splitter = script.id('fitting', 'splitter')
      script.write('fitting.set', { id: splitter, set: { kind: 'splitter' } })
      script.write('cable.set', {
        id: script.id('cable', 'wall to splitter'),
        set: { a: wall, b: { thing: 'fitting', id: splitter, port: 'line' }, kind, lengthM: 0.5 }
      })
      script.write('cable.set', {
        id: script.id('cable', 'splitter to modem'),
        set: { a: { thing: 'fitting', id: splitter, port: 'modem' }, b: end, kind, lengthM: 2 }
      })
      const telephone = script.id('fitting', 'telephone')
      const phone = port(modem, 'telephone')
      if (phone)
        script.write('fitting.set', { id: telephone, set: { kind: 'telephone' } }).write('cable.set', {
          id: script.id('cable', 'telephone'),
          set: {
            a: { ...end, port: phone.id },
            b: { thing: 'fitting', id: telephone, port: 'line' },
            kind,
            lengthM: 3
          }
        })
    } else
      script.write('cable.set', {
        id: script.id('cable', 'wall to modem'),
        set: { a: wall, b: end, kind, lengthM: 1.5 }
      })
  } else if (units.some(({ role }) => role === 'router'))
    script.write('fitting.set', { id: script.id('fitting', 'provider box'), set: { kind: 'provider-box' } })
  const adapters = units.filter(({ role }) => role === 'powerline-adapter')
  adapters
    .slice(0, 1)
    .forEach((unit) => network(unit.name, { thing: 'unit', id: script.id('unit', unit.name), port: 'lan' }, source()))
  for (const unit of units.filter(({ role }) => role === 'router' || role === 'access-point')) {
    const own = (unit.role === 'router' ? port(unit, 'internet') : undefined) ?? port(unit, 'lan')
    if (!own) continue
    const far = unit.role === 'access-point' ? adapters[1] : undefined
    network(
      unit.name,
      { thing: 'unit', id: script.id('unit', unit.name), port: own.id },
      far ? { thing: 'unit', id: script.id('unit', far.name), port: 'lan' } : source()
    )
  }
  if (modem) script.event(modem.name, 'powered')
  return script
}

/** Start up: methods, prompts and lamps up to a good state. */
export function startUp(script: VisitScript, units: PlainUnit[]): VisitScript {
  for (const { name, model, role } of units) {
    const known = demoModels.find((demoModel) => demoModel.id === model)!
    const ways = methodsFor(known, { facts: { role } })
    const method = ways.find(({ kind }) => kind === (role === 'access-point' ? 'access-point' : kind)) ?? ways[0]!
    script.setUnit(name, { method: method.id, needsReady: [...method.needs] }).prompts(name, model)
    if (method.kind === 'push-button') {
      const leads = units.find(
        (unit) => unit.name !== name && (unit.model === model || unit.role === 'router' || unit.role === 'gateway')
      )
      script
        .write('pairing.pressed', {
          unit: script.id('unit', name),
          which: 'first',
          on: script.id('unit', leads?.name ?? name)
        })
        .write('pairing.pressed', { unit: script.id('unit', name), which: 'second', on: script.id('unit', name) })
    }
    const middle = cleanStart[model] ?? known.states.find(({ state }) => ['starting', 'powered'].includes(state))?.state
    if (middle) script.after(2).seen(name, model, middle)
    script.after(4).seen(name, model, goodState(model, role))
  }
  return script
}

/** Configure: one range outside whose pool the units stand, one network for the home, one for guests, logins, firmware. */
export function configure(
  script: VisitScript,
  units: PlainUnit[],
  names: { home: string; guests?: string },
  seed: number
): VisitScript {
  const server = units.find(({ role }) => role === 'gateway' || role === 'router')!
  script.segment(
    'Home',
    { use: 'home', cidr: '192.168.20.0/24', gateway: '192.168.20.1' },
    { unit: server.name, from: '192.168.20.100', to: '192.168.20.199' }
  )
  units.forEach((unit, index) => {
    const { name, model, role } = unit
    if (unit === server || role !== 'modem') {
      script.host(name, 'Home', unit === server ? '192.168.20.1' : `192.168.20.${240 + index}`)
      script.answer('addr-reachable', script.id('host', name))
    }
    const known = demoModels.find((demoModel) => demoModel.id === model)!
    script.setUnit(name, {
      ...(known.firmware.releases.length ? { firmwareBefore: oldest(model)!, firmwareAfter: newest(model)! } : {}),
      ...(known.updates === 'none' ? {} : { updates: known.updates === 'managed' ? 'managed' : 'automatic' }),
      localAdminOnly: true,
      remoteAdmin: 'off',
      accountOwner: 'customer',
      technicianRemoved: true,
      ...(known.radios.length && role !== 'modem' ? { autoChannels: true } : {}),
      ...(canPair(known) ? { pushButton: 'off' } : {}),
      ...(role === 'access-point' && known.roles.includes('router')
        ? { dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' }
        : {})
    })
    if (known.recoveryQuestions)
      script
        .setUnit(name, { recovery: 'made-up' })
        .secret(
          'recovery-answers',
          'unit',
          script.id('unit', name),
          `demo-answers-${pick(seed + 3, index)}-${pick(seed + 5, index)}`
        )
    script.secret(
      'admin-password',
      'unit',
      script.id('unit', name),
      `demo-admin-${pick(seed, index)}-${pick(seed + 7, index)}-${seed}${index}`
    )
  })
  const common = {
    bands: ['2.4', '5'] as ('2.4' | '5')[],
    security: 'wpa2-wpa3' as const,
    segment: script.id('segment', 'Home')
  }
  script.network(
    names.home,
    { use: 'main', ...common },
    `demo-${pick(seed, 1)}-${pick(seed, 2)}-${pick(seed, 3)}-${10 + (seed % 90)}`
  )
  if (names.guests)
    script.network(
      names.guests,
      { use: 'guest', isolated: true, ...common },
      `demo-${pick(seed, 4)}-${pick(seed, 5)}-${pick(seed, 6)}-${10 + ((seed * 3) % 90)}`
    )
  for (const { name, ...can } of customerDevices)
    script.write('device.set', { id: script.id('device', name), set: { name, ...can } })
  return script.answer('addr-applied')
}

/** Prove: the source, every room, a wired port and the path of each unit, the telephone, and a look when all has settled. */
function proven(script: VisitScript, units: PlainUnit[]): void {
  const { speedDownMbps = 300, speedUpMbps = 50, telephone } = script.visit.brief
  const model = (unit: PlainUnit) => demoModels.find((demoModel) => demoModel.id === unit.model)!
  const head = units.find(({ role }) => role === 'gateway' || role === 'router')!
  script.measured('source', {
    at: 'source',
    by: 'laptop',
    how: 'typed',
    runs: [0.98, 0.96, 0.99].map((share) => ({
      downMbps: Math.round(speedDownMbps * share),
      upMbps: Math.round(speedUpMbps * share),
      idleMs: 9,
      loadedMs: 21
    }))
  })
  if (script.rooms.length === 0) for (const name of ['Kitchen', 'Bedroom', 'Workroom']) script.namedRoom(name)
  const senders = units.filter((unit) => unit.role !== 'modem' && model(unit).radios.length > 0)
  script.rooms.forEach(({ id, name }, at) => {
    const unit = senders[at % Math.max(1, senders.length)]
    if (!unit) return
    const wide = model(unit).radios.some(({ band }) => band === '5')
    script.measured(`room ${id} ${name}`, {
      at: 'room',
      room: id,
      unit: script.id('unit', unit.name),
      band: wide ? '5' : '2.4',
      dbm: -48 - ((at * 5) % 17),
      by: 'phone',
      how: 'typed',
      runs: [
        {
          downMbps: Math.round(Math.min(speedDownMbps * 0.9, wide ? 430 - at * 12 : 124 - at * 3)),
          upMbps: Math.round(speedUpMbps * 0.8),
          idleMs: 12 + (at % 4),
          loadedMs: 30 + at
        }
      ]
    })
  })
  for (const unit of units)
    if (unit.role !== 'modem' && model(unit).ports.some(({ kind }) => kind === 'lan'))
      script.measured(`port ${unit.name}`, {
        at: 'port',
        unit: script.id('unit', unit.name),
        by: 'laptop',
        how: 'typed',
        runs: [{ downMbps: Math.round(Math.min(speedDownMbps * 0.97, 94 * 9)) }]
      })
  for (const [at, unit] of units.entries())
    if (['node', 'extender', 'access-point'].includes(unit.role) && model(unit).radios.length > 0)
      script.write('path.seen', {
        unit: script.id('unit', unit.name),
        before: 0,
        after: 1,
        address: `192.168.20.${110 + at}`,
        server: script.id('unit', head.name)
      })
  for (const unit of units)
    if (script.defaultSsid(unit.name) !== undefined) script.answer('prove-names-gone', script.id('unit', unit.name))
  if (telephone) for (const call of ['out', 'in']) script.answer('prove-voice', call)
  const members = units.filter((unit) => model(unit).mesh && ['router', 'gateway', 'node'].includes(unit.role))
  if (members.length > 1) script.checkBooked()
}

/** What a household of Ness Skerrow carries about. */
const customerDevices = [
  { name: 'Kitchen tablet', security: 'wpa3', bands: ['2.4', '5'] as ('2.4' | '5')[] },
  { name: 'Television', security: 'wpa2-aes', bands: ['2.4', '5'] as ('2.4' | '5')[] },
  { name: 'Label printer', security: 'wpa2-aes', bands: ['2.4'] as ('2.4' | '5')[] }
] as const

/** Looks at every unit's lamps once more, and tests the links of those that have some. */
export function lookAgain(script: VisitScript, units: PlainUnit[], prove = proven): VisitScript {
  for (const { name, role } of units)
    if (['router', 'node', 'extender', 'gateway'].includes(role))
      script.write('unit.event', { unit: script.id('unit', name), what: 'tested-good' })
  for (const { name, model, role } of units) script.seen(name, model, goodState(model, role))
  prove(script, units)
  for (const { name } of customerDevices)
    script.write('device.set', { id: script.id('device', name), set: { rejoined: true } })
  return script
}

const words = [
  'lobster',
  'gannet',
  'rowlock',
  'thimble',
  'barnacle',
  'compass',
  'driftwood',
  'saltbox',
  'fathom',
  'pennant',
  'oyster',
  'capstan',
  'bollard',
  'halyard',
  'limpet',
  'mizzen',
  'anchor',
  'spindrift',
  'cuttle',
  'marlin'
]
const pick = (seed: number, index: number) => words[(seed * 7 + index * 11) % words.length]!
