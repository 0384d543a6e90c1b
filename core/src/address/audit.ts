import { refuse, type Problem } from '../values/problem'
import { groupBy } from '../values/group-by'
import type { AuditFinding, AuditInput, AuditOutput, FindingCode } from './audit-schema'
import {
  formatIpv4,
  hasEnds,
  isPrivate,
  parseCidr,
  parseIpv4,
  privateBlocks,
  type Ipv4,
  type Range4
} from '../values/ipv4'
import { translationDepths } from './translations'

interface Pool {
  device: string
  from: Ipv4
  to: Ipv4
}

interface Segment {
  id: string
  cidr: string
  range: Range4
  gateway: Ipv4 | null
  pools: Pool[]
  /** The provider's side of a translation: public addresses are right there. */
  outermost: boolean
}

/**
 * Audits every fixed address, pool and segment of a home against each other.
 * @param input segments, hosts and links; texts as they were typed
 * @returns findings sorted by code and subject, and for each segment the highest address a new device could take
 * @throws Refusal where segments repeat, a host or link names an unknown segment, or links go round in a circle
 */
export function auditAddresses(input: AuditInput): AuditOutput {
  refuseLooseEnds(input)
  const links = input.links ?? []
  const depths = translationDepths(
    input.segments.map((segment) => segment.id),
    links
  )
  if (!depths) refuse([{ path: ['links'], message: 'the translations go round in a circle' }])

  const outers = new Set(links.map((link) => link.outer))
  const inners = new Set(links.map((link) => link.inner))
  const segments = input.segments.map((segment): Segment => ({
    id: segment.id,
    cidr: segment.cidr,
    range: parseCidr(segment.cidr) as Range4,
    gateway: segment.gateway === undefined ? null : parseIpv4(segment.gateway),
    pools: (segment.dhcp ?? []).map((pool) => ({
      device: pool.device,
      from: parseIpv4(pool.from)!,
      to: parseIpv4(pool.to)!
    })),
    outermost: outers.has(segment.id) && !inners.has(segment.id)
  }))
  const school = input.poolSchool ?? 'outside'
  const found = new Found()
  const hostsOf = groupBy(input.hosts, (host) => host.segment)

  segments.forEach((segment, index) => {
    auditSegment(segment, segments.slice(0, index), found)
    auditHosts(segment, hostsOf.get(segment.id) ?? [], school, found)
    const depth = depths.get(segment.id)!
    if (depth >= 2 && !outers.has(segment.id)) {
      found.add('double-nat', segment.id, `${depth} translations lie between here and the outside`)
    }
  })
  const suggestions = segments.flatMap((segment) => {
    const free = highestFree(segment, hostsOf.get(segment.id) ?? [], school)
    return free === null ? [] : [{ segment: segment.id, address: formatIpv4(free) }]
  })
  return { findings: found.sorted(), suggestions }
}

/** Keeps one finding for each code and subject: the first. */
class Found {
  readonly #byKey = new Map<string, AuditFinding>()

