import { z } from 'zod'
import { refuse, type Problem } from '../../values/problem'
import { bestOrder } from './best-order'
import { alone, orderGiven, schedule, type Hands, type Task } from './schedule'

/** Input of `run-plan`: tasks of one technician, minutes. */
export const runPlanInput = z.strictObject({
  tasks: z.array(
    z.strictObject({
      id: z.string().min(1),
      handsOnMin: z.number().min(0, 'must be 0 or more'),
      waitMin: z.number().min(0, 'must be 0 or more').optional(),
      after: z.array(z.string()).optional()
    })
  )
})
export type RunPlanInput = z.infer<typeof runPlanInput>

export const runPlanOutput = z.strictObject({
  makespanMin: z.number(),
  criticalPath: z.array(z.string()),
  start: z.record(z.string(), z.number())
})
export type RunPlan = z.infer<typeof runPlanOutput>

/**
 * The order of one technician's tasks that ends soonest: proven for up to 14 tasks, above that the best found and never
 * worse than the order given.
 * @param hands when each pair of hands is there: with more than one, tasks are done side by side
 * @throws Refusal for repeated or unknown ids and for circles
 */
export function runPlan({ tasks }: RunPlanInput, hands: Hands = alone): RunPlan {
  const numbered = numberTasks(tasks)
  const order = bestOrder(numbered, hands)
  const starts = schedule(numbered, order, hands)
  const ends = numbered.map((task, at) => starts[at]! + task.handsOnMin + task.waitMin)
  const makespanMin = Math.max(0, ...ends)
  if (!Number.isFinite(makespanMin)) refuse([{ path: ['tasks'], message: 'take longer than can be added up' }])
  const path = criticalPath(numbered, starts, ends, makespanMin)
  return {
    makespanMin,
    criticalPath: path.map((at) => tasks[at]!.id),
    start: Object.fromEntries(tasks.map(({ id }, at) => [id, starts[at]!]))
  }
}

function numberTasks(tasks: RunPlanInput['tasks']): Task[] {
  const numbers = new Map<string, number>()
  const problems: Problem[] = []
  tasks.forEach(({ id }, at) => {
    if (numbers.has(id)) problems.push({ path: ['tasks', at, 'id'], message: `${id} is listed twice` })
    numbers.set(id, at)
  })
  tasks.forEach(({ after = [] }, at) => {
    after.forEach((id, place) => {
      if (!numbers.has(id)) problems.push({ path: ['tasks', at, 'after', place], message: `no task is called ${id}` })
      else if (after.indexOf(id) !== place)
        problems.push({ path: ['tasks', at, 'after', place], message: `${id} is listed twice` })
    })
  })
  if (problems.length) refuse(problems)
  const numbered = tasks.map(({ handsOnMin, waitMin = 0, after = [] }) => ({
    handsOnMin,
    waitMin,
    after: after.map((id) => numbers.get(id)!)
  }))
  if (orderGiven(numbered).length < tasks.length)
    refuse([{ path: ['tasks'], message: 'come after each other in a circle' }])
  return numbered
}

/** From a task that starts at 0 to one that is over last, each starting at the very minute the one before lets it. */
function criticalPath(
  tasks: readonly Task[],
  starts: readonly number[],
  ends: readonly number[],
  makespan: number
): number[] {
  if (tasks.length === 0) return []
  let at = ends.findIndex((end) => end === makespan)
  const path = [at]
  const on = new Set(path)
  while (starts[at]! > 0) {
    const task = tasks[at]!
    const waited = task.after.find((value) => ends[value] === starts[at] && !on.has(value))
    const busy =
      task.handsOnMin > 0
        ? tasks.findIndex(
            (first, other) => !on.has(other) && first.handsOnMin > 0 && starts[other]! + first.handsOnMin === starts[at]
          )
        : -1
    // Whoever came later began then: nothing before it held them up.
    if (waited === undefined && busy < 0) break
    at = waited ?? busy
    path.unshift(at)
    on.add(at)
  }
  return path
}
