import { unproven, type Home, type Place, type Subject, type Verdict } from '../rule'
import type { Network } from '../../record/record'

export const atNetwork = (network: Network, field: string): Place => ({
  stage: 'configure',
  kind: 'network',
  id: network.id,
  field
})
export const aboutNetwork = (network: Network): Subject => ({
  id: network.id,
  name: network.facts.ssid ?? 'unnamed network'
})

const isOurs = ({ unit }: Home['units'][number]) => !unit.facts.stayed

/** That no network is recorded, of a home that units of ours were brought to: what it is like is not known; empty where one is. */
export const noNetwork = ({ networks, units }: Home): Verdict[] =>
  networks.length > 0 || !units.some(isOurs)
    ? []
    : [
        unproven('No network is recorded.', 'Record the home’s network.', {
          stage: 'configure',
          kind: 'network',
          id: 'new',
          field: 'ssid'
        })
      ]

export const eachNetwork = (judge: (home: Home, network: Network) => Verdict) => (home: Home) =>
  home.networks.map((network) => judge(home, network))
