import { hasRole } from '../../record/roles'
import { addrApplied } from './addr-applied'
import { restsOfReached } from '../../work/prove/rests-of-answers'
import {
  aboutHost,
  aboutSegment,
  atHost,
  atSegment,
  auditOf,
  mends,
  nowhere,
  sentence,
  suggested
} from './address-audit'
import { addrApMode, addrOneDhcp } from './address-servers'
import { stayingOf, staysName } from '../../record/equipment'
import { isAccessPoint, type KnownUnit } from '../../work/units/known-unit'
import type { Host, Unit } from '../../record/record'
import { isPrivate, parseCidr } from '../../values/ipv4'
import type { FindingCode } from '../../address/audit-schema'
import {
  aboutUnit,
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
function judgeHosts(
  codes: FindingCode[],
  fine: string,
  unknownTo: (home: Home, host: Host) => Verdict | null = () => null
): Rule['judge'] {
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
      const open = finding ? null : unknownTo(home, host)
      if (open) return open
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

/** That the gateway is not recorded, which an address may be; null where it is. */
function openGateway(home: Home, host: Host): Verdict | null {
  const segment = home.segments.find(({ id }) => id === host.facts.segment)
  if (!segment || segment.facts.gateway !== undefined) return null
  return unproven(
    'The gateway of its range is not recorded: whether this is its address is not known.',
    'Record the gateway of the range.',
    atSegment(segment, 'gateway'),
    aboutHost(home, host)
  )
}

/** What is not recorded of a pool that an address may lie in; null where all of it is. */
function openPool(home: Home, host: Host): Verdict | null {
  const { segment } = host.facts
  const open = home.pools.find(
    (pool) =>
      (pool.facts.segment ?? segment) === segment &&
      (pool.facts.segment === undefined || pool.facts.from === undefined || pool.facts.to === undefined)
  )
  if (!open) return null
  return unproven(
    open.facts.segment === undefined
      ? 'Of which range a pool is, is not recorded.'
      : 'From where to where its pool goes is not recorded.',
    'Record the range, and from where to where it goes.',
    segment === undefined ? nowhere : { ...nowhere, id: segment, field: 'dhcp' },
    aboutHost(home, host)
  )
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
    'well formed and inside its segment',
    openGateway
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
  judge: judgeHosts(['inside-pool', 'outside-pool'], 'where the school wants it', openPool)
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
  const router = home.units.find((known) => hasRole(known.unit, 'router', 'gateway') && !isAccessPoint(known))
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

/** That nobody recorded what our router stands behind: a router of the customer's it may be. Null where it is recorded. */
function behindSomething({ record, units }: Home): Verdict | null {
  const translates = units.some(
    (known) => hasRole(known.unit, 'router') && known.unit.facts.mode !== 'bridge' && !isAccessPoint(known)
  )
  return translates && record.brief.facts.accessLine === undefined
    ? unproven(
        'What line comes in is not recorded: whether it stands behind another router is not known.',
        'Look, and say so under Brief.',
        atBrief('accessLine')
      )
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
    if (twice === null) return [behindSomething(home) ?? holds('One translation at most.')]
    const why = home.record.brief.facts.doubleNatReason
    if (why) return [holds(`${twice}, because: ${why}`)]
    return [breaks(`${twice}.`, 'Use access-point mode, or record why not.', atBrief('doubleNatReason'))]
  }
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
  needs: ['role'],
  judge: (home) => [
    ...home.hosts
      .filter(({ facts }) => facts.unit !== undefined && facts.address !== undefined)
      .map((host) => {
        const about = aboutHost(home, host)
        const place: Place = { stage: 'configure', kind: 'answer', id: 'addr-reachable', field: host.id }
        return judgeAnswer(home, 'addr-reachable', place, about, restsOfReached(home, host))
      }),
    ...home.units.filter(({ unit }) => isReachedAtAnAddress(home, unit)).map((known) => notReached(home, known)),
    ...home.hosts
      .filter(({ facts: { unit, name } }) => unit === undefined && name === undefined)
      .map((host): Verdict =>
        unproven('Whose address it is, is not recorded.', 'Say whose it is.', atHost(host), aboutHost(home, host))
      )
  ]
})

/** Roles whose page everybody gets to by its address, whatever the model; others may be run from another's. */
const withPages = ['router', 'gateway', 'access-point', 'controller'] as const

/** Whether a unit's page has to be reached at an address that is not recorded. */
function isReachedAtAnAddress(home: Home, unit: Unit): boolean {
  const hosts = home.hosts.filter((host) => host.facts.unit === unit.id)
  if (hosts.length > 0) return hosts.every((host) => host.facts.address === undefined)
  return hasRole(unit, ...withPages) && !unit.facts.stayed
}

function notReached(home: Home, known: KnownUnit): Verdict {
  const host = home.hosts.find(({ facts }) => facts.unit === known.unit.id)
  return unproven(
    'Its address is not recorded: that its page was reached there is not known.',
    'Record its address, then reach its page.',
    host ? atHost(host) : { stage: 'configure', kind: 'host', id: 'new', field: known.unit.id },
    aboutUnit(known)
  )
}

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
