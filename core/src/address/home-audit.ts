import type { Host, Pool, Segment } from '../record/record'
import { auditAddresses } from './audit'
import type { AuditFinding, AuditInput, AuditOutput } from './audit-schema'
import { parseIpv4 } from './ipv4'
import { translationDepths } from './translations'

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
export function auditHome(parts: { segments: Segment[]; pools: Pool[]; hosts: Host[]; unitNames: Map<string, string>; school: 'outside' | 'inside' }): HomeAudit {
  const ranged = parts.segments.filter(({ facts }) => facts.cidr !== undefined)
  const segmentLabels = labels(ranged.map(({ id, facts }) => [id, facts.name ?? facts.cidr!]))
  const hosts = parts.hosts.filter(({ facts }) => facts.address !== undefined && segmentLabels.has(facts.segment ?? ''))
  const deviceNames = new Map<string, string>()
  for (const [id, name] of parts.unitNames) deviceNames.set(id, name)
  for (const { id, facts } of hosts) if (!facts.unit) deviceNames.set(id, facts.name ?? 'unnamed device')
  const pools = parts.pools.filter(({ facts }) => segmentLabels.has(facts.segment ?? '') && facts.from !== undefined && facts.to !== undefined)
  for (const { facts } of pools) if (facts.unit && !deviceNames.has(facts.unit)) deviceNames.set(facts.unit, 'a unit taken away')
  const deviceLabels = labels([...deviceNames])

  const nats = ranged.flatMap(({ id, facts }) => (facts.behind && segmentLabels.has(facts.behind) ? [{ outer: segmentLabels.get(facts.behind)!, inner: segmentLabels.get(id)!, nat: true as const }] : []))
  const circular = translationDepths([...segmentLabels.values()], nats) === null
  const deviceOf = (host: Host) => deviceLabels.get(host.facts.unit && deviceLabels.has(host.facts.unit) ? host.facts.unit : host.id) ?? host.facts.name ?? 'unnamed device'
  const input: AuditInput = {
    segments: ranged.map(({ id, facts }) => ({
      id: segmentLabels.get(id)!,
      cidr: facts.cidr!,
      ...(facts.gateway === undefined ? {} : { gateway: facts.gateway }),
      dhcp: pools.filter((pool) => pool.facts.segment === id).map((pool) => ({ device: deviceLabels.get(pool.facts.unit ?? '') ?? 'the provider', from: pool.facts.from!, to: pool.facts.to! }))
    })),
    hosts: hosts
      .filter((host) => !isPlainGateway(host, ranged, pools))
      .map((host) => ({ device: deviceOf(host), segment: segmentLabels.get(host.facts.segment!)!, address: host.facts.address!, reserved: host.facts.reserved ?? false })),
    links: circular ? [] : nats,
    poolSchool: parts.school
  }
  const audit = auditAddresses(input)
  const about = (subject: string) => audit.findings.filter((finding) => finding.subject === subject)
  return {
    ...audit,
    ofHost: new Map(hosts.map((host) => [host.id, about(deviceOf(host))])),
    ofSegment: new Map(ranged.map(({ id }) => [id, about(segmentLabels.get(id)!)])),
    suggestionFor: new Map(ranged.flatMap(({ id }) => {
      const suggestion = audit.suggestions.find((one) => one.segment === segmentLabels.get(id))
      return suggestion ? [[id, suggestion.address] as const] : []
    }))
  }
}

/** The first host at its segment's gateway, where it is not the one that serves addresses there: by the contract it stays out of the audit. */
function isPlainGateway(host: Host, segments: Segment[], pools: Pool[]): boolean {
  const segment = segments.find(({ id }) => id === host.facts.segment)
  if (!segment?.facts.gateway || parseIpv4(host.facts.address!) !== parseIpv4(segment.facts.gateway)) return false
  const serves = pools.some((pool) => pool.facts.segment === segment.id && pool.facts.unit !== undefined && pool.facts.unit === host.facts.unit)
  return !serves && pools.every((pool) => pool.facts.segment !== segment.id)
}

/** Names made different from each other, in order, by a number behind the repeated ones. */
function labels(pairs: readonly (readonly [string, string])[]): Map<string, string> {
  const used = new Map<string, number>()
  return new Map(pairs.map(([id, name]) => {
    const times = (used.get(name) ?? 0) + 1
    used.set(name, times)
    return [id, times === 1 ? name : `${name} (${times})`]
  }))
}
