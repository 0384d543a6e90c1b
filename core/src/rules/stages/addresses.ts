import { restsOfApplied, restsOfReached } from '../../work/prove/rests-of-answers'
import { aboutHost, aboutSegment, atHost, atSegment, auditOf, mends, sentence, suggested } from './address-audit'
import { addrApMode, addrOneDhcp } from './address-servers'
import { stayingOf, staysName } from '../../record/equipment'
import { isAccessPoint } from '../../work/units/known-unit'
import { isPrivate, parseCidr } from '../../values/ipv4'
import type { FindingCode } from '../../address/audit-schema'
import {
  askedRule,
  atBrief,
  breaks,
  holds,
  judgeAnswer,
  unproven,
  type Home,
  type Place,
  type Rule,
  type Verdict,
  rule
} from '../rule'

/** A rule about every fixed address that breaks on certain findings of the audit. */
function judgeHosts(codes: FindingCode[], fine: string): Rule['judge'] {
  return (home) => {
    const audit = auditOf(home)
    // Nothing is asked of what stays; where its address cannot be as it was written down, that is told.
    const staying = stayingOf(home.record).flatMap((stays): Verdict[] => {
      const finding = audit.ofHost.get(stays.id)?.find((candidate) => codes.includes(candidate.code))
      const place: Place = { stage: 'connect', kind: 'stays', id: stays.id, field: 'address' }
      const about = { id: stays.id, name: staysName(stays) }
      return finding ? [breaks(sentence(finding), 'Look at its address and its range again.', place, about)] : []
    })
    const ours = home.hosts.map((host): Verdict => {
      const about = aboutHost(home, host)
      if (host.facts.address === undefined || !audit.ofHost.has(host.id)) {
        return unproven(
          host.facts.address === undefined ? 'Its address is not recorded.' : 'It is in no segment with a range.',
          'Give its segment and address.',
          atHost(host),
          about
        )
      }
      const finding = audit.ofHost.get(host.id)!.find((candidate) => codes.includes(candidate.code))
      if (!finding) return holds(`${host.facts.address}: ${fine}.`, about)
      return breaks(
        sentence(finding),
        `${mends[finding.code] ?? 'Change it.'}${suggested(audit, host.facts.segment)}`,
        atHost(host),
        about
      )
    })
    return [...staying, ...ours]
  }
}

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
    return home.segments.map((segment) => {
      const findings = audit.ofSegment.get(segment.id)
      if (!findings)
        return unproven(
          'Its range is not recorded.',
          'Enter its range.',
          atSegment(segment, 'cidr'),
          aboutSegment(segment)
        )
      const finding = findings.find(({ code }) => code === 'subnets-overlap')
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

/** Where two translations lie one above the other, in words; null where nothing tells of two. */
function translatedTwice(home: Home): string | null {
  const finding = auditOf(home).findings.find(({ code }) => code === 'double-nat')
  if (finding) return `${finding.detail[0]!.toUpperCase()}${finding.detail.slice(1)} (${finding.subject})`
  const router = home.units.find(
    (known) => (known.unit.facts.role === 'router' || known.unit.facts.role === 'gateway') && !isAccessPoint(known)
  )
  if (!router || router.unit.facts.mode === 'bridge') return null
  const before = stayingOf(home.record).find(({ facts }) => facts.kind === 'router')
  if (before || home.record.brief.facts.accessLine === 'existing-router')
    return `${router.name} translates behind ${before ? staysName(before) : 'the customer’s own router'}, which translates as well`
  const outer = home.segments.find(
    ({ id, facts }) =>
      home.segments.some((inner) => inner.facts.behind === id) &&
      facts.behind === undefined &&
      isPrivateRange(facts.cidr)
  )
  return outer
    ? `${outer.facts.name ?? outer.facts.cidr} outside ${router.name} is a private range: another translation lies above it`
    : null
}

function isPrivateRange(cidr: string | undefined): boolean {
  const range = cidr === undefined ? null : parseCidr(cidr)
  return range !== null && !('problem' in range) && isPrivate(range.first, range.last)
}

export const addrSingleNat = rule({
  id: 'addr-single-nat',
  name: 'Double NAT',
  stage: 'configure',
  level: 'should',
  minutes: 6,
  statement: 'No double NAT, unless the record says why.',
  judge: (home) => {
    const twice = translatedTwice(home)
    if (home.segments.length === 0 && twice === null) return []
    if (twice === null) return [holds('One translation at most.')]
    const why = home.record.brief.facts.doubleNatReason
    if (why) return [holds(`${twice}, because: ${why}`)]
    return [breaks(`${twice}.`, 'Use access-point mode, or record why not.', atBrief('doubleNatReason'))]
  }
})

export const addrApplied = askedRule({
  id: 'addr-applied',
  name: 'Pages applied',
  stage: 'configure',
  level: 'must',
  minutes: 4,
  statement: 'Every changed page was applied, and the unit restarted where its model needs it.',
  asks: 'Was every changed page applied, and each unit restarted where it needs it?',
  applies: (home) => home.units.length > 0,
  rests: (home) => restsOfApplied(home)
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
        return judgeAnswer(home, 'addr-reachable', place, about, restsOfReached(home, host))
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
