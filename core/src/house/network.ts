import type { HouseNetwork, HouseNow, UnitNow } from './moment'
import type { HousePort } from './definition'
import { LEAST_DBM } from './conditions'

const BAD_CABLE_MBPS = 0

/** Works out the network of a house: L2 domains over cables, powerline and air, then who serves, then who reaches the internet. */
export function networkOf(house: HouseNow): HouseNetwork {
  const units = house.units
  const portOf = ({ unit, port }: HousePort) => units.get(unit)?.model.ports.find(({ id }) => id === port)
  const mode = (unit: UnitNow) =>
    unit.running.mode ??
    (unit.definition.role === 'access-point' ||
    unit.definition.role === 'node' ||
    unit.definition.role === 'extender' ||
    unit.definition.role === 'switch'
      ? 'access-point'
      : 'router')
  /** The side of a unit that a port belongs to: a router keeps its internet port apart. */
  const sideOf = (end: HousePort): string | null => {
    const unit = units.get(end.unit)
    const port = portOf(end)
    if (!unit || !port) return null
    if (port.kind === 'lan') return `lan ${end.unit}`
    if (port.kind === 'internet') return mode(unit) === 'access-point' ? `lan ${end.unit}` : `wan ${end.unit}`
    return null
  }
  const parents = new Map<string, string>()
  const root = (one: string): string => {
    let at = one
    while (parents.has(at)) at = parents.get(at)!
    return at
  }
  const join = (a: string, b: string) => {
    const [x, y] = [root(a), root(b)]
    if (x !== y) parents.set(x, y)
  }
  const on = (id: string) => {
    const unit = units.get(id)
    return (
      Boolean(unit?.powered) &&
      unit!.condition !== 'off' &&
      unit!.condition !== 'booting' &&
      unit!.condition !== 'resetting'
    )
  }
  const lineAt = new Set<string>()
  const wiredTo = new Map<string, Set<string>>()
  const internetPortUsed = new Set<string>()
  const fed = new Set<string>()
  // Power first, from switches that are on: who is fed comes before who is joined.
  for (const cable of house.cables.values()) {
    if (!cable.a || !cable.b || cable.bad) continue
    for (const [mine, other] of [
      [cable.a, cable.b],
      [cable.b, cable.a]
    ] as const) {
      const gives = portOf(other)?.powerOutW ?? 0
      if ((portOf(mine)?.powerInClass ?? 0) > 0 && gives > 0 && units.get(other.unit)?.powered) fed.add(mine.unit)
      if (other.unit === 'line' && ['coax', 'telephone-line', 'fibre'].includes(portOf(mine)?.kind ?? ''))
        lineAt.add(mine.unit)
      if (portOf(mine)?.kind === 'internet') internetPortUsed.add(mine.unit)
    }
    const [a, b] = [sideOf(cable.a), sideOf(cable.b)]
    if (cable.kind !== 'network' || a === null || b === null || !on(cable.a.unit) || !on(cable.b.unit)) continue
    join(a, b)
    wiredTo.set(cable.a.unit, (wiredTo.get(cable.a.unit) ?? new Set()).add(cable.b.unit))
    wiredTo.set(cable.b.unit, (wiredTo.get(cable.b.unit) ?? new Set()).add(cable.a.unit))
  }
  for (const [id, unit] of units) {
    if (unit.partner !== null && on(id) && on(unit.partner)) join(`lan ${id}`, `lan ${unit.partner}`)
    const joined = !['ready', 'failed', 'pairing'].includes(unit.condition)
    if (
      unit.uplink !== null &&
      unit.configured &&
      joined &&
      on(id) &&
      on(unit.uplink) &&
      house.signal(unit.uplink, id) >= LEAST_DBM
    )
      join(`lan ${id}`, `lan ${unit.uplink}`)
  }
  // Who reaches the internet: modems and gateways by their line, then all that is joined to one that does.
  const online = new Set<string>()
  for (const [id, unit] of units)
    if (
      (unit.definition.role === 'modem' || unit.definition.role === 'gateway') &&
      unit.condition === 'good' &&
      lineAt.has(id) &&
      !unit.stuck
    )
      online.add(id)
  const brings = (id: string) => {
    const role = units.get(id)!.definition.role
    return role === 'modem' || role === 'gateway' || (role === 'router' && mode(units.get(id)!) === 'router')
  }
  const lanOf = (id: string) => units.get(id)!.running['lan.address']
  const isLost = (id: string): boolean => {
    const own = lanOf(id)
    if (own === undefined || own === '') return false
    const routes = units.get(id)!.definition.role === 'router' && mode(units.get(id)!) === 'router'
    return [...units.keys()].some((other) => {
      const theirs = lanOf(other)
      if (other === id || !on(other) || theirs === undefined) return false
      if (routes && root(`wan ${id}`) === root(`lan ${other}`))
        return theirs.split('.').slice(0, 3).join('.') === own.split('.').slice(0, 3).join('.')
      return (
        theirs === own && root(`lan ${id}`) === root(`lan ${other}`) && units.get(other)!.definition.role === 'gateway'
      )
    })
  }
  for (let round = 0; round <= units.size; round++) {
    let changed = false
    for (const [id, unit] of units) {
      if (online.has(id) || !on(id) || unit.definition.role === 'modem' || unit.definition.role === 'gateway') continue
      const hasPort = unit.model.ports.some(({ kind }) => kind === 'internet')
      const side = unit.definition.role === 'router' && mode(unit) === 'router' && hasPort ? `wan ${id}` : `lan ${id}`
      // One range on both its sides, or another at its own address: what goes out does not find its way.
      if (isLost(id)) continue
      const reaches = [...units.keys()].some(
        (other) =>
          other !== id && online.has(other) && brings(other) && root(`lan ${other}`) === root(side) && on(other)
      )
      if (reaches) {
        online.add(id)
        changed = true
      }
    }
    if (!changed) break
  }
  const serves = (id: string) => {
    const unit = units.get(id)!
    return on(id) && unit.running['dhcp.server'] === 'on' && unit.definition.role !== 'modem'
  }
  const clientSide = (id: string) => {
    const unit = units.get(id)!
    return unit.definition.role === 'router' &&
      mode(unit) === 'router' &&
      unit.model.ports.some(({ kind }) => kind === 'internet')
      ? `wan ${id}`
      : `lan ${id}`
  }
  const serversOf = (id: string) =>
    [...units.keys()].filter((other) => serves(other) && root(`lan ${other}`) === root(`lan ${id}`))
  return {
    online,
    lineAt,
    fed,
    internetPortUsed,
    serversOf,
    wired: (id) =>
      [...(wiredTo.get(id) ?? [])].some(
        (other) => units.get(other)?.definition.role !== 'powerline-adapter' || units.get(other)?.partner !== null
      ),
    addressOf: (id) => {
      const unit = units.get(id)!
      if (unit.running['lan.address'] !== undefined && unit.running['lan.address'] !== '')
        return unit.running['lan.address']
      if (!on(id)) return null
      const server = [...units.keys()].find(
        (other) => other !== id && serves(other) && root(`lan ${other}`) === root(clientSide(id))
      )
      const from = server === undefined ? undefined : units.get(server)!.running['dhcp.from']
      if (from === undefined) return null
      // Dealt in the order of the units: the first free one each.
      const place = [...units.keys()].filter((other) => other !== server).indexOf(id)
      const parts = from.split('.')
      return [...parts.slice(0, 3), String(Math.min(254, Number(parts[3]) + place))].join('.')
    },
    linkMbps: (name) => {
      const cable = house.cables.get(name)
      if (!cable?.a || !cable.b || cable.bad || !on(cable.a.unit) || !on(cable.b.unit)) return BAD_CABLE_MBPS
      const speeds = [portOf(cable.a)?.mbps, portOf(cable.b)?.mbps, cable.category === 'cat5' ? 100 : undefined].filter(
        (one): one is number => one !== undefined
      )
      return speeds.length ? Math.min(...speeds) : BAD_CABLE_MBPS
    }
  }
}
