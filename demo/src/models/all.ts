import type { Condition, Model } from '@pasado/core/catalogue/model'
import { brackwater } from './brackwater'
import { fenmarrow } from './fenmarrow'
import { ostrel } from './ostrel'
import { others } from './others'
import { quillet } from './quillet'
import { tolvane } from './tolvane'

/** What a unit is doing, by the names that the states of the demo go by. */
const conditionOf: Record<string, Condition> = {
  unpowered: 'off',
  starting: 'booting',
  'self-test': 'booting',
  powered: 'booting',
  ready: 'ready',
  adoptable: 'ready',
  empty: 'ready',
  alone: 'ready',
  pairing: 'pairing',
  joining: 'pairing',
  adopting: 'pairing',
  updating: 'updating',
  well: 'good',
  weak: 'weak',
  slow: 'weak',
  'too-far': 'weak',
  lost: 'no-link',
  'no-mesh': 'no-link',
  'no-network': 'no-link',
  offline: 'no-internet',
  'no-internet': 'no-internet',
  failed: 'failed',
  resetting: 'resetting',
  'lamp-off': 'lamps-off',
  'lamps-off': 'lamps-off',
  'radio-off': 'radio-off',
  seeking: 'line-seeking',
  locking: 'line-seeking',
  training: 'line-training',
  ranging: 'line-training',
  activating: 'line-login',
  trained: 'line-login',
  refused: 'login-refused',
  'no-line': 'no-line',
  'no-light': 'no-line',
  router: 'as-router',
  'access-point': 'as-access-point',
  'over-budget': 'over-budget'
}

/** Every model of the made-up makers. */
export const demoModels: Model[] = [...ostrel, ...fenmarrow, ...quillet, ...brackwater, ...others, ...tolvane].map(
  (model) => ({
    ...model,
    states: model.states.map((state) => ({
      ...state,
      ...(conditionOf[state.state] ? { is: conditionOf[state.state]! } : {})
    }))
  })
)
