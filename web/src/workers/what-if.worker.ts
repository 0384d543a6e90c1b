import { planIf, type WhatIf } from '@pasado/core/agenda/what-if'
import type { PlannedTask } from '@pasado/core/work/run/visit-plan'
import { answering } from './answering'

answering(({ tasks, what }: { tasks: PlannedTask[]; what: WhatIf }) => planIf(tasks, what))
