import { planVisit } from '@pasado/core/work/run/visit-plan'
import type { VisitTask } from '@pasado/core/work/run/visit-tasks'

addEventListener('message', (event: MessageEvent<{ id: number; tasks: VisitTask[] }>) =>
  postMessage({ id: event.data.id, plan: planVisit(event.data.tasks) })
)
