import { givesNone, holdsAddress, poolHolds, servingOn } from '../addresses/servers'
import { parseIpv4 } from '../../values/ipv4'
import { equipmentOf } from '../../record/equipment'
import { standing, type Network, type Segment, type Unit, type VisitRecord } from '../../record/record'

/** What proves that somebody was really on a unit's air: what was seen, and what is wrong with it. */
export interface PathVerdict {
  outcome: 'holds' | 'breaks' | 'unproven'
  message: string
  remedy: string
}

/** The segment whose range holds an address; null where none does. */
export function segmentOf(record: VisitRecord, address: string): Segment | null {
  return standing(record.segments).find(({ facts }) => holdsAddress(facts.cidr, address)) ?? null
}

/** Addresses that a device gives itself where nobody served it one (RFC 3927). */
const SELF_GIVEN = /^169\.254\./

/** The names that somebody may have joined: the one that was noted, else the main ones, else all. */
function joined(record: VisitRecord, network: string | undefined): Network[] {
  const named = standing(record.networks).filter(({ facts }) => facts.ssid !== undefined)
  if (network !== undefined) return named.filter(({ id }) => id === network)
  const main = named.filter(({ facts }) => (facts.use ?? 'main') === 'main')
  return main.length ? main : named
}

const segmentName = ({ facts }: Segment) => facts.name ?? facts.cidr ?? 'a segment'
const nameOf = (record: VisitRecord, id: string) => equipmentOf(record, id)?.name ?? 'A unit that is not here'
const breaks = (message: string, remedy: string): PathVerdict => ({ outcome: 'breaks', message, remedy })
const unproven = (message: string, remedy: string): PathVerdict => ({ outcome: 'unproven', message, remedy })

/** What is wrong with where an address lies: in no range, in another segment than the one joined, or none to hold it against. */
function judgeRange(record: VisitRecord, address: string, network: string | undefined): PathVerdict | Segment {
  const segment = segmentOf(record, address)
  if (!segment && standing(record.segments).every(({ facts }) => facts.cidr === undefined))
    return unproven(
      `${address}: no range of this home is recorded to hold it against.`,
      'Record the home’s range under Configure.'
    )
  if (!segment)
    return breaks(
      `${address} is in no segment of this home: another router gave it.`,
      'Find the second DHCP server, and switch it off.'
    )
  const networks = joined(record, network)
  if (network !== undefined && networks.length === 0)
    return unproven('The network that was joined is no longer here.', 'Join it once more, and note what you see.')
  if (networks.length === 0)
    return unproven(
      `${address}: no network of this home is recorded that could have been joined.`,
      'Record its name under Configure, Wi-Fi.'
    )
  const lands = networks.flatMap(({ facts }) => facts.segment ?? [])
  if (lands.length > 0 && !lands.includes(segment.id)) {
    const names = networks.map(({ facts }) => facts.ssid).join(', ')
    return breaks(
      `${address} is in ${segmentName(segment)}, where ${names} does not land.`,
      'Join that network, and look at the address again; else look at the cable and the port’s segment.'
    )
  }
  if (lands.length === 0 && standing(record.segments).length > 1)
    return unproven(
      `${address} is in ${segmentName(segment)}; in which segment the network lands is not recorded.`,
      'Record the segment of the network under Configure, Wi-Fi.'
    )
  if (new Set(lands).size > 1)
    return unproven(
      `${address} is in ${segmentName(segment)}; which network was joined was not noted, and they land apart.`,
      'Note the network that was joined.'
    )
  return segment
}

/** What is wrong with who gave an address; null where it is the server recorded, from its pool. */
function judgeServer(
  record: VisitRecord,
  segment: Segment,
  address: string,
  server: string | undefined
): PathVerdict | null {
  const serving = servingOn(record, segment)
  const where = segmentName(segment)
  if (server !== undefined) {
    const giver = equipmentOf(record, server)
    if (!giver?.isHere)
      return unproven(
        `${nameOf(record, server)}, which gave the address, was taken out of the visit.`,
        'Join it once more, and note which server gives the address now.'
      )
    if (givesNone(giver))
      return breaks(
        `${giver.name} is noted as giving the address, and its DHCP server is recorded off.`,
        'Look again who gave the address; else look whether its DHCP server is really off.'
      )
    if (serving.servers.length > 0 && !serving.servers.some(({ id }) => id === server))
      return breaks(
        `${giver.name} gave the address; it is to come from ${serving.servers.map(({ name }) => name).join(', ')}.`,
        'Switch the other DHCP server off.'
      )
  }
  if (serving.pools.length > 0 && !serving.pools.some((pool) => poolHolds(pool, address))) {
    const pools = serving.pools.map(({ facts }) => `${facts.from ?? '?'} to ${facts.to ?? '?'}`).join(', ')
    return breaks(
      `${address} is outside the pool of ${where} (${pools}): it cannot have come from there.`,
      'Look for a second DHCP server, or a fixed address on the device; or put the pool right.'
    )
  }
  if (server === undefined)
    return unproven(
      `${address} is in the right range; who gave it was not seen.`,
      'Note which server gave the address.'
    )
  // Of what stays the pool need not be known: its range holds the address.
  if (serving.pools.length === 0 && serving.servers.some(({ id, stays }) => id === server && stays !== null))
    return null
  if (serving.servers.length === 0 || serving.pools.length === 0)
    return unproven(
      `${address} from ${nameOf(record, server)}; that it serves addresses on ${where}, and from which pool, is not recorded.`,
      'Record the DHCP server and its pool under Configure.'
    )
  if (!serving.pools.some((pool) => pool.facts.unit === server && poolHolds(pool, address)))
    return unproven(
      `${address} is in a pool of ${where} that is not recorded as ${nameOf(record, server)}’s.`,
      'Record whose pool it is under Configure.'
    )
  return null
}

/**
 * Judges what was seen when somebody joined a unit's air: the count that went up, an address of the segment that the
 * joined network lands in, from the unit that serves it and out of that unit's own pool.
 */
export function judgePath(record: VisitRecord, unit: Unit): PathVerdict {
  const seen = unit.path
  if (!seen)
    return unproven(
      'Nobody was seen on it.',
      'Join its network beside it, and look at its client count and your address.'
    )
  const { before, after, address, server, network } = seen
  if (parseIpv4(address) === null) return breaks(`${address} is no address.`, 'Look at the address again.')
  if (SELF_GIVEN.test(address))
    return breaks(
      `${address} is one that the device gave itself: nobody served it.`,
      'Find out why no address comes: the cable to the router, or no DHCP server.'
    )
  if (before !== undefined && after !== undefined && after <= before)
    return breaks(
      `Its client count stayed at ${after}: the device was on another unit.`,
      'Go nearer to it, leave the network and join again.'
    )
  const range = judgeRange(record, address, network)
  if ('outcome' in range) return range
  const wrong = judgeServer(record, range, address, server)
  if (wrong?.outcome === 'breaks') return wrong
  if (before === undefined || after === undefined)
    return unproven(
      `Address ${address} is right; whether the device was on this unit was not seen.`,
      'Note its client count before and after.'
    )
  if (wrong) return { ...wrong, message: `${after} on it after ${before}; ${wrong.message}` }
  return {
    outcome: 'holds',
    message: `${after} on it after ${before}, with ${address} from ${nameOf(record, server!)}.`,
    remedy: ''
  }
}
