import { type Home, type Verdict, aboutUnit, atUnit, breaks, holds, rule, unproven } from '../rule'
import { aboutSegment, atHost, atSegment, auditOf, isFixedLink, nowhere, sentence } from './address-audit'
import { staysName } from '../../record/equipment'
import { givesNone, servingOn } from '../../work/addresses/servers'
import { isAccessPoint } from '../../work/units/known-unit'

function judgeOneDhcp(home: Home): Verdict[] {
  const audit = auditOf(home)
  return home.segments.map((segment) => {
    const about = aboutSegment(segment)
    const at = atSegment(segment, 'dhcp')
    const findings = audit.ofSegment.get(segment.id)
    if (!findings) return unproven('Its range is not recorded.', 'Enter its range.', atSegment(segment, 'cidr'), about)
    const { servers, takenOut, unnamed, unsaid, pools } = servingOn(home.record, segment)
    const two = findings.find(({ code }) => code === 'two-dhcp')
    if (servers.length > 1)
      return breaks(
        `${servers.map(({ name }) => name).join(' and ')} each serve addresses here.`,
        'Switch all but one of them off.',
        at,
        about
      )
    const off = servers.find(givesNone)
    if (off)
      return breaks(
        `${off.name} is to serve addresses here, and its DHCP server is recorded off.`,
        'Switch it on, or name who serves.',
        at,
        about
      )
    const inAp = servers.find(({ unit }) => unit && isAccessPoint({ unit }) && unit.facts.dhcpServer !== 'on')
    if (inAp)
      return unproven(
        `${inAp.name} works as an access point and is named as serving addresses here: it cannot be both.`,
        'Name the unit that serves now, or record that its DHCP server is on.',
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
    if (pools.length === 0 && servers.length === 0)
      return isFixedLink(segment, home)
        ? holds('The provider gives a fixed address here: nobody is to serve any.', about)
        : unproven('Nothing is recorded that serves addresses here.', 'Record its DHCP server and pool.', at, about)
    if (home.pools.some(({ facts }) => facts.segment === undefined))
      return unproven(
        'A pool is recorded without its range: whether it serves here as well is not known.',
        'Say of which range it is, or take it out.',
        at,
        about
      )
    if (unnamed && segment.facts.use !== 'provider')
      return unproven('It has a pool, and whose it is nobody recorded.', 'Name the DHCP server.', at, about)
    if (unsaid)
      return unproven(
        `Whether ${staysName(unsaid)}, which stays, gives addresses here is not recorded.`,
        'Look on its page, or ask; then say yes or no.',
        { stage: 'connect', kind: 'stays', id: unsaid.id, field: 'givesAddresses' },
        about
      )
    return holds(
      servers.length
        ? `Exactly one DHCP server: ${servers[0]!.name}.`
        : 'The provider serves addresses here, and nobody else.',
      about
    )
  })
}

function judgeApMode(home: Home): Verdict[] {
  const made = home.units.filter((known) => isAccessPoint(known) && known.model?.roles.includes('router'))
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
    if (!main)
      return unproven(
        'The main segment is not recorded: whether its address lies in it is not known.',
        'Record the home’s range.',
        nowhere,
        about
      )
    if (host.facts.segment !== main.id)
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

export const addrApMode = rule({
  id: 'addr-ap-mode',
  name: 'Access-point mode',
  stage: 'configure',
  level: 'must',
  minutes: 8,
  needs: ['model', 'role'],
  statement:
    'An access point made of a router: DHCP server, relay and secondary address off, address in the main segment.',
  judge: judgeApMode
})
