import { singleBox } from '@pasado/core/catalogue/boxes'
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

const firmwareOf = (model: string) => demoModels.find((one) => one.id === model)!.firmware
/** The newest release that is neither withdrawn nor, for a model that asks for one, a trial build. */
const newest = (model: string) => firmwareOf(model).releases.filter(({ withdrawn, version }) => !withdrawn && !/b\d/.test(version)).at(-1)?.version
const oldest = (model: string) => firmwareOf(model).releases[0]?.version
const cleanStart: Record<string, string> = { 'brackwater-c3': 'seeking', 'brackwater-l2': 'training', 'oldmere-weir': 'router' }
const goodState = (model: string, role: string) => (model === 'oldmere-weir' && role === 'access-point' ? 'access-point' : demoModels.find((one) => one.id === model)!.states.find(({ good }) => good)!.state)

/** Kit: every unit out of its box, with its role. */
export function unbox(script: VisitScript, units: PlainUnit[]): VisitScript {
  const points = units.filter(({ model }) => model === 'fenmarrow-lattice-3')
  const packed = points.length > 1 ? `pack-of-${points.length}` : null
  if (packed) script.unpacked('points', 'fenmarrow-lattice-3', packed)
  const eels = units.some(({ model }) => model === 'quillet-eel')
  if (eels) script.unpacked('eels', 'quillet-eel', singleBox)
  for (const { name, model, role, number } of units) {
    const used = model === 'oldmere-weir'
    const shared = model === 'quillet-eel' ? 'eels' : packed && model === 'fenmarrow-lattice-3' ? 'points' : null
    if (!used && !shared) script.unpacked(name, model, singleBox)
    const { power } = demoModels.find((one) => one.id === model)!
    script.unit(name, model, number, {
      role, used, ...(used ? { wasReset: true } : { box: script.id('box', shared ?? name) }),
      ...(power ? { adapterPlug: power.plug, adapterVolts: power.volts, adapterAmps: power.amps } : {})
    })
  }
  return script
}

/** The technician's word that models of one family were mixed on purpose. */
export function mixedOnPurpose(script: VisitScript, units: PlainUnit[]): VisitScript {
  const mixed = new Set(units.filter(({ model }) => model.startsWith('ostrel')).map(({ model }) => model)).size > 1
  return mixed ? script.write('rule.acknowledged', { rule: 'kit-family', reason: 'Router and nodes are different models of one family; the customer knows the limits.' }) : script
}

/** Place: where each unit stays, and how high. */
export function place(script: VisitScript, units: PlainUnit[]): VisitScript {
  for (const { name, place: where } of units) script.setUnit(name, { place: where, heightM: 1.2 })
  return script
}

/** Start up: methods, prompts and lamps up to a good state. */
export function startUp(script: VisitScript, units: PlainUnit[]): VisitScript {
  for (const { name, model, role } of units) {
    const known = demoModels.find((one) => one.id === model)!
    const method = known.methods.find(({ kind }) => kind === (role === 'access-point' ? 'access-point' : kind)) ?? known.methods[0]!
    script.setUnit(name, { method: method.id, needsReady: [...method.needs] }).prompts(name, model)
    const middle = cleanStart[model] ?? known.states.find(({ state }) => ['starting', 'powered'].includes(state))?.state
    if (middle) script.after(2).seen(name, model, middle)
    script.after(4).seen(name, model, goodState(model, role))
  }
  return script
}

/** Configure: one range outside whose pool the units stand, one network for the home, one for guests, logins, firmware. */
export function configure(script: VisitScript, units: PlainUnit[], names: { home: string; guests?: string }, seed: number): VisitScript {
  const server = units.find(({ role }) => role === 'gateway' || role === 'router')!
  script.segment('Home', { use: 'home', cidr: '192.168.20.0/24', gateway: '192.168.20.1' }, { unit: server.name, from: '192.168.20.100', to: '192.168.20.199' })
  units.forEach((unit, index) => {
    const { name, model, role } = unit
    if (unit === server || role !== 'modem') {
      script.host(name, 'Home', unit === server ? '192.168.20.1' : `192.168.20.${240 + index}`)
      script.answer('addr-reachable', script.id('host', name))
    }
    const known = demoModels.find((one) => one.id === model)!
    script.setUnit(name, {
      ...(known.firmware.releases.length ? { firmwareBefore: oldest(model)!, firmwareAfter: newest(model)! } : {}),
      ...(known.updates === 'none' ? {} : { updates: known.updates === 'managed' ? 'managed' : 'automatic' }),
      localAdminOnly: true, remoteAdmin: 'off', accountOwner: 'customer', technicianRemoved: true,
      ...(known.methods.some(({ kind }) => kind === 'push-button') ? { pushButton: 'off' } : {}),
      ...(role === 'access-point' && known.roles.includes('router') ? { dhcpServer: 'off', dhcpRelay: 'off', secondaryAddress: 'off' } : {})
    })
    script.secret('admin-password', 'unit', script.id('unit', name), `demo-admin-${pick(seed, index)}-${pick(seed + 7, index)}-${seed}${index}`)
  })
  const common = { bands: ['2.4', '5'] as ('2.4' | '5')[], security: 'wpa2-wpa3' as const, segment: script.id('segment', 'Home') }
  script.network(names.home, { use: 'main', ...common }, `demo-${pick(seed, 1)}-${pick(seed, 2)}-${pick(seed, 3)}-${10 + (seed % 90)}`)
  if (names.guests) script.network(names.guests, { use: 'guest', isolated: true, ...common }, `demo-${pick(seed, 4)}-${pick(seed, 5)}-${pick(seed, 6)}-${10 + ((seed * 3) % 90)}`)
  return script.answer('addr-applied')
}

/** Looks at every unit's lamps once more. */
export function lookAgain(script: VisitScript, units: PlainUnit[]): VisitScript {
  for (const { name, model, role } of units) script.seen(name, model, goodState(model, role))
  return script
}

const words = ['lobster', 'gannet', 'rowlock', 'thimble', 'barnacle', 'compass', 'driftwood', 'saltbox', 'fathom', 'pennant', 'oyster', 'capstan', 'bollard', 'halyard', 'limpet', 'mizzen', 'anchor', 'spindrift', 'cuttle', 'marlin']
const pick = (seed: number, index: number) => words[(seed * 7 + index * 11) % words.length]!
