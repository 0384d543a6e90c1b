import type { Condition } from '../../catalogue/model'

/** What of an answer about lamps a condition is; none for those that an answer does not name. */
export const lampAnswer: Partial<Record<Condition, string>> = {
  good: 'good',
  weak: 'weak',
  'no-link': 'no-link',
  ready: 'ready',
  failed: 'failed',
  'no-internet': 'no-internet',
  'radio-off': 'radio-off',
  off: 'dark',
  'as-router': 'good',
  'as-access-point': 'good'
}