  add(code: FindingCode, subject: string, detail: string): void {
    const key = `${code}\n${subject}`
    if (!this.#byKey.has(key)) this.#byKey.set(key, { code, subject, detail })
  }

  sorted(): AuditFinding[] {
    return [...this.#byKey.values()].sort((a, b) => byCodePoint(a.code, b.code) || byCodePoint(a.subject, b.subject))
  }
}

/** Orders texts by code point, which differs from the order of UTF-16 units beyond U+FFFF. */
export function byCodePoint(a: string, b: string): number {
  const left = [...a]
  const right = [...b]
  for (let at = 0; at < Math.min(left.length, right.length); at++) {
    const difference = left[at]!.codePointAt(0)! - right[at]!.codePointAt(0)!
    if (difference) return difference
  }
  return left.length - right.length
}

function refuseLooseEnds(input: AuditInput): void {
  const known = new Set<string>()
  const problems: Problem[] = []
  input.segments.forEach(({ id }, index) => {
    if (known.has(id)) problems.push({ path: ['segments', index, 'id'], message: `${id} is listed twice` })
    known.add(id)
  })
  const check = (id: string, path: Problem['path']) => {
    if (!known.has(id)) problems.push({ path, message: `no segment is called ${id}` })
  }
  input.hosts.forEach((host, index) => check(host.segment, ['hosts', index, 'segment']))
  input.links?.forEach((link, index) => {
    check(link.outer, ['links', index, 'outer'])
    check(link.inner, ['links', index, 'inner'])
  })
  if (problems.length) refuse(problems)
}

function auditSegment(segment: Segment, earlier: Segment[], found: Found): void {
  const { id, cidr, range, gateway, pools } = segment
  if (!segment.outermost && !isPrivate(range.first, range.last)) {
    found.add('not-private', id, `${cidr} is not a private range`)
  }
  if (gateway !== null) lookAtPlace(segment, gateway, id, `the gateway ${formatIpv4(gateway)}`, found)

  if (pools.length === 0) found.add('no-dhcp', id, 'nothing serves addresses here')
  const servers = [...new Set(pools.map((pool) => pool.device))].sort(byCodePoint)
  if (servers.length > 1) found.add('two-dhcp', id, `${servers.join(', ')} all serve addresses here`)
  for (const pool of pools) {
    const name = `${pool.device}'s pool ${formatIpv4(pool.from)} - ${formatIpv4(pool.to)}`
    if (!inside(range, pool.from) || !inside(range, pool.to))
      found.add('pool-outside-subnet', id, `${name} leaves ${cidr}`)
    if (pool.from > pool.to) found.add('pool-inverted', id, `${name} ends before it begins`)
    if (gateway !== null && holds(pool, gateway))
      found.add('pool-holds-gateway', id, `${name} holds the gateway ${formatIpv4(gateway)}`)
  }
  const other = earlier.find((candidate) => candidate.range.first <= range.last && range.first <= candidate.range.last)
  if (other) found.add('subnets-overlap', id, `${cidr} overlaps ${other.id} (${other.cidr})`)
}

function auditHosts(segment: Segment, hosts: AuditInput['hosts'], school: 'outside' | 'inside', found: Found): void {
  const serving = new Set(segment.pools.map((pool) => pool.device))
  const firstAt = new Map<Ipv4, string>()
  for (const host of hosts) {
    const address = parseIpv4(host.address)
    if (address === null) {
      found.add('malformed-address', host.device, `'${host.address}' is not an IPv4 address`)
      continue
    }
    const text = formatIpv4(address)
    if (!lookAtPlace(segment, address, host.device, text, found)) continue

    const atGateway = address === segment.gateway
    const owner = atGateway && serving.has(host.device)
    if (atGateway && !owner) found.add('gateway-clash', host.device, `${text} is the gateway's`)
    const first = firstAt.get(address)
    if (first === undefined) firstAt.set(address, host.device)
    else if (first !== host.device) found.add('duplicate-address', host.device, `${text} is ${first}'s already`)

    const pooled = segment.pools.some((pool) => holds(pool, address))
    if (school === 'outside' && pooled && !host.reserved)
      found.add('inside-pool', host.device, `${text} may be handed to another device`)
    if (school === 'inside' && !pooled && !owner) found.add('outside-pool', host.device, `no pool holds ${text}`)
  }
}

/** What is found about an address from its place in the segment alone; false where nothing further is looked for. */
function lookAtPlace(segment: Segment, address: Ipv4, subject: string, text: string, found: Found): boolean {
  const { range, cidr } = segment
  if (!segment.outermost && !isPrivate(address)) found.add('not-private', subject, `${text} is a public address`)
  if (!inside(range, address)) {
    found.add('outside-subnet', subject, `${text} is not in ${cidr}`)
    return false
  }
  if (hasEnds(range) && address === range.first)
    found.add('network-address', subject, `${text} cannot be a device's in ${cidr}`)
  if (hasEnds(range) && address === range.last)
    found.add('broadcast-address', subject, `${text} cannot be a device's in ${cidr}`)
  return true
}

/** The highest address at which a new, unreserved device would get no finding; null where there is none. */
function highestFree(segment: Segment, hosts: AuditInput['hosts'], school: 'outside' | 'inside'): Ipv4 | null {
  const { range, gateway, pools } = segment
  const usable = hasEnds(range) ? { first: range.first + 1, last: range.last - 1 } : range
  const allowed = segment.outermost ? [usable] : privateBlocks.map((block) => overlap(block, usable))
  const realPools = pools.filter((pool) => pool.from <= pool.to)
  const stretches =
    school === 'outside'
      ? allowed
      : allowed.flatMap((stretch) => realPools.map((pool) => overlap(stretch, { first: pool.from, last: pool.to })))
  const taken = new Set(hosts.map((host) => parseIpv4(host.address)))
  taken.add(gateway)
  const barred = school === 'outside' ? realPools.toSorted((a, b) => b.to - a.to) : []

  let best: Ipv4 | null = null
  for (const stretch of stretches) {
    if (stretch.first > stretch.last) continue
    const free = highestIn(stretch, taken, barred)
    if (free !== null && (best === null || free > best)) best = free
  }
  return best
}

/** Steps down from the top of a stretch past taken addresses and barred pools (which come sorted by their ends, highest first). */
function highestIn(stretch: { first: Ipv4; last: Ipv4 }, taken: Set<Ipv4 | null>, barred: Pool[]): Ipv4 | null {
  let address = stretch.last
  let next = 0
  while (address >= stretch.first) {
    if (taken.has(address)) {
      address--
      continue
    }
    while (next < barred.length && barred[next]!.from > address) next++
    const pool = barred.slice(next).find((candidate) => holds(candidate, address))
    if (!pool) return address
    address = pool.from - 1
  }
  return null
}

function overlap(a: { first: Ipv4; last: Ipv4 }, b: { first: Ipv4; last: Ipv4 }): { first: Ipv4; last: Ipv4 } {
  return { first: Math.max(a.first, b.first), last: Math.min(a.last, b.last) }
}

function inside(range: Range4, address: Ipv4): boolean {
  return address >= range.first && address <= range.last
}

function holds(pool: Pool, address: Ipv4): boolean {
  return address >= pool.from && address <= pool.to
}
