import type { AuditFinding, FindingCode } from '../../address/audit-schema'
import type { Home, Place, Subject } from '../rule'
import { type HomeAudit, auditRecord } from '../../work/addresses/home-audit'
import type { Host, Segment, VisitRecord } from '../../record/record'
import { Kept } from '../../record/kept'
import { parseCidr } from '../../values/ipv4'

const audits = new Kept<VisitRecord['hosts'], HomeAudit>()

/** Audits the record that a rule reads. */
export function auditOf({ record, policy }: Home): HomeAudit {
  const { segments, pools, hosts, units, stays } = record
  return audits.get(hosts, [segments, pools, units, stays, policy.poolSchool], () =>
    auditRecord(record, policy.poolSchool)
  )
}

export const atSegment = (segment: Segment, field: string): Place => ({
  stage: 'configure',
  kind: 'segment',
  id: segment.id,
  field
})
export const atHost = (host: Host): Place => ({ stage: 'configure', kind: 'host', id: host.id, field: 'address' })
export const aboutHost = (home: Home, host: Host): Subject => ({
  id: host.id,
  name: home.units.find(({ unit }) => unit.id === host.facts.unit)?.name ?? host.facts.name ?? 'unnamed device'
})
export const aboutSegment = (segment: Segment): Subject => ({
  id: segment.id,
  name: segment.facts.name ?? segment.facts.cidr ?? 'unnamed segment'
})
export const nowhere: Place = { stage: 'configure', kind: 'segment', id: 'new', field: 'cidr' }

export const mends: Partial<Record<FindingCode, string>> = {
  'malformed-address': 'Type four numbers from 0 to 255 with dots between.',
  'not-private': 'Use the private range of this segment; 192.169… is mostly a slip for 192.168….',
  'outside-subnet': "Give it an address of its segment's range.",
  'network-address': 'Take another address; the first of a range is the network’s own.',
  'broadcast-address': 'Take another address; the last of a range is for broadcasts.',
  'gateway-clash': 'Give it another address than the gateway’s.',
  'duplicate-address': 'Give one of the two another address.',
  'inside-pool': 'Reserve it at the DHCP server, or take an address outside the pool.',
  'outside-pool': 'Take an address inside the pool, as the standard’s school asks.'
}

/** The suggestion for a segment, as a sentence. */
export function suggested(audit: HomeAudit, segment: string | undefined): string {
  const address = segment === undefined ? undefined : audit.suggestionFor.get(segment)
  return address ? ` Free: ${address}.` : ''
}

export const sentence = (finding: AuditFinding) => `${finding.detail[0]!.toUpperCase()}${finding.detail.slice(1)}.`

/** A provider's own range with a fixed address of ours in it: nobody is to serve addresses there. */
export function isFixedLink({ facts }: Segment, home: Home): boolean {
  const range = facts.cidr === undefined ? null : parseCidr(facts.cidr)
  return (
    facts.use === 'provider' &&
    (home.record.brief.facts.providerSettings === 'fixed' ||
      (range !== null && !('problem' in range) && range.prefix >= 30))
  )
}
