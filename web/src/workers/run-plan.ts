import type { AgendaPlan } from '@pasado/core/agenda/planned'
import type { PlannedTask } from '@pasado/core/work/run/visit-plan'
import { asking } from './asking'

/** Plans a visit in a worker. Only the newest question is answered. */
export const { newest: askRunPlan } = asking<PlannedTask[], AgendaPlan>(
  'The run plan',
  () => new Worker(new URL('./run-plan.worker.ts', import.meta.url), { type: 'module' })
)
