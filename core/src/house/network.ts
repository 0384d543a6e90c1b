import { Groups } from '../values/groups'
import { hangsOnLine, rangeOf, type HouseNetwork, type HouseNow, type UnitNow } from './moment'
import type { HousePort } from './definition'
import { LEAST_DBM } from './conditions'

const BAD_CABLE_MBPS = 0
const linePorts: readonly (string | undefined)[] = ['coax', 'telephone-line', 'fibre']
const notYetOn: readonly string[] = ['off', 'booting', 'resetting']
const notYetJoined: readonly string[] = ['ready', 'failed', 'pairing']
/** Roles that hand on what they get, where nothing says otherwise. */
const bridging: readonly string[] = ['access-point', 'node', 'extender', 'switch']

/** A side of a unit: its own network, or that behind its internet port. */
type Side = `lan ${string}` | `wan ${string}`

/** Sides that are one network. */
type Domains = Groups<Side>

const modeOf = ({ definition, running }: UnitNow): string =>
  running.mode ?? (bridging.includes(definition.role) ? 'access-point' : 'router')
const routes = (unit: UnitNow): boolean => unit.definition.role === 'router' && modeOf(unit) === 'router'
const isOn = (unit: UnitNow | undefined): boolean =>
  unit !== undefined && unit.powered && !notYetOn.includes(unit.condition)

/** The side on which a unit is a client: behind its internet port where it routes and has one. */
const clientSide = (unit: UnitNow): Side =>
  routes(unit) && unit.model.ports.some(({ kind }) => kind === 'internet')
    ? `wan ${unit.definition.id}`
    : `lan ${unit.definition.id}`

/** Works out the network of a house: L2 domains over cables, powerline and air, then who serves, then who reaches the internet. */
export function networkOf(house: HouseNow): HouseNetwork {
  const { units } = house
  const wires = wiresOf(house)
  const domains: Domains = new Groups<Side>()
  for (const [a, b] of wires.joined) domains.join(a, b)
  for (const [id, unit] of units) {
    if (unit.partner !== null && isOn(unit) && isOn(units.get(unit.partner)))
      domains.join(`lan ${id}`, `lan ${unit.partner}`)
    if (holdsUplink(house, id, unit)) domains.join(`lan ${id}`, `lan ${unit.uplink}`)
  }
  const online = reachedFrom(house, wires.lineAt, domains)
  const serves = (unit: UnitNow) =>
    isOn(unit) && unit.running['dhcp.server'] === 'on' && unit.definition.role !== 'modem'
  return {
    online,
    lineAt: wires.lineAt,
    fed: wires.fed,
    internetPortUsed: wires.internetPortUsed,
    serversOf: (id) =>
      [...units].flatMap(([other, unit]) =>
        serves(unit) && domains.areOne(`lan ${other}`, `lan ${id}`) ? [other] : []
      ),
    wired: (id) =>
      [...(wires.wiredTo.get(id) ?? [])].some(
        (other) => units.get(other)?.definition.role !== 'powerline-adapter' || units.get(other)?.partner !== null
      ),
    addressOf: (id) => {
      const unit = units.get(id)!
      if (unit.running['lan.address']) return unit.running['lan.address']
      if (!isOn(unit)) return null
      const server = [...units].find(
        ([other, neighbour]) => other !== id && serves(neighbour) && domains.areOne(`lan ${other}`, clientSide(unit))
      )
      const from = server?.[1].running['dhcp.from']
      if (from === undefined) return null
      // Dealt in the order of the units: the first free one each.
      const place = [...units.keys()].filter((other) => other !== server![0]).indexOf(id)
      const parts = from.split('.')
      return [...parts.slice(0, 3), String(Math.min(254, Number(parts[3]) + place))].join('.')
    },
    linkMbps: (name) => linkOf(house, name)
  }
}

const portOf = (house: HouseNow, { unit, port }: HousePort) =>
  house.units.get(unit)?.model.ports.find(({ id }) => id === port)

/** The side of a unit that a port belongs to: a router keeps its internet port apart. Null for a port that carries no network. */
function sideOf(house: HouseNow, end: HousePort): Side | null {
  const unit = house.units.get(end.unit)
  const kind = portOf(house, end)?.kind
  if (!unit || (kind !== 'lan' && kind !== 'internet')) return null
  return kind === 'lan' || modeOf(unit) === 'access-point' ? `lan ${end.unit}` : `wan ${end.unit}`
}

/** What the cables of a house do: which sides they join, who is fed, who hangs on the line, whose internet port is used. */
interface Wires {
  joined: [Side, Side][]
  wiredTo: Map<string, Set<string>>
  lineAt: Set<string>
  fed: Set<string>
  internetPortUsed: Set<string>
}

