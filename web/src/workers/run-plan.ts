import type { VisitPlan } from '@pasado/core/work/run/visit-plan'
import type { VisitTask } from '@pasado/core/work/run/visit-tasks'

let worker: Worker | null = null
let asked = 0
let heard: ((plan: VisitPlan) => void) | null = null

/** Plans a visit in a worker. Only the newest question is answered. */
export function askRunPlan(tasks: VisitTask[], onPlan: (plan: VisitPlan) => void): void {
  if (!worker) {
    worker = new Worker(new URL('./run-plan.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', (event: MessageEvent<{ id: number; plan: VisitPlan }>) => {
      if (event.data.id === asked) heard?.(event.data.plan)
    })
  }
  heard = onPlan
  worker.postMessage({ id: ++asked, tasks })
}
