import { parseCidr, parseIpv4 } from '../../values/ipv4'
import { equipmentOf, stayingOf, type Equipment } from '../../record/equipment'
import { standing, type Pool, type Segment, type Stays, type VisitRecord } from '../../record/record'

/** What is recorded of who serves addresses on a segment. */
export interface Serving {
  /** Units, and what stays, that serve or are to: by a pool of the segment, or by their own fact. */
  servers: Equipment[]
  /** What a pool names that was taken out of the visit. */
  takenOut: string[]
  /** Whether a pool names nobody. */
  unnamed: boolean
  /** What stays here and may serve as well: whether it does nobody said. */
  unsaid: Stays | undefined
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

/** What stays and may give addresses; so may what nobody said what it is. */
const mayGive: ReadonlySet<string | undefined> = new Set(['router', 'modem', undefined])

/**
 * Who serves addresses on a segment, as it is recorded. What has its own DHCP server recorded on, or stays and gives addresses, counts
 * without a pool of its own too: on the segment that holds its address, or on the only one there is.
 */
export function servingOn(record: VisitRecord, segment: Segment): Serving {
  const pools = standing(record.pools).filter(({ facts }) => facts.segment === segment.id)
  const named = [...new Set(pools.flatMap(({ facts }) => facts.unit ?? []))]
  const pooled = new Set(standing(record.pools).flatMap(({ facts }) => facts.unit ?? []))
  const isAlone = standing(record.segments).length === 1
  const hosts = standing(record.hosts)
  const isOn = (segments: readonly string[]) => (segments.length > 0 ? segments.includes(segment.id) : isAlone)
  const on = standing(record.units).filter(
    ({ id, facts }) =>
      facts.dhcpServer === 'on' &&
      !pooled.has(id) &&
      isOn(hosts.filter((host) => host.facts.unit === id).flatMap((host) => host.facts.segment ?? []))
  )
  const staying = stayingOf(record).filter(
    ({ id, facts }) => !pooled.has(id) && isOn(facts.segment === undefined ? [] : [facts.segment])
  )
  const giving = staying.filter(({ facts }) => facts.givesAddresses === 'yes')
  const known = named.map((id) => equipmentOf(record, id))
  return {
    servers: [
      ...known.filter((server) => server !== null).filter(({ isHere }) => isHere),
      ...[...on, ...giving].map(({ id }) => equipmentOf(record, id)!)
    ],
    takenOut: known.filter((server) => !server?.isHere).map((server) => server?.name ?? 'A unit that is not here'),
    unsaid: staying.find(({ facts }) => facts.givesAddresses === undefined && mayGive.has(facts.kind)),
    unnamed: pools.some(({ facts }) => facts.unit === undefined),
    pools
  }
}

/** Whether something is recorded as giving no addresses. */
export const givesNone = ({ unit, stays }: Equipment): boolean =>
  unit?.facts.dhcpServer === 'off' || stays?.facts.givesAddresses === 'no'
