import type { VisitPlan } from '@pasado/core/work/run/visit-plan'
import type { VisitTask } from '@pasado/core/work/run/visit-tasks'
import { asking } from './asking'

/** Plans a visit in a worker. Only the newest question is answered. */
export const { newest: askRunPlan } = asking<VisitTask[], VisitPlan>(
  'The run plan',
  () => new Worker(new URL('./run-plan.worker.ts', import.meta.url), { type: 'module' })
)
