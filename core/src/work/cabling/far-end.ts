import { equipmentOf } from '../../record/equipment'
import { standing, thingsOf, unitName, type VisitRecord } from '../../record/record'
import { endKey, type Port } from './ports'

/** Whether what comes in by a cable can come from where it leads. */
export type FarEnd =
  { kind: 'right'; name: string } | { kind: 'wrong'; message: string } | { kind: 'unknown'; message: string }

/** A cable with the ports it leads between, where they are known. */
type Drawn = { a: Port | null; b: Port | null }

/** What a unit's port may hang on: the internet comes from here, or the home's network does. */
type Wanted = 'internet' | 'lan' | 'line'

/** Roles of units of ours that the internet comes from, on its way to a router. */
const upstreamOf: Record<'internet' | 'lan', ReadonlySet<string | undefined>> = {
  internet: new Set(['modem', 'gateway', 'router', 'switch', 'powerline-adapter']),
  lan: new Set(['modem', 'gateway', 'router', 'node', 'switch', 'access-point', 'powerline-adapter'])
}
/** Things of the customer's that only take what comes. */
const ends = new Set(['computer', 'television', 'telephone', 'network-telephone', 'alarm'])

/** What a port hangs on in the end: over the wall behind a socket, and through an injector; the port itself where it is neither. */
export function beyond(record: VisitRecord, port: Port, cables: readonly Drawn[]): Port | null {
  if (port.end.thing === 'outlet' && port.kind === 'socket') {
    const behind = behindSocket(record, port, cables)
    return behind && behind.end.thing !== 'outlet' ? behind : null
  }
  return port
}

/** What the cable at the other side of an injector leads to. */
function throughInjector(port: Port, cables: readonly Drawn[]): Port | null {
  const key = endKey({ ...port.end, port: port.end.port === 'out' ? 'in' : 'out' })
  for (const { a, b } of cables) {
    if (a && b && endKey(a.end) === key) return b
    if (a && b && endKey(b.end) === key) return a
  }
  return null
}

/** The port at the other end of the wall behind a network socket, and what its cable leads to; null where that is not recorded. */
function behindSocket(record: VisitRecord, socket: Port, cables: readonly Drawn[]): Port | null {
  const outlets = standing(thingsOf(record, 'outlet'))
  const other =
    outlets.find(({ id }) => id === socket.end.id)?.facts.cableTo ??
    outlets.find(({ facts }) => facts.cableTo === socket.end.id)?.id
  if (other === undefined) return null
  const key = endKey({ thing: 'outlet', id: other, port: 'wall' })
  for (const { a, b } of cables) {
    if (a && b && endKey(a.end) === key) return b
    if (a && b && endKey(b.end) === key) return a
  }
  return null
}

/** Judges where a cable from a unit's port leads: whether the internet, the line or the home's network can come from there. */
export function judgeFarEnd(record: VisitRecord, other: Port | null, wanted: Wanted, cables: readonly Drawn[]): FarEnd {
  if (!other) return { kind: 'unknown', message: 'What its cable leads to is no longer here' }
  if (other.end.thing === 'unit') return unitEnd(record, other, wanted)
  if (other.end.thing === 'stays') return staysEnd(record, other, wanted)
  if (other.end.thing === 'fitting') {
    if (kindOfFitting(record, other) !== 'injector') return fittingEnd(record, other, wanted)
    const through = throughInjector(other, cables)
    return through && through.end.id !== other.end.id
      ? judgeFarEnd(
          record,
          through,
          wanted,
          cables.filter(({ a, b }) => a?.end.id !== other.end.id && b?.end.id !== other.end.id)
        )
      : { kind: 'unknown', message: `${endName(other)}: what leads into it is not recorded` }
  }
  if (other.kind !== 'socket') return { kind: 'right', name: other.owner }
  const behind = behindSocket(record, other, cables)
  if (!behind) return { kind: 'unknown', message: `${other.owner}: where it leads in the wall is not recorded` }
  return behind.end.thing === 'outlet'
    ? { kind: 'unknown', message: `${other.owner} leads to ${behind.owner}, and on from there nothing is recorded` }
    : judgeFarEnd(record, behind, wanted, cables)
}

const kindOfFitting = (record: VisitRecord, { end }: Port) =>
  standing(thingsOf(record, 'fitting')).find(({ id }) => id === end.id)?.facts.kind

const endName = ({ owner, name }: Port): string => (name ? `${owner}, ${name}` : owner)

/** What comes from a unit of ours. */
function unitEnd(record: VisitRecord, other: Port, wanted: Wanted): FarEnd {
  const unit = record.units[other.end.id]!
  if (wanted === 'line') return { kind: 'wrong', message: `${unitName(unit)} is not the provider’s line` }
  const name = endName(other)
  if (other.kind === 'internet')
    return { kind: 'wrong', message: `${name} is a port for the internet as well: nothing comes from there` }
  if (upstreamOf[wanted].has(unit.facts.role)) return { kind: 'right', name: other.owner }
  const what = wanted === 'internet' ? 'internet' : 'home’s network'
  return { kind: 'unknown', message: `${name}: that the ${what} comes from there is not recorded` }
}

/** Kinds of what stays that the internet, or the home's network, comes from. */
const comesFromStaying: Record<'internet' | 'lan', ReadonlySet<string | undefined>> = {
  internet: new Set(['router', 'modem', 'switch']),
  lan: new Set(['router', 'modem', 'switch', 'access-point', 'mesh-node'])
}

/** What comes from something that stays. */
function staysEnd(record: VisitRecord, other: Port, wanted: Wanted): FarEnd {
  const kind = equipmentOf(record, other.end.id)?.stays?.facts.kind
  const name = endName(other)
  if (wanted === 'line') return { kind: 'wrong', message: `${other.owner} is not the provider’s line` }
  if (other.kind === 'internet' || other.kind === 'provider-line')
    return { kind: 'wrong', message: `${name} is where the internet goes in: nothing comes from there` }
  if (comesFromStaying[wanted].has(kind)) return { kind: 'right', name: other.owner }
  return kind === 'printer'
    ? { kind: 'wrong', message: `nothing comes from ${other.owner}` }
    : { kind: 'unknown', message: `${name}: what comes from there is not recorded` }
}

/** What comes from something of the home's or the provider's. */
function fittingEnd(record: VisitRecord, other: Port, wanted: Wanted): FarEnd {
  const name = endName(other)
  const kind = kindOfFitting(record, other)
  if (kind === 'provider-box')
    return other.kind === 'provider-line' && wanted !== 'line'
      ? { kind: 'wrong', message: `${name} is the side of the provider’s line; the network comes from its other port` }
      : { kind: 'right', name: other.owner }
  if (kind === 'splitter')
    return wanted === 'line' && other.kind === 'splitter-modem'
      ? { kind: 'right', name: other.owner }
      : { kind: 'wrong', message: `${name} is not the modem’s side` }
  return kind !== undefined && ends.has(kind)
    ? { kind: 'wrong', message: `nothing comes from ${other.owner}` }
    : { kind: 'unknown', message: `${name}: what comes from there is not recorded` }
}
