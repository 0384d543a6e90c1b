import { parseCidr, parseIpv4 } from '../../values/ipv4'
import { standing, unitName, type Pool, type Segment, type Unit, type VisitRecord } from '../../record/record'

/** What is recorded of who serves addresses on a segment. */
export interface Serving {
  /** Standing units that serve, or are to: by a pool of the segment, or by their own fact. */
  units: Unit[]
  /** Units named by a pool that were taken out of the visit. */
  takenOut: string[]
  /** Whether a pool names nobody. */
  unnamed: boolean
  pools: Pool[]
}

/** Whether an address lies in a range; false where either is not well formed. */
export function holdsAddress(cidr: string | undefined, address: string | undefined): boolean {
  const number = address === undefined ? null : parseIpv4(address)
  const range = cidr === undefined ? null : parseCidr(cidr)
  return number !== null && range !== null && !('problem' in range) && number >= range.first && number <= range.last
}

/** Whether a pool holds an address. */
export function poolHolds({ facts: { from, to } }: Pool, address: string): boolean {
  const [number, low, high] = [parseIpv4(address), parseIpv4(from ?? ''), parseIpv4(to ?? '')]
  return number !== null && low !== null && high !== null && number >= low && number <= high
}

/**
 * Who serves addresses on a segment, as it is recorded. A unit whose own DHCP server is recorded on counts without a
 * pool of its own too: on the segment that holds its address, or on the only one there is.
 */
export function servingOn(record: VisitRecord, segment: Segment): Serving {
  const pools = standing(record.pools).filter(({ facts }) => facts.segment === segment.id)
  const named = [...new Set(pools.flatMap(({ facts }) => facts.unit ?? []))]
  const pooled = new Set(standing(record.pools).flatMap(({ facts }) => facts.unit ?? []))
  const segments = standing(record.segments)
  const hosts = standing(record.hosts)
  const on = standing(record.units).filter(({ id, facts }) => {
    if (facts.dhcpServer !== 'on' || pooled.has(id)) return false
    const own = hosts.filter((host) => host.facts.unit === id).flatMap((host) => host.facts.segment ?? [])
    return own.length > 0 ? own.includes(segment.id) : segments.length === 1
  })
  const isStanding = (id: string) => record.units[id]?.removedSeq === null
  return {
    units: [...named.filter(isStanding).map((id) => record.units[id]!), ...on],
    takenOut: named
      .filter((id) => !isStanding(id))
      .map((id) => (record.units[id] ? unitName(record.units[id]) : 'A unit that is not here')),
    unnamed: pools.some(({ facts }) => facts.unit === undefined),
    pools
  }
}
