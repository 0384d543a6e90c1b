import { auditRecord, type HomeAudit } from '../../work/addresses/home-audit'
import type { AuditFinding, FindingCode } from '../../address/audit-schema'
import { parseCidr } from '../../values/ipv4'
import { servingOn } from '../../work/addresses/servers'
import { unitName, type Host, type Segment, type VisitRecord } from '../../record/record'
import {
  aboutUnit,
  askedRule,
  atBrief,
  atUnit,
  breaks,
  holds,
  judgeAnswer,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Subject,
  type Verdict,
  rule
} from '../rule'

/** Audits the record that a rule reads. */
export function auditOf(home: Home): HomeAudit {
  const { segments, pools, hosts, units } = home.record
  const school = home.policy.poolSchool
  const known = audits.get(hosts)
  if (known && known.segments === segments && known.pools === pools && known.units === units && known.school === school)
    return known.audit
  const audit = auditRecord(home.record, school)
  audits.set(hosts, { segments, pools, units, school, audit })
  return audit
}

/** Records are never changed in place, so an audit holds as long as all it was made from are the same objects. */
const audits = new WeakMap<
  VisitRecord['hosts'],
  {
    segments: VisitRecord['segments']
    pools: VisitRecord['pools']
    units: VisitRecord['units']
    school: string
    audit: HomeAudit
  }
>()

const atSegment = (segment: Segment, field: string): Place => ({
  stage: 'configure',
  kind: 'segment',
  id: segment.id,
  field
})
const atHost = (host: Host): Place => ({ stage: 'configure', kind: 'host', id: host.id, field: 'address' })
const aboutHost = (home: Home, host: Host): Subject => ({
  id: host.id,
  name: home.units.find(({ unit }) => unit.id === host.facts.unit)?.name ?? host.facts.name ?? 'unnamed device'
})
const aboutSegment = (segment: Segment): Subject => ({
  id: segment.id,
  name: segment.facts.name ?? segment.facts.cidr ?? 'unnamed segment'
})
const nowhere: Place = { stage: 'configure', kind: 'segment', id: 'new', field: 'cidr' }

