/** A task by number: what it takes, and which tasks it comes after. */
export interface Task {
  handsOnMin: number
  waitMin: number
  after: number[]
}

/** The tasks in the order given: each next one is the first in the list whose predecessors have all been taken. Shorter where there is a circle. */
export function orderGiven(tasks: readonly Task[]): number[] {
  const taken = new Set<number>()
  for (;;) {
    const next = tasks.findIndex((task, at) => !taken.has(at) && task.after.every((before) => taken.has(before)))
    if (next < 0) return [...taken]
    taken.add(next)
  }
}

/** When each task starts if they are taken in this order, each as early as it can. */
export function schedule(tasks: readonly Task[], order: readonly number[]): number[] {
  const starts = new Array<number>(tasks.length).fill(0)
  let technicianFree = 0
  for (const at of order) {
    const task = tasks[at]!
    let start = task.handsOnMin > 0 ? technicianFree : 0
    for (const before of task.after)
      start = Math.max(start, starts[before]! + tasks[before]!.handsOnMin + tasks[before]!.waitMin)
    starts[at] = start
    if (task.handsOnMin > 0) technicianFree = start + task.handsOnMin
  }
  return starts
}
