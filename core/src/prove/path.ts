import { parseCidr, parseIpv4 } from '../address/ipv4'
import { standing, unitName, type Segment, type Unit, type VisitRecord } from '../record/record'

/** What proves that somebody was really on a unit's air: what was seen, and what is wrong with it. */
export interface PathVerdict {
  outcome: 'holds' | 'breaks' | 'unproven'
  says: string
  mend: string
}

/** The segment whose range holds an address; null where none does. */
export function segmentOf(record: VisitRecord, address: string): Segment | null {
  const number = parseIpv4(address)
  if (number === null) return null
  return standing(record.segments).find(({ facts }) => {
    const range = facts.cidr === undefined ? null : parseCidr(facts.cidr)
    return range !== null && !('problem' in range) && number >= range.first && number <= range.last
  }) ?? null
}

/** Addresses that a device gives itself where nobody served it one (RFC 3927). */
const SELF_GIVEN = /^169\.254\./

/** Judges what was seen when somebody joined a unit's air. */
export function judgePath(record: VisitRecord, unit: Unit): PathVerdict {
  const seen = unit.path
  const mend = `Join its network beside it, and look at its client count and your address.`
  if (!seen) return { outcome: 'unproven', says: 'Nobody was seen on it.', mend }
  const { before, after, address, server } = seen
  if (parseIpv4(address) === null) return { outcome: 'breaks', says: `${address} is no address.`, mend: 'Look at the address again.' }
  if (SELF_GIVEN.test(address)) return { outcome: 'breaks', says: `${address} is one that the device gave itself: nobody served it.`, mend: 'Find out why no address comes: the cable to the router, or no DHCP server.' }
  if (before !== undefined && after !== undefined && after <= before) return { outcome: 'breaks', says: `Its client count stayed at ${after}: the device was on another unit.`, mend: 'Go nearer to it, leave the network and join again.' }
  const segment = segmentOf(record, address)
  if (!segment && standing(record.segments).every(({ facts }) => facts.cidr === undefined)) return { outcome: 'unproven', says: `${address}: no range of this home is recorded to hold it against.`, mend: 'Record the home’s range under Configure.' }
  if (!segment) return { outcome: 'breaks', says: `${address} is in no segment of this home: another router gave it.`, mend: 'Find the second DHCP server, and switch it off.' }
  const lands = standing(record.networks).filter(({ facts }) => facts.ssid !== undefined && (facts.use ?? 'main') === 'main').flatMap(({ facts }) => facts.segment ?? [])
  if (lands.length > 0 && !lands.includes(segment.id)) return { outcome: 'breaks', says: `${address} is in ${segment.facts.name ?? segment.facts.cidr}, where the home’s network does not land.`, mend: 'Join the home’s network, not another.' }
  const servers = standing(record.pools).filter(({ facts }) => facts.segment === segment.id).flatMap(({ facts }) => facts.unit ?? [])
  if (server !== undefined && servers.length > 0 && !servers.includes(server)) return { outcome: 'breaks', says: `${record.units[server] ? unitName(record.units[server]) : 'Another unit'} gave the address; it is to come from ${servers.map((id) => unitName(record.units[id]!)).join(', ')}.`, mend: 'Switch the other DHCP server off.' }
  if (before === undefined || after === undefined) return { outcome: 'unproven', says: `Address ${address} is right; whether the device was on this unit was not seen.`, mend: 'Note its client count before and after.' }
  if (server === undefined) return { outcome: 'unproven', says: `${after} on it after ${before}, with ${address}; who gave the address was not seen.`, mend: 'Note which server gave the address.' }
  return { outcome: 'holds', says: `${after} on it after ${before}, with ${address} from ${record.units[server] ? unitName(record.units[server]) : 'the right server'}.`, mend: '' }
}
