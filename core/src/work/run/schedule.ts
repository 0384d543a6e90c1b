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

/** When each pair of hands is there, minutes from now: one from the beginning, unless it is said otherwise. */
export type Hands = readonly number[]
export const alone: Hands = [0]

/** When each task starts if they are taken in this order, each as early as it can, by the hands that can begin it first. */
export function schedule(tasks: readonly Task[], order: readonly number[], hands: Hands = alone): number[] {
  const starts = new Array<number>(tasks.length).fill(0)
  const free = [...hands]
  for (const at of order) {
    const task = tasks[at]!
    let ready = 0
    for (const before of task.after)
      ready = Math.max(ready, starts[before]! + tasks[before]!.handsOnMin + tasks[before]!.waitMin)
    if (task.handsOnMin === 0) {
      starts[at] = ready
      continue
    }
    let by = 0
    // Of hands that could begin it at the same minute those that have been free the shortest: the others are kept for what comes.
    for (let other = 1; other < free.length; other++) {
      const [start, best] = [Math.max(ready, free[other]!), Math.max(ready, free[by]!)]
      if (start < best || (start === best && free[other]! > free[by]!)) by = other
    }
    starts[at] = Math.max(ready, free[by]!)
    free[by] = starts[at] + task.handsOnMin
  }
  return starts
}
