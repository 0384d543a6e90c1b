import { asking } from './asking'
import type { CoverageAnswer, CoverageAsk } from './coverage.worker'

/** Asks for coverage in a worker. Only the newest question is answered: a drag does not wait for the ones before. */
export const { newest: askCoverage } = asking<CoverageAsk, CoverageAnswer>(
  'The signal in the plan',
  () => new Worker(new URL('./coverage.worker.ts', import.meta.url), { type: 'module' })
)