function wiresOf(house: HouseNow): Wires {
  const wires: Wires = {
    joined: [],
    wiredTo: new Map<string, Set<string>>(),
    lineAt: new Set<string>(),
    fed: new Set<string>(),
    internetPortUsed: new Set<string>()
  }
  for (const { kind, bad, a, b } of house.cables.values()) {
    if (!a || !b || bad) continue
    markEnd(house, wires, a, b)
    markEnd(house, wires, b, a)
    const [mine, other] = [sideOf(house, a), sideOf(house, b)]
    const carries = isOn(house.units.get(a.unit)) && isOn(house.units.get(b.unit))
    if (kind !== 'network' || mine === null || other === null || !carries) continue
    wires.joined.push([mine, other])
    addTo(wires.wiredTo, a.unit, b.unit)
    addTo(wires.wiredTo, b.unit, a.unit)
  }
  return wires
}

/** What one end of a cable gets of the other: power from a switch that has some, the line, or what comes into an internet port. */
function markEnd(house: HouseNow, wires: Wires, mine: HousePort, other: HousePort): void {
  const port = portOf(house, mine)
  const gives = portOf(house, other)?.powerOutW ?? 0
  if ((port?.powerInClass ?? 0) > 0 && gives > 0 && house.units.get(other.unit)?.powered) wires.fed.add(mine.unit)
  if (other.unit === 'line' && linePorts.includes(port?.kind)) wires.lineAt.add(mine.unit)
  if (port?.kind === 'internet') wires.internetPortUsed.add(mine.unit)
}

function addTo(sets: Map<string, Set<string>>, key: string, value: string): void {
  const held = sets.get(key)
  if (held) held.add(value)
  else sets.set(key, new Set([value]))
}

/** Whether a unit is joined over the air to the one it hangs on. */
function holdsUplink(house: HouseNow, id: string, unit: UnitNow): boolean {
  const { uplink, configured, condition } = unit
  if (uplink === null || !configured || notYetJoined.includes(condition)) return false
  return isOn(unit) && isOn(house.units.get(uplink)) && house.signal(uplink, id) >= LEAST_DBM
}

/** Who reaches the internet: modems and gateways by their line, then all that is joined to one that does. */
function reachedFrom(house: HouseNow, lineAt: ReadonlySet<string>, domains: Domains): Set<string> {
  const { units } = house
  const online = new Set<string>()
  for (const [id, unit] of units)
    if (hangsOnLine(unit) && unit.condition === 'good' && lineAt.has(id) && !unit.stuck) online.add(id)
  const brings = (id: string, unit: UnitNow, side: Side) =>
    online.has(id) && (hangsOnLine(unit) || routes(unit)) && isOn(unit) && domains.areOne(`lan ${id}`, side)
  for (let round = 0; round <= units.size; round++) {
    const before = online.size
    for (const [id, unit] of units) {
      if (online.has(id) || !isOn(unit) || hangsOnLine(unit) || isLost(house, id, unit, domains)) continue
      if ([...units].some(([other, neighbour]) => other !== id && brings(other, neighbour, clientSide(unit))))
        online.add(id)
    }
    if (online.size === before) break
  }
  return online
}

/** Whether what goes out of a unit does not find its way: one range on both its sides, or another at its own address. */
function isLost(house: HouseNow, id: string, unit: UnitNow, domains: Domains): boolean {
  const own = unit.running['lan.address']
  if (!own) return false
  return [...house.units].some(([other, neighbour]) => {
    const theirs = neighbour.running['lan.address']
    if (other === id || !isOn(neighbour) || theirs === undefined) return false
    if (routes(unit) && domains.areOne(`wan ${id}`, `lan ${other}`)) return rangeOf(theirs) === rangeOf(own)
    return theirs === own && domains.areOne(`lan ${id}`, `lan ${other}`) && neighbour.definition.role === 'gateway'
  })
}

/** The link speed that a cable comes up at, in Mbit/s; 0 where nothing comes up. */
function linkOf(house: HouseNow, name: string): number {
  const cable = house.cables.get(name)
  if (!cable?.a || !cable.b || cable.bad) return BAD_CABLE_MBPS
  if (!isOn(house.units.get(cable.a.unit)) || !isOn(house.units.get(cable.b.unit))) return BAD_CABLE_MBPS
  const speeds = [
    portOf(house, cable.a)?.mbps,
    portOf(house, cable.b)?.mbps,
    cable.category === 'cat5' ? 100 : undefined
  ].filter((candidate) => candidate !== undefined)
  return speeds.length ? Math.min(...speeds) : BAD_CABLE_MBPS
}
