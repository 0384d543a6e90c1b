import type { WhatIf, WhatIfAnswer } from '@pasado/core/agenda/what-if'
import type { PlannedTask } from '@pasado/core/work/run/visit-plan'
import { asking } from './asking'

/** Plans a visit in a worker as it would be with more hands, without some of its work, or by a time. Only the newest question is answered. */
export const { newest: askWhatIf } = asking<{ tasks: PlannedTask[]; what: WhatIf }, WhatIfAnswer>(
  'What if',
  () => new Worker(new URL('./what-if.worker.ts', import.meta.url), { type: 'module' })
)
