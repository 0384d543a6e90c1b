import { countSealed } from '../db/figures'
import type { Db } from '../db/pool'
import { countStanding } from '../db/standing'
import { allToJudge } from '../db/visits'

/** A visit that is written in is judged so long after, ms: what is written in a row is judged once. */
const AFTER_MS = 250
/** So often it is looked for visits that another process was to judge, and did not, ms. */
const SWEEP_MS = 5_000
const MOST_A_SWEEP = 100
/** So often a sweep counts fifty sealed visits, and fifty homes, at most: after an upgrade there are many. */
const MOST_COUNTS = 40
/** What stands at homes is counted so long after a visit there was written in, ms. */
const COUNT_AFTER_MS = 1_000

/**
 * Asks the rules of what was written in open visits, after the write: what they say is listed to find visits by, and guards no write.
 * That a visit is to be judged stands in the database with the write itself: what one process left is done by another.
 */
export class FollowUp {
  readonly #waiting = new Set<string>()
  #timer: NodeJS.Timeout | null = null
  #countTimer: NodeJS.Timeout | null = null
  #busy: Promise<void> | null = null
  readonly #sweep: NodeJS.Timeout
  #over = false

  /**
   * @param judge asks the rules of a visit and lists what they say; says whether it is sealed
   * @param onError is told where a visit could not be judged; it is tried again with the next sweep
   */
  constructor(
    private readonly db: Db,
    private readonly judge: (visit: string) => Promise<boolean>,
    private readonly onError: (error: unknown) => void
  ) {
    this.#sweep = setInterval(() => void this.sweep(), SWEEP_MS).unref()
    this.#countSoon()
  }

  /** Notes that a visit was written in. */
  note(visit: string): void {
    if (this.#over) return
    this.#waiting.add(visit)
    this.#timer ??= setTimeout(() => void this.#work(), AFTER_MS)
  }

  /** Waits until what was noted before is listed, for so long at most. */
  async caughtUp(mostMs: number): Promise<void> {
    if (this.#waiting.size === 0 && !this.#busy) return
    let timer: NodeJS.Timeout | undefined
    const late = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, mostMs)
    })
    await Promise.race([this.#work(), late])
    clearTimeout(timer)
  }

  /** Notes what another process left. */
  async sweep(): Promise<void> {
    try {
      for (const visit of await allToJudge(this.db, MOST_A_SWEEP)) this.note(visit)
      await this.#count(countSealed, MOST_COUNTS)
      await this.#count(countStanding, MOST_COUNTS)
    } catch (error) {
      if (!this.#over) this.onError(error)
    }
  }

  /** Ends, with what was noted judged as far as it can be. */
  async close(): Promise<void> {
    clearInterval(this.#sweep)
    await this.#work()
    this.#over = true
    if (this.#timer) clearTimeout(this.#timer)
    if (this.#countTimer) clearTimeout(this.#countTimer)
  }

  /** Judges what waits, one after another; who asks meanwhile waits for what waits by then. */
  async #work(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer)
    this.#timer = null
    while (this.#busy) await this.#busy
    const visits = [...this.#waiting]
    if (visits.length === 0) return
    this.#waiting.clear()
    this.#busy = this.#judgeAll(visits).finally(() => {
      this.#busy = null
    })
    await this.#busy
  }

  async #judgeAll(visits: readonly string[]): Promise<void> {
    let isSealed = false
    for (const visit of visits)
      try {
        isSealed = (await this.judge(visit)) || isSealed
      } catch (error) {
        if (!this.#over) this.onError(error)
      }
    if (isSealed) await this.#count(countSealed, 1)
    this.#countSoon()
  }

  /** Has what stands at homes counted a moment later: what is written meanwhile is counted with it. */
  #countSoon(): void {
    if (this.#over) return
    this.#countTimer ??= setTimeout(() => {
      this.#countTimer = null
      void this.#count(countStanding, MOST_COUNTS)
    }, COUNT_AFTER_MS).unref()
  }

  /** Brings figures up to date, some at a time. @param count says whether there may be more */
  async #count(count: (db: Db) => Promise<boolean>, mostTimes: number): Promise<void> {
    try {
      for (let times = 0; times < mostTimes && !this.#over; times++) if (!(await count(this.db))) return
    } catch (error) {
      if (!this.#over) this.onError(error)
    }
  }
}
