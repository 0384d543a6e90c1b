import type { Condition, Model, ModelState } from '../catalogue/model'

/** A signal of a link at or above the first is good, below the second there is none, dBm. */
export const [GOOD_DBM, LEAST_DBM] = [-70, -80]

/** What is shown instead where a model has no look for a condition: what a person would then see. */
const instead: Partial<Record<Condition, Condition>> = {
  weak: 'good',
  'no-link': 'no-internet',
  'no-internet': 'good',
  failed: 'ready',
  pairing: 'ready',
  updating: 'booting',
  resetting: 'booting',
  ready: 'booting',
  'lamps-off': 'off',
  'radio-off': 'good',
  'line-training': 'line-seeking',
  'line-login': 'line-training',
  'login-refused': 'no-line',
  'line-seeking': 'booting',
  'no-line': 'line-seeking',
  'as-router': 'good',
  'as-access-point': 'good',
  'over-budget': 'good',
  good: 'as-router'
}

/** The state of a model that shows a condition; where nobody said which does, the start is off and what is good is good. */
export function stateShowing(model: Model, condition: Condition): ModelState {
  const seen = new Set<Condition>()
  for (let wanted: Condition | undefined = condition; wanted && !seen.has(wanted); wanted = instead[wanted]) {
    seen.add(wanted)
    const found = model.states.find(({ is }) => is === wanted)
    if (found) return found
    const guessed = guessedState(model, wanted)
    if (guessed) return guessed
  }
  const start = model.states.find(({ state }) => state === model.start)!
  const first = model.moves.find(({ from }) => from === model.start)
  return condition === 'off' ? start : (model.states.find(({ state }) => state === first?.to) ?? start)
}

/** The state of a model that shows a condition though nobody said so. */
function guessedState(model: Model, wanted: Condition): ModelState | undefined {
  if (wanted === 'off') return model.states.find(({ state }) => state === model.start)
  return wanted === 'good' ? model.states.find(({ good }) => good) : undefined
}

/** How long a condition lasts where the model's table does not say, minutes: least, usual, most. */
const usualMin: Partial<Record<Condition, number>> = {
  booting: 1,
  resetting: 0.4,
  pairing: 0.8,
  updating: 5,
  'line-seeking': 2,
  'line-training': 12,
  'line-login': 1
}

/** How long a condition of a model lasts, in minutes. */
export function lasts(model: Model, condition: Condition): { least: number; usual: number; most: number } {
  const row = model.states.find(({ is }) => is === condition)
  const usual = row?.usualMin ?? usualMin[condition] ?? 1
  // Well within what the model allows: a house without faults is never late.
  const most = Math.max(usual, Math.min(row?.maxMin === undefined ? usual * 1.6 : row.maxMin * 0.9, usual * 1.8))
  return { least: usual * 0.7, usual, most }
}
