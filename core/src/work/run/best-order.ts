import { alone, orderGiven, schedule, type Hands, type Task } from './schedule'

/** Up to this many tasks the best order is proven. */
const PROVEN_TO = 14
const ROUNDS = 40

/** Minutes that two ends may differ by and still be the same: sums of minutes are not exact. */
const SAME_MIN = 1e-9

/**
 * An order of tasks that ends as soon as can be; above 14 tasks, and for more than one pair of hands, the best that was found, unless it
 * reaches what no order ends before.
 */
export function bestOrder(tasks: readonly Task[], hands: Hands = alone): number[] {
  const search = new Search(tasks)
  const least = leastEnd(tasks, hands)
  let best = orderGiven(tasks)
  const ways = [
    () => search.byTail(),
    () => improve(tasks, best, least, hands),
    () => improve(tasks, search.byTail(), least, hands)
  ]
  for (const way of ways) {
    // Nothing ends before the bound: what reaches it is proven.
    if (endOf(tasks, best, hands) <= least + SAME_MIN) return best
    const order = way()
    if (endOf(tasks, order, hands) < endOf(tasks, best, hands)) best = order
  }
  return tasks.length <= PROVEN_TO && hands.length === 1 ? search.prove(best) : best
}

/**
 * No order of the tasks ends before this: their longest chain, or all hands and what still has to follow the last of them; for more hands,
 * when all that is to be done by hand could be shared out without rest; minutes.
 */
export function leastEnd(tasks: readonly Task[], hands: Hands = alone): number {
  const search = new Search(tasks)
  if (hands.length === 1) return search.leastEnd()
  const all = tasks.reduce((sum, { handsOnMin }) => sum + handsOnMin, 0)
  const from = [...hands].sort((a, b) => a - b)
  let shared = Infinity
  for (let count = 1; count <= from.length; count++) {
    const there = from.slice(0, count)
    const end = (all + there.reduce((sum, minute) => sum + minute, 0)) / count
    // Hands that come after it is done share nothing.
    if (end >= there.at(-1)!) shared = Math.min(shared, end)
  }
  return Math.max(search.longestChain(), Number.isFinite(shared) ? shared : 0)
}

function endOf(tasks: readonly Task[], order: readonly number[], hands: Hands): number {
  const starts = schedule(tasks, order, hands)
  return Math.max(0, ...tasks.map((task, at) => starts[at]! + task.handsOnMin + task.waitMin))
}

/** Moves single tasks elsewhere in the order while that ends sooner. */
function improve(tasks: readonly Task[], from: readonly number[], least: number, hands: Hands): number[] {
  let order = [...from]
  let end = endOf(tasks, order, hands)
  for (let round = 0; round < ROUNDS; round++) {
    let better = false
    for (let at = 0; at < order.length; at++) {
      for (let to = 0; to < order.length; to++) {
        if (to === at) continue
        const moved = order.toSpliced(at, 1)
        moved.splice(to, 0, order[at]!)
        if (!mayCome(tasks, moved)) continue
        const movedEnd = endOf(tasks, moved, hands)
        if (movedEnd < end) {
          order = moved
          end = movedEnd
          better = true
        }
      }
    }
    if (!better || end <= least + SAME_MIN) break
  }
  return order
}

function mayCome(tasks: readonly Task[], order: readonly number[]): boolean {
  const taken = new Set<number>()
  return order.every((at) => tasks[at]!.after.every((before) => taken.has(before)) && taken.add(at))
}

/** What is known when some tasks have been taken: when the technician is free, and when each of them is over. */
interface Partial {
  free: number
  ends: number[]
  order: number[]
}

/** Branch and bound over the orders of the tasks, one set of taken tasks after another. */
class Search {
  readonly #tails: number[]
  readonly #followers: number[][]

