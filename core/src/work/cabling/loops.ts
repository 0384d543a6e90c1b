import { stayingOf, staysName } from '../../record/equipment'
import { standing, thingsOf, type VisitRecord } from '../../record/record'
import { Groups } from '../../values/groups'
import type { CableProblem, KnownCable } from './known-cable'
import type { Port } from './ports'

/** What a cable joins into one network: LAN ports and sockets, over switches and routers' LAN sides. */
function lanOf(port: Port, record: VisitRecord): string | null {
  if (port.end.thing === 'outlet') return port.kind === 'socket' ? `outlet ${port.end.id}` : null
  if (port.kind !== 'lan' && port.kind !== 'internet') return null
  // An access point joins all of its ports; a router keeps its internet port apart.
  const unit = record.units[port.end.id]
  if (port.kind === 'internet')
    return unit?.facts.mode === 'access-point' || unit?.facts.role === 'access-point'
      ? `${port.end.thing} ${port.end.id}`
      : null
  return `${port.end.thing} ${port.end.id}`
}

/** The ends of a socket's cable in the wall are one. */
function wallPairs(record: VisitRecord): [string, string][] {
  return standing(thingsOf(record, 'outlet')).flatMap(({ id, facts }): [string, string][] =>
    facts.cableTo ? [[`outlet ${id}`, `outlet ${facts.cableTo}`]] : []
  )
}

/** Loops that cables close, and DHCP servers that they join. */
export function loopProblems(cables: readonly KnownCable[], record: VisitRecord): CableProblem[] {
  const lans = new Groups<string>()
  for (const [a, b] of wallPairs(record)) lans.join(a, b)
  const servers = new Map<string, string[]>()
  const problems: CableProblem[] = []
  const pools = new Set(standing(record.pools).map(({ facts }) => facts.unit))
  const serving = standing(record.units).filter(
    ({ id, facts }) => facts.dhcpServer === 'on' || (facts.dhcpServer === undefined && pools.has(id))
  )
  for (const stays of stayingOf(record))
    if (stays.facts.givesAddresses === 'yes') servers.set(`stays ${stays.id}`, [staysName(stays)])
  for (const unit of serving) servers.set(`unit ${unit.id}`, [unit.facts.name ?? 'a unit'])
  for (const { cable, a, b } of cables) {
    if (!a || !b) continue
    const [first, second] = [lanOf(a, record), lanOf(b, record)]
    if (first === null || second === null) continue
    const [from, to] = [lans.of(first), lans.of(second)]
    if (from === to) {
      problems.push({
        code: 'loop',
        cable: cable.id,
        unit: null,
        message: `It closes a loop: ${a.owner} and ${b.owner} are joined another way already. Everything would stand still.`,
        remedy: 'Take one of the cables of the loop out.',
        outcome: 'breaks'
      })
      continue
    }
    const [mine, theirs] = [servers.get(from) ?? [], servers.get(to) ?? []]
    if (mine.length && theirs.length)
      problems.push({
        code: 'two-dhcp',
        cable: cable.id,
        unit: null,
        message: `It joins two DHCP servers on one network: ${[...mine, ...theirs].join(' and ')}.`,
        remedy: 'Switch one of them off, or lead it to the internet port.',
        outcome: 'breaks'
      })
    lans.join(first, second)
    servers.set(lans.of(second), [...mine, ...theirs])
  }
  return problems
}
