import { onceOf } from '../../record/once'
import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import type { CableEnd } from '../../record/things/cable'
import { stayingOf, staysName } from '../../record/equipment'
import {
  standing,
  thingsOf,
  unitName,
  type Fitting,
  type Outlet,
  type Stays,
  type VisitRecord
} from '../../record/record'

/** What a port is for: a model's kinds, and those of sockets and fittings. */
export type PortKind =
  Model['ports'][number]['kind'] | 'socket' | 'provider-line' | 'splitter-line' | 'splitter-modem' | 'splitter-phone'

/** A port that a cable can lead to. */
export interface Port {
  end: CableEnd
  /** What it is called on its owner, and whose it is. */
  name: string
  owner: string
  kind: PortKind
  colour: string
  mbps: number | null
  powerOutW: number | null
  powerInClass: number | null
}

/** Something with ports: a unit, what stays, an outlet or a fitting. */
export interface PortOwner {
  thing: CableEnd['thing']
  id: string
  name: string
  ports: Port[]
}

const lineKinds = {
  coax: 'coax',
  'telephone-line': 'telephone-line',
  fibre: 'fibre',
  'fixed-wireless': 'lan',
  'existing-router': 'lan'
} as const
const lineColours = {
  coax: 'metal',
  'telephone-line': 'grey',
  fibre: 'green',
  'fixed-wireless': 'grey',
  'existing-router': 'yellow'
} as const

/** Ports that what stays has where its model is not in the catalogue. */
const portsOfKind: Record<NonNullable<Stays['facts']['kind']>, readonly FittingPort[]> = {
  router: [{ port: 'internet', name: 'Internet', kind: 'internet', colour: 'blue' }, ...lanPorts(4)],
  modem: [{ port: 'line', name: 'Line', kind: 'provider-line', colour: 'grey' }, ...lanPorts(1)],
  'access-point': lanPorts(1),
  'mesh-node': lanPorts(2),
  switch: lanPorts(8),
  printer: lanPorts(1),
  other: lanPorts(1)
}

function lanPorts(count: number): FittingPort[] {
  return Array.from({ length: count }, (_, at) => ({
    port: `lan-${at + 1}`,
    name: count > 1 ? `LAN ${at + 1}` : 'LAN',
    kind: 'lan',
    colour: 'yellow'
  }))
}

type FittingPort = { port: string; name: string; kind: PortKind; colour: string; powerOutW?: number }

/** What an injector of the usual kind gives, watts (IEEE 802.3at, type 2). */
const INJECTOR_W = 30
const fittingPorts: Record<NonNullable<Fitting['facts']['kind']>, readonly FittingPort[]> = {
  splitter: [
    { port: 'line', name: 'Line', kind: 'splitter-line', colour: 'white' },
    { port: 'modem', name: 'Modem', kind: 'splitter-modem', colour: 'grey' },
    { port: 'phone', name: 'Phone', kind: 'splitter-phone', colour: 'green' }
  ],
  telephone: [{ port: 'line', name: 'Line', kind: 'telephone', colour: 'white' }],
  alarm: [{ port: 'line', name: 'Line', kind: 'telephone', colour: 'white' }],
  'provider-box': [
    { port: 'line', name: 'Line', kind: 'provider-line', colour: 'grey' },
    { port: 'lan', name: 'Network', kind: 'lan', colour: 'yellow' }
  ],
  // Data goes in on one side and comes out on the other, with power.
  injector: [
    { port: 'in', name: 'Network', kind: 'lan', colour: 'grey' },
    { port: 'out', name: 'Powered', kind: 'lan', colour: 'grey', powerOutW: INJECTOR_W }
  ],
  computer: [{ port: 'lan', name: 'Network', kind: 'lan', colour: 'black' }],
  television: [{ port: 'lan', name: 'Network', kind: 'lan', colour: 'black' }],
  'network-telephone': [{ port: 'lan', name: 'Network', kind: 'lan', colour: 'black' }],
  'old-modem': [],
  'old-router': [],
  'old-other': []
}

/** What a fitting is called where nobody named it. */
export const fittingWords: Record<NonNullable<Fitting['facts']['kind']>, string> = {
  splitter: 'Splitter',
  telephone: 'Telephone',
  alarm: 'Alarm',
  'provider-box': 'Provider’s box',
  injector: 'Injector',
  computer: 'Computer',
  television: 'Television',
  'network-telephone': 'Network telephone',
  'old-modem': 'Old modem',
  'old-router': 'Old router',
  'old-other': 'Old equipment'
}

