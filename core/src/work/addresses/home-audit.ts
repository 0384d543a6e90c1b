import { hasRole } from '../../record/roles'
import {
  standing,
  unitName,
  type Host,
  type Pool,
  type Segment,
  type Stays,
  type Unit,
  type VisitRecord
} from '../../record/record'
import { stayingOf, staysName } from '../../record/equipment'
import { auditAddresses } from '../../address/audit'
import type { AuditFinding, AuditInput, AuditOutput } from '../../address/audit-schema'
import { parseIpv4 } from '../../values/ipv4'
import { holdsAddress } from './servers'
import { translationDepths } from '../../address/translations'

/** An audit of a home's record, with what its names stand for. */
export interface HomeAudit extends AuditOutput {
  /** Findings about a fixed address, by the id of the host. */
  ofHost: Map<string, AuditFinding[]>
  /** Findings about a segment or its pools, by the id of the segment. */
  ofSegment: Map<string, AuditFinding[]>
  /** The highest address a new device could take, by the id of the segment. */
  suggestionFor: Map<string, string>
}

/**
 * Audits the segments, pools and fixed addresses of a record. Segments without a range and things that name no
 * segment are left out: they are not recorded yet. Devices and segments go in under their names, which the
 * findings then speak of.
 */
export function auditHome(parts: {
  segments: Segment[]
  pools: Pool[]
  hosts: Host[]
  unitNames: Map<string, string>
  /** Units that route: one of them at the gateway's address is the gateway. */ routers: ReadonlySet<string>
  school: 'outside' | 'inside'
}): HomeAudit {
  const ranged = parts.segments.filter(({ facts }) => facts.cidr !== undefined)
  const segmentLabels = labels(ranged.map(({ id, facts }) => [id, facts.name ?? facts.cidr!]))
  const hosts = parts.hosts.filter(({ facts }) => facts.address !== undefined && segmentLabels.has(facts.segment ?? ''))
  const deviceNames = new Map<string, string>()
  for (const [id, name] of parts.unitNames) deviceNames.set(id, name)
  for (const { id, facts } of hosts) if (!facts.unit) deviceNames.set(id, facts.name ?? 'unnamed device')
  const pools = parts.pools.filter(
    ({ facts }) => segmentLabels.has(facts.segment ?? '') && facts.from !== undefined && facts.to !== undefined
  )
  for (const { facts } of pools)
    if (facts.unit && !deviceNames.has(facts.unit)) deviceNames.set(facts.unit, 'a unit taken away')
  const deviceLabels = labels([...deviceNames])

  const nats = ranged.flatMap(({ id, facts }) =>
    facts.behind && segmentLabels.has(facts.behind)
      ? [{ outer: segmentLabels.get(facts.behind)!, inner: segmentLabels.get(id)!, nat: true as const }]
      : []
  )
  const circular = translationDepths([...segmentLabels.values()], nats) === null
  const deviceOf = (host: Host) =>
    deviceLabels.get(host.facts.unit && deviceLabels.has(host.facts.unit) ? host.facts.unit : host.id) ??
    host.facts.name ??
    'unnamed device'
  const input: AuditInput = {
    segments: ranged.map(({ id, facts }) => ({
      id: segmentLabels.get(id)!,
      cidr: facts.cidr!,
      ...(facts.gateway === undefined ? {} : { gateway: facts.gateway }),
      dhcp: pools
        .filter((pool) => pool.facts.segment === id)
        .map((pool) => ({
          device: deviceLabels.get(pool.facts.unit ?? '') ?? 'the provider',
          from: pool.facts.from!,
          to: pool.facts.to!
        }))
    })),
    hosts: hosts
      .filter((host) => !isPlainGateway(host, hosts, ranged, pools, parts.routers))
      .map((host) => ({
        device: deviceOf(host),
        segment: segmentLabels.get(host.facts.segment!)!,
        address: host.facts.address!,
        reserved: host.facts.reserved ?? false
      })),
    links: circular ? [] : nats,
    poolSchool: parts.school
  }
  const audit = auditAddresses(input)
  const about = (subject: string) => audit.findings.filter((finding) => finding.subject === subject)
  return {
    ...audit,
    ofHost: new Map(hosts.map((host) => [host.id, about(deviceOf(host))])),
    ofSegment: new Map(ranged.map(({ id }) => [id, about(segmentLabels.get(id)!)])),
    suggestionFor: new Map(
      ranged.flatMap(({ id }) => {
        const suggestion = audit.suggestions.find((candidate) => candidate.segment === segmentLabels.get(id))
        return suggestion ? [[id, suggestion.address] as const] : []
      })
    )
  }
}

