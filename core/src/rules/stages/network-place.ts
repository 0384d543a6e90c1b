import type { Home, Place, Subject, Verdict } from '../rule'
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

export const eachNetwork = (judge: (home: Home, network: Network) => Verdict) => (home: Home) =>
  home.networks.map((network) => judge(home, network))
