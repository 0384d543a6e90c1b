import type { Place, Subject } from '../rule'
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