const mends: Partial<Record<FindingCode, string>> = {
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
function suggested(audit: HomeAudit, segment: string | undefined): string {
  const address = segment === undefined ? undefined : audit.suggestionFor.get(segment)
  return address ? ` Free: ${address}.` : ''
}

/** A rule about every fixed address that breaks on certain findings of the audit. */
function judgeHosts(codes: FindingCode[], fine: string): Rule['judge'] {
  return (home) => {
    const audit = auditOf(home)
    return home.hosts.map((host): Verdict => {
      const about = aboutHost(home, host)
      if (host.facts.address === undefined || !audit.ofHost.has(host.id)) {
        return unproven(
          host.facts.address === undefined ? 'Its address is not recorded.' : 'It is in no segment with a range.',
          'Give its segment and address.',
          atHost(host),
          about
        )
      }
      const finding = audit.ofHost.get(host.id)!.find((one) => codes.includes(one.code))
      if (!finding) return holds(`${host.facts.address}: ${fine}.`, about)
      return breaks(
        sentence(finding),
        `${mends[finding.code] ?? 'Change it.'}${suggested(audit, host.facts.segment)}`,
        atHost(host),
        about
      )
    })
  }
}

const sentence = (finding: AuditFinding) => `${finding.detail[0]!.toUpperCase()}${finding.detail.slice(1)}.`

/** A provider's own range with a fixed address of ours in it: nobody is to serve addresses there. */
function isFixedLink({ facts }: Segment, home: Home): boolean {
  const range = facts.cidr === undefined ? null : parseCidr(facts.cidr)
  return (
    facts.use === 'provider' &&
    (home.record.brief.facts.providerSettings === 'fixed' ||
      (range !== null && !('problem' in range) && range.prefix >= 30))
  )
}

function judgeOneDhcp(home: Home): Verdict[] {
  const audit = auditOf(home)
  return home.segments.map((segment) => {
    const about = aboutSegment(segment)
    const at = atSegment(segment, 'dhcp')
    const findings = audit.ofSegment.get(segment.id)
    if (!findings) return unproven('Its range is not recorded.', 'Enter its range.', atSegment(segment, 'cidr'), about)
    const { units, takenOut, unnamed, pools } = servingOn(home.record, segment)
    const two = findings.find(({ code }) => code === 'two-dhcp')
    if (units.length > 1)
      return breaks(
        `${units.map(unitName).join(' and ')} each serve addresses here.`,
        'Switch all but one of them off.',
        at,
        about
      )
    const off = units.find(({ facts }) => facts.dhcpServer === 'off')
    if (off)
      return breaks(
        `${unitName(off)} is to serve addresses here, and its DHCP server is recorded off.`,
        'Switch it on, or name the unit that serves.',
        at,
        about
      )
    const pool = findings.find(
      ({ code }) => code === 'pool-outside-subnet' || code === 'pool-inverted' || code === 'pool-holds-gateway'
    )
    if (pool)
      return breaks(
        sentence(pool),
        'Mend the pool: from low to high, inside the range, without the gateway.',
        at,
        about
      )
    if (takenOut.length)
      return unproven(
        `${takenOut.join(' and ')}, which served addresses here, was taken out of the visit.`,
        'Name the unit that serves now, or take its pool out.',
        at,
        about
      )
    if (two) return breaks(sentence(two), 'Switch all but one of them off.', at, about)
    if (pools.length === 0 && units.length === 0)
      return isFixedLink(segment, home)
        ? holds('The provider gives a fixed address here: nobody is to serve any.', about)
        : unproven('Nothing is recorded that serves addresses here.', 'Record its DHCP server and pool.', at, about)
    if (unnamed && segment.facts.use !== 'provider')
      return unproven('It has a pool, and whose it is nobody recorded.', 'Name the DHCP server.', at, about)
    return holds(
      units.length
        ? `Exactly one DHCP server: ${unitName(units[0]!)}.`
        : 'The provider serves addresses here, and nobody else.',
      about
    )
  })
}

function judgeApMode(home: Home): Verdict[] {
  const made = home.units.filter(
    ({ unit, model }) => unit.facts.role === 'access-point' && model?.roles.includes('router')
  )
  const main = home.segments.find(({ facts }) => facts.use === 'home')
  return made.map((known) => {
    const { unit } = known
    const about = aboutUnit(known)
    const settings = [
      ['dhcpServer', 'DHCP server'],
      ['dhcpRelay', 'DHCP relay'],
      ['secondaryAddress', 'secondary address']
    ] as const
    const on = settings.find(([field]) => unit.facts[field] === 'on')
    const pools = home.pools.filter(({ facts }) => facts.unit === unit.id)
    if (on || pools.length) {
      const [field, words] = on ?? settings[0]
      return breaks(
        `Its ${words} is still on.`,
        `Switch its ${words} off and apply that page.`,
        atUnit('configure', unit, field),
        about
      )
    }
    const open = settings.find(([field]) => unit.facts[field] === undefined)
    if (open)
      return unproven(
        `Nobody has recorded that its ${open[1]} is off.`,
        'Switch it off and record it.',
        atUnit('configure', unit, open[0]),
        about
      )
    const host = home.hosts.find(({ facts }) => facts.unit === unit.id)
    if (!host?.facts.address)
      return unproven(
        'Its own address is not recorded.',
        'Move it into the main segment and record the address.',
        nowhere,
        about
      )
    if (main && host.facts.segment !== main.id)
      return breaks(
        `Its address ${host.facts.address} is not in the main segment.`,
        `Move it into ${main.facts.name ?? main.facts.cidr}.`,
        atHost(host),
        about
      )
    return holds('DHCP server, relay and secondary address are off; its address is in the main segment.', about)
  })
}

export const addrOneDhcp = rule({
  id: 'addr-one-dhcp',
  name: 'One DHCP server',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  statement: 'Exactly one DHCP server on every segment.',
  judge: (home) =>
    home.segments.length
      ? judgeOneDhcp(home)
      : [unproven('No segment is recorded.', 'Record the home’s range and its DHCP server.', nowhere)]
})

export const addrValid = rule({
  id: 'addr-valid',
  name: 'Address',
  stage: 'configure',
  level: 'must',
  minutes: 2,
  statement:
    'Every fixed address is well formed, private, inside its segment, and not its network, broadcast or gateway address.',
  judge: judgeHosts(
    ['malformed-address', 'outside-subnet', 'not-private', 'network-address', 'broadcast-address', 'gateway-clash'],
    'well formed and inside its segment'
  )
})

export const addrUnique = rule({
  id: 'addr-unique',
  name: 'Address used once',
  stage: 'configure',
  level: 'must',
  minutes: 1,
  statement: 'No address is used twice.',
  judge: judgeHosts(['duplicate-address'], 'used once')
})

export const addrPool = rule({
  id: 'addr-pool',
  name: 'Address and pool',
  stage: 'configure',
  level: 'must',
  minutes: 2,
  statement: 'Fixed addresses obey the school in force.',
  judge: judgeHosts(['inside-pool', 'outside-pool'], 'where the school wants it')
})

export const addrNoOverlap = rule({
  id: 'addr-no-overlap',
  name: 'No overlap',
  stage: 'configure',
  level: 'must',
  minutes: 5,
  statement: 'Segments do not overlap.',
  judge: (home) => {
    if (home.segments.length < 2) return []
    const audit = auditOf(home)
    return home.segments
      .filter(({ id }) => audit.ofSegment.has(id))
      .map((segment) => {
        const finding = audit.ofSegment.get(segment.id)!.find(({ code }) => code === 'subnets-overlap')
        if (!finding) return holds('It overlaps no earlier segment.', aboutSegment(segment))
        return breaks(
          sentence(finding),
          'Give one of the two another range.',
          atSegment(segment, 'cidr'),
          aboutSegment(segment)
        )
      })
  }
})

export const addrSingleNat = rule({
  id: 'addr-single-nat',
  name: 'Double NAT',
  stage: 'configure',
  level: 'should',
  minutes: 6,
  statement: 'No double NAT, unless the record says why.',
  judge: (home) => {
    if (home.segments.length === 0) return []
    const finding = auditOf(home).findings.find(({ code }) => code === 'double-nat')
    if (!finding) return [holds('One translation at most.')]
    const why = home.record.brief.facts.doubleNatReason
    if (why) return [holds(`Two translations lie above ${finding.subject}, because: ${why}`)]
    return [
      breaks(
        `${finding.detail[0]!.toUpperCase()}${finding.detail.slice(1)} (${finding.subject}).`,
        'Use access-point mode, or record why not.',
        atBrief('doubleNatReason')
      )
    ]
  }
})

export const addrApMode = rule({
  id: 'addr-ap-mode',
  name: 'Access-point mode',
  stage: 'configure',
  level: 'must',
  minutes: 8,
  statement:
    'An access point made of a router: DHCP server, relay and secondary address off, address in the main segment.',
  judge: judgeApMode
})

export const addrApplied = askedRule({
  id: 'addr-applied',
  name: 'Pages applied',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  statement: 'Every changed page was applied, and the unit restarted where its model needs it.',
  asks: 'Was every changed page applied, and each unit restarted where it needs it?',
  applies: (home) => home.units.length > 0
})

export const addrReachable = rule({
  id: 'addr-reachable',
  name: 'Page reached',
  stage: 'configure',
  level: 'must',
  minutes: 2,
  statement: "Every unit's own page or controller was reached at its recorded address after the last change.",
  after: [addrValid, addrPool, addrUnique],
  afterAnywhere: [addrApplied],
  judge: (home) =>
    home.hosts
      .filter(({ facts }) => facts.unit !== undefined && facts.address !== undefined)
      .map((host) => {
        const about = aboutHost(home, host)
        const place: Place = { stage: 'configure', kind: 'answer', id: 'addr-reachable', field: host.id }
        const answer = home.record.answers[`addr-reachable/${host.id}`]
        const changed = host.meta.address!
        if (answer && answer.seq < changed.seq)
          return unproven(
            `Its address was changed to ${host.facts.address} after it was last reached.`,
            'Open its page at the new address.',
            place,
            about
          )
        return judgeAnswer(home, 'addr-reachable', place, about)
      })
})

/** Rules of Configure about addresses. */
export const addressRules: readonly Rule[] = [
  addrOneDhcp,
  addrValid,
  addrUnique,
  addrPool,
  addrNoOverlap,
  addrSingleNat,
  addrApMode,
  addrReachable,
  addrApplied
]
