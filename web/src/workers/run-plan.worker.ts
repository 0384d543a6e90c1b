import { planVisit } from '@pasado/core/work/run/visit-plan'
import type { VisitTask } from '@pasado/core/work/run/visit-tasks'
import { answering } from './answering'

answering((tasks: VisitTask[]) => planVisit(tasks))
