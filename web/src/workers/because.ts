import { asking } from './asking'
import type { BecauseAsk } from './because.worker'

/** Finds in a worker which lines a finding rests on; null where the logbook does not say so. */
export const { ask: askBecause } = asking<BecauseAsk, number[] | null>(
  'What a finding rests on',
  () => new Worker(new URL('./because.worker.ts', import.meta.url), { type: 'module' })
)
