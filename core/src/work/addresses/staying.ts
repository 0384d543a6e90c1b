import { formatIpv4, parseIpv4 } from '../../values/ipv4'
import type { Facts } from '../../record/facts'
import { standing, type Unit, type VisitRecord } from '../../record/record'
import { holdsAddress, servingOn } from './servers'

/** Where an address of what stays lies: a segment that is recorded, or one to record with it; null where nothing tells. */
export type RangeOfStays = { segment: string } | { add: Facts<'segment'> } | null

/** The range that home routers come with around an address, in bits. */
const USUAL_PREFIX = 24

/**
 * The segment that the address of what stays lies in. Where none holds it, the usual range around it is one to record, of what routes or
 * gives addresses: the home's, where the home has none yet, else what lies outside it.
 */
export function rangeOfStays(
  record: VisitRecord,
  { kind, address, givesAddresses }: Pick<Facts<'stays'>, 'kind' | 'address' | 'givesAddresses'>
): RangeOfStays {
  const number = parseIpv4(address ?? '')
  if (number === null) return null
  const segments = standing(record.segments)
  const holding = segments.find(({ facts }) => holdsAddress(facts.cidr, address))
  if (holding) return { segment: holding.id }
  if (kind !== 'router' && givesAddresses !== 'yes') return null
  const hasHome = segments.some(({ facts }) => facts.use === 'home')
  const first = number - (number % 2 ** (32 - USUAL_PREFIX))
  return {
    add: {
      name: hasHome ? 'Outside' : 'Home',
      use: hasHome ? 'provider' : 'home',
      cidr: `${formatIpv4(first)}/${USUAL_PREFIX}`,
      ...(kind === 'router' ? { gateway: formatIpv4(number) } : {})
    }
  }
}

const kindOfRole: Readonly<Record<string, Facts<'stays'>['kind']>> = {
  router: 'router',
  gateway: 'router',
  modem: 'modem',
  node: 'mesh-node',
  'access-point': 'access-point',
  switch: 'switch'
}

/** What is known of a unit that turns out not to be ours, as something that stays. */
export function asStaying(record: VisitRecord, { id, facts }: Unit): Facts<'stays'> {
  const { name, model, modelVersion, place, role } = facts
  const host = standing(record.hosts).find((candidate) => candidate.facts.unit === id)?.facts
  const serves = standing(record.segments).find((segment) =>
    servingOn(record, segment).servers.some((server) => server.id === id)
  )
  const segment = host?.segment ?? serves?.id
  return {
    kind: kindOfRole[role ?? ''] ?? 'other',
    ...(name === undefined ? {} : { name }),
    ...(model === undefined ? {} : { model, modelVersion: modelVersion ?? 1 }),
    ...(place === undefined ? {} : { place }),
    ...(parseIpv4(host?.address ?? '') === null ? {} : { address: host!.address! }),
    ...(segment === undefined ? {} : { segment }),
    ...(serves ? { givesAddresses: 'yes' } : {})
  }
}