/**
 * The host that is its segment's gateway: a unit that routes, at the gateway's address, the first of several. By the contract it
 * stays out of the audit where it does not serve addresses there. Something that is no unit is taken for the gateway where no
 * pool tells who serves and no unit that routes is there.
 */
function isPlainGateway(
  host: Host,
  hosts: Host[],
  segments: Segment[],
  pools: Pool[],
  routers: ReadonlySet<string>
): boolean {
  const segment = segments.find(({ id }) => id === host.facts.segment)
  const gateway = segment?.facts.gateway === undefined ? null : parseIpv4(segment.facts.gateway)
  if (!segment || gateway === null || parseIpv4(host.facts.address!) !== gateway) return false
  const own = pools.filter((pool) => pool.facts.segment === segment.id)
  if (host.facts.unit !== undefined && own.some((pool) => pool.facts.unit === host.facts.unit)) return false
  const there = hosts.filter(
    (candidate) => candidate.facts.segment === segment.id && parseIpv4(candidate.facts.address!) === gateway
  )
  const first = there.find((candidate) => candidate.facts.unit !== undefined && routers.has(candidate.facts.unit))
  if (first) return first.id === host.id
  return host.facts.unit === undefined && own.length === 0 && there[0]!.id === host.id
}

/** Audits a record: all that stands in it, or other pools in place of its own. */
export function auditRecord(
  record: VisitRecord,
  school: 'outside' | 'inside',
  pools: Pool[] = standing(record.pools)
): HomeAudit {
  const units = standing(record.units)
  const staying = stayingOf(record)
  return auditHome({
    segments: standing(record.segments),
    pools,
    // What was taken out has no address here. What stays was there first: what clashes with it is told of ours.
    hosts: [
      ...staying.map((stays) => hostOfStays(stays, segmentHolding(record, stays))),
      ...standing(record.hosts).filter(
        ({ facts: { unit } }) => unit === undefined || units.some(({ id }) => id === unit)
      )
    ],
    unitNames: new Map([
      ...units.map((unit) => [unit.id, unitName(unit)] as const),
      ...staying.map((stays) => [stays.id, staysName(stays)] as const)
    ]),
    routers: new Set([
      ...routersOf(units),
      ...staying.filter(({ facts }) => facts.kind === 'router').map(({ id }) => id)
    ]),
    school
  })
}

/** The segment of what stays: the one it is recorded in; where none is, the one whose range holds its address, or the only one. */
function segmentHolding(record: VisitRecord, { facts: { address, segment } }: Stays): string | undefined {
  if (segment !== undefined) return segment
  const segments = standing(record.segments)
  const holding = segments.find(({ facts }) => holdsAddress(facts.cidr, address))
  return holding?.id ?? (segments.length === 1 ? segments[0]!.id : undefined)
}

/** The address of what stays, as a fixed address of the home. */
function hostOfStays({ id, facts, meta, addedSeq, removedSeq }: Stays, segment: string | undefined): Host {
  const { address } = facts
  // Its maker or its owner set it: whether a pool holds it is theirs.
  return {
    id,
    facts: {
      unit: id,
      reserved: true,
      ...(address === undefined ? {} : { address }),
      ...(segment === undefined ? {} : { segment })
    },
    meta,
    addedSeq,
    removedSeq
  }
}

/** The units that route: routers, gateways and modems that are no access points or bridges. */
export function routersOf(units: readonly Unit[]): Set<string> {
  return new Set(
    units
      .filter(
        (unit) =>
          hasRole(unit, 'router', 'gateway', 'modem') &&
          unit.facts.mode !== 'access-point' &&
          unit.facts.mode !== 'bridge'
      )
      .map(({ id }) => id)
  )
}

/** Names made different from each other, in order, by a number behind the repeated ones. */
function labels(pairs: readonly (readonly [string, string])[]): Map<string, string> {
  const used = new Map<string, number>()
  return new Map(
    pairs.map(([id, name]) => {
      const times = (used.get(name) ?? 0) + 1
      used.set(name, times)
      return [id, times === 1 ? name : `${name} (${times})`]
    })
  )
}
