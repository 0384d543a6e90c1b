import { noNetwork, eachNetwork, ofTheirs } from './theirs'
import { type Home, type Place, type Verdict, breaks, holds, rule, unproven } from '../rule'
import type { Network, Segment } from '../../record/record'
import { vlanProblem, type VlanProblem } from '../../work/configure/vlan'
import { aboutNetwork, atNetwork } from './network-place'
import { passphraseOf } from '../../work/wifi/passphrase'

function judgeGuest(home: Home, network: Network): Verdict {
  if (network.facts.isolated !== true) {
    const say = network.facts.isolated === false ? breaks : unproven
    return say(
      network.facts.isolated === false
        ? 'Its guests are not kept apart from the home’s devices.'
        : 'Whether its guests are kept apart is not recorded.',
      'Isolate it from the home’s devices, then tick it.',
      atNetwork(network, 'isolated'),
      aboutNetwork(network)
    )
  }
  const own = passphraseOf(home.record, network)
  const shared =
    own &&
    home.networks.some(
      (other) => other.id !== network.id && passphraseOf(home.record, other)?.assessed.print === own.assessed.print
    )
  if (shared)
    return breaks(
      'It has the same passphrase as another network.',
      'Give guests a passphrase of their own.',
      { stage: 'configure', kind: 'secret', id: network.id, field: 'wifi-passphrase' },
      aboutNetwork(network)
    )
  if (!own && network.facts.security !== 'open')
    return unproven(
      'Guests are apart; that they have a passphrase of their own is not proven: none is in the vault.',
      'Make one or type one.',
      { stage: 'configure', kind: 'secret', id: network.id, field: 'wifi-passphrase' },
      aboutNetwork(network)
    )
  return holds(
    own ? 'Guests are apart, with a passphrase of their own.' : 'Guests are apart, on an open network.',
    aboutNetwork(network)
  )
}

function judgeSegment(home: Home, network: Network): Verdict {
  const at = atNetwork(network, 'segment')
  const segment = home.segments.find(({ id }) => id === network.facts.segment)
  if (!segment)
    return unproven('The segment it lands in is not recorded.', 'Choose its segment.', at, aboutNetwork(network))
  if (network.facts.use === undefined)
    return unproven(
      `It lands in ${segment.facts.name ?? segment.facts.cidr}; what it is for is not recorded.`,
      'Say what it is for.',
      atNetwork(network, 'use'),
      aboutNetwork(network)
    )
  const wanted = { main: 'home', guest: 'guests', office: 'office', equipment: 'equipment' }[network.facts.use]
  const name = segment.facts.name ?? segment.facts.cidr
  const vlan = judgeVlan(home, network, segment)
  // A guest network isolated inside the home's own range is common on small routers and is judged by its isolation.
  if (segment.facts.use === wanted || (network.facts.use === 'guest' && network.facts.isolated === true))
    return vlan ?? holds(`It lands in ${name}${tagOf(segment)}.`, aboutNetwork(network))
  return breaks(
    `It lands in ${name}, which is for ${segment.facts.use ?? 'nothing yet'}.`,
    `Put it into a segment for ${wanted}.`,
    at,
    aboutNetwork(network)
  )
}

const tagOf = ({ facts: { vlan } }: Segment) => (vlan === undefined ? '' : `, VLAN ${vlan}`)

/** What stands between a network and its segment, where that has a VLAN of its own; null where nothing does. */
function judgeVlan(home: Home, network: Network, segment: Segment): Verdict | null {
  const { vlan } = segment.facts
  const twin = home.segments.find(({ id, facts }) => id !== segment.id && vlan !== undefined && facts.vlan === vlan)
  if (twin)
    return breaks(
      `VLAN ${vlan} is that of ${twin.facts.name ?? twin.facts.cidr ?? 'another segment'} as well.`,
      'Give each segment a VLAN of its own.',
      { stage: 'configure', kind: 'segment', id: segment.id, field: 'vlan' },
      aboutNetwork(network)
    )
  // One whose model is not known may send.
  const units = home.units.map(({ unit, model }) => ({ unit, sends: model?.radios.length !== 0 }))
  const problem = vlanProblem(home.record, home.catalogue, units, network, segment)
  if (!problem) return null
  const say = problem.outcome === 'breaks' ? breaks : unproven
  return say(problem.message, problem.remedy, placeOf(problem, network), aboutNetwork(network))
}

function placeOf({ cable, unit }: VlanProblem, network: Network): Place {
  if (unit === null) return atNetwork(network, 'segment')
  return cable === null
    ? { stage: 'connect', kind: 'cable', id: 'new', field: unit }
    : { stage: 'connect', kind: 'cable', id: cable, field: 'tagged' }
}

export const wifiGuest = rule({
  id: 'wifi-guest',
  name: 'Guests apart',
  stage: 'configure',
  level: 'should',
  minutes: 1,
  statement: 'A guest network, where there is one, has its own passphrase and is isolated.',
  judge: (home) =>
    home.networks
      .filter(({ facts }) => facts.use === 'guest')
      .map((network) => ofTheirs(home, network) ?? judgeGuest(home, network))
})

export const wifiSegment = rule({
  id: 'wifi-segment',
  name: 'Segment',
  stage: 'configure',
  level: 'must',
  minutes: 1,
  statement: 'Every network name lands in its intended segment.',
  judge: (home) => [...noNetwork(home), ...eachNetwork(judgeSegment)(home)]
})