export const fittingName = ({ facts: { name, kind } }: Fitting): string =>
  name ?? (kind ? fittingWords[kind] : 'Something else')

/** Everything with ports at a home, its units first, each in the order it was added. Mains ports lead nowhere. */
export const portOwners = onceOf(ownersOf)

function ownersOf(record: VisitRecord, catalogue: Catalogue): PortOwner[] {
  const ofModel = (thing: 'unit' | 'stays', id: string, owner: string, model: Model | undefined): Port[] =>
    (model?.ports ?? [])
      .filter(({ kind }) => kind !== 'mains' && kind !== 'usb')
      .map((port) => ({
        end: { thing, id, port: port.id },
        name: port.name,
        owner,
        kind: port.kind,
        colour: port.colour,
        mbps: port.mbps ?? null,
        powerOutW: port.powerOutW ?? null,
        powerInClass: port.powerInClass ?? null
      }))
  const units = standing(record.units).map((unit): PortOwner => {
    const name = unitName(unit)
    return { thing: 'unit', id: unit.id, name, ports: ofModel('unit', unit.id, name, modelOf(unit, catalogue)) }
  })
  const staying = stayingOf(record).map((stays): PortOwner => {
    const [name, model] = [staysName(stays), modelOf(stays, catalogue)]
    const ports = model
      ? ofModel('stays', stays.id, name, model)
      : portsOfKind[stays.facts.kind ?? 'other'].map(({ port, ...rest }): Port => ({
          end: { thing: 'stays', id: stays.id, port },
          owner: name,
          mbps: null,
          powerOutW: null,
          powerInClass: null,
          ...rest
        }))
    return { thing: 'stays', id: stays.id, name, ports }
  })
  const line = record.brief.facts.accessLine ?? 'coax'
  const outlets = standing(thingsOf(record, 'outlet')).filter(
    ({ facts }) => facts.kind === 'line' || facts.kind === 'network'
  )
  let sockets = 0
  const walls = outlets.map((outlet: Outlet): PortOwner => {
    const isLine = outlet.facts.kind === 'line'
    const name = isLine ? 'Line outlet' : `Socket ${++sockets}`
    return {
      thing: 'outlet',
      id: outlet.id,
      name,
      ports: [
        {
          end: { thing: 'outlet', id: outlet.id, port: 'wall' },
          name: isLine ? 'Line' : 'Network',
          owner: name,
          kind: isLine ? lineKinds[line] : 'socket',
          colour: isLine ? lineColours[line] : 'white',
          mbps: null,
          powerOutW: null,
          powerInClass: null
        }
      ]
    }
  })
  const fittings = standing(thingsOf(record, 'fitting')).map((fitting): PortOwner => {
    const name = fittingName(fitting)
    return {
      thing: 'fitting',
      id: fitting.id,
      name,
      ports: (fitting.facts.kind ? fittingPorts[fitting.facts.kind] : []).map(({ port, ...rest }) => ({
        end: { thing: 'fitting', id: fitting.id, port },
        owner: name,
        mbps: null,
        powerOutW: null,
        powerInClass: fitting.facts.powerClass ?? null,
        ...rest
      }))
    }
  })
  return [...units, ...staying, ...walls, ...fittings]
}

/** One text for a port, to find it by. */
export const endKey = ({ thing, id, port }: CableEnd): string => `${thing} ${id} ${port}`

/** Which cable goes between two kinds of port; null where none does. */
export function cableBetween(a: PortKind, b: PortKind): 'network' | 'telephone' | 'coax' | 'fibre' | null {
  const network: PortKind[] = ['internet', 'lan', 'socket']
  if (network.includes(a) && network.includes(b)) return 'network'
  // A box of the provider's takes whatever line there is.
  for (const [box, other] of [
    [a, b],
    [b, a]
  ] as const)
    if (box === 'provider-line') {
      if (other === 'coax') return 'coax'
      if (other === 'fibre') return 'fibre'
      if (other === 'telephone-line') return 'telephone'
      return other === 'lan' ? 'network' : null
    }
  if (a === 'coax' && b === 'coax') return 'coax'
  if (a === 'fibre' && b === 'fibre') return 'fibre'
  const telephone: PortKind[] = ['telephone-line', 'telephone', 'splitter-line', 'splitter-modem', 'splitter-phone']
  return telephone.includes(a) && telephone.includes(b) ? 'telephone' : null
}