  constructor(readonly tasks: readonly Task[]) {
    this.#followers = tasks.map((_, at) => tasks.flatMap((task, other) => (task.after.includes(at) ? [other] : [])))
    this.#tails = new Array<number>(tasks.length).fill(0)
    for (const at of orderGiven(tasks).reverse())
      this.#tails[at] =
        tasks[at]!.handsOnMin +
        tasks[at]!.waitMin +
        Math.max(0, ...this.#followers[at]!.map((next) => this.#tails[next]!))
  }

  longestChain(): number {
    return Math.max(0, ...this.#tails)
  }

  leastEnd(): number {
    return this.tasks.length === 0 ? 0 : this.#bound({ free: 0, ends: [], order: [] }, 0)
  }

  /** Of the tasks that may come next, always the one with the most that must follow it. */
  byTail(): number[] {
    const order: number[] = []
    const taken = new Set<number>()
    while (order.length < this.tasks.length) {
      const ready = this.tasks.flatMap((task, at) =>
        !taken.has(at) && task.after.every((before) => taken.has(before)) ? [at] : []
      )
      const next = ready.reduce((best, at) => (this.#tails[at]! > this.#tails[best]! ? at : best))
      order.push(next)
      taken.add(next)
    }
    return order
  }

  /** The best order, proven: every order is either followed or shown to end no sooner. */
  prove(known: number[]): number[] {
    let best = known
    let bestEnd = endOf(this.tasks, known, alone)
    const all = 2 ** this.tasks.length - 1
    let layer = new Map<number, Partial[]>([[0, [{ free: 0, ends: [], order: [] }]]])
    for (let size = 0; size < this.tasks.length; size++) {
      const next = new Map<number, Partial[]>()
      for (const [set, partials] of layer) {
        for (const partial of partials) {
          for (const at of this.#ready(set)) {
            const grown = this.#take(partial, at)
            const grownSet = set | (1 << at)
            if (grownSet === all) {
              const end = Math.max(...grown.ends)
              if (end < bestEnd) {
                best = grown.order
                bestEnd = end
              }
            } else if (this.#bound(grown, grownSet) < bestEnd) this.#keep(next, grownSet, grown)
          }
        }
      }
      layer = next
    }
    return best
  }

  #ready(set: number): number[] {
    const ready: number[] = []
    for (let at = 0; at < this.tasks.length; at++) {
      if (!(set & (1 << at)) && this.tasks[at]!.after.every((before) => set & (1 << before))) ready.push(at)
    }
    // Tasks that take no technician start by themselves: taken at once, they never stand in the way.
    const byItself = ready.find((at) => this.tasks[at]!.handsOnMin === 0)
    return byItself === undefined ? ready : [byItself]
  }

  #take(partial: Partial, at: number): Partial {
    const task = this.tasks[at]!
    let start = task.handsOnMin > 0 ? partial.free : 0
    for (const before of task.after) start = Math.max(start, partial.ends[before]!)
    const ends = [...partial.ends]
    ends[at] = start + task.handsOnMin + task.waitMin
    return { free: task.handsOnMin > 0 ? start + task.handsOnMin : partial.free, ends, order: [...partial.order, at] }
  }

  /** No order that goes on from here ends before this. */
  #bound(partial: Partial, set: number): number {
    let handsOn = 0
    let least = Infinity
    let bound = 0
    for (let at = 0; at < this.tasks.length; at++) {
      const task = this.tasks[at]!
      if (set & (1 << at)) {
        bound = Math.max(bound, partial.ends[at]!)
        continue
      }
      let start = task.handsOnMin > 0 ? partial.free : 0
      for (const before of task.after) if (set & (1 << before)) start = Math.max(start, partial.ends[before]!)
      bound = Math.max(bound, start + this.#tails[at]!)
      handsOn += task.handsOnMin
      if (task.handsOnMin > 0) least = Math.min(least, this.#tails[at]! - task.handsOnMin)
    }
    return handsOn > 0 ? Math.max(bound, partial.free + handsOn + least) : bound
  }

  /** Keeps a way to take a set of tasks, unless another is at least as early in all that matters later; drops those it beats. */
  #keep(layer: Map<number, Partial[]>, set: number, partial: Partial): void {
    const matters = this.tasks.flatMap((_, at) => (set & (1 << at) ? [at] : []))
    const noLater = (a: Partial, b: Partial) =>
      a.free <= b.free &&
      matters.every(
        (at) =>
          a.ends[at]! <= b.ends[at]! ||
          (a.ends[at]! <= a.free && this.#followers[at]!.every((next) => this.tasks[next]!.handsOnMin > 0))
      )
    const kept = layer.get(set) ?? []
    if (kept.some((candidate) => noLater(candidate, partial))) return
    layer.set(set, [...kept.filter((candidate) => !noLater(partial, candidate)), partial])
  }
}
