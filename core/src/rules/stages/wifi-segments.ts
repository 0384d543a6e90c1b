import { type Home, type Verdict, breaks, holds, rule, unproven } from '../rule'
import type { Network } from '../../record/record'
import { aboutNetwork, atNetwork, eachNetwork, noNetwork } from './network-place'
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
  const wanted = { main: 'home', guest: 'guests', office: 'office', equipment: 'equipment' }[
    network.facts.use ?? 'main'
  ]
  const name = segment.facts.name ?? segment.facts.cidr
  // A guest network isolated inside the home's own range is common on small routers and is judged by its isolation.
  if (segment.facts.use === wanted || (network.facts.use === 'guest' && network.facts.isolated === true))
    return holds(`It lands in ${name}.`, aboutNetwork(network))
  return breaks(
    `It lands in ${name}, which is for ${segment.facts.use ?? 'nothing yet'}.`,
    `Put it into a segment for ${wanted}.`,
    at,
    aboutNetwork(network)
  )
}

export const wifiGuest = rule({
  id: 'wifi-guest',
  name: 'Guests apart',
  stage: 'configure',
  level: 'should',
  minutes: 1,
  statement: 'A guest network, where there is one, has its own passphrase and is isolated.',
  judge: (home) =>
    home.networks.filter(({ facts }) => facts.use === 'guest').map((network) => judgeGuest(home, network))
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
