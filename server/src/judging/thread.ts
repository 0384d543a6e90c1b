import { askingThread } from '../threads/asking-thread'

/** What is asked: to judge a visit and list what the rules say; no visit has the thread make itself ready. */
export interface JudgeAsk {
  url: string
  visit: string | null
}

/** Whether the visit is sealed, which rules failed on its record, and what went wrong altogether. */
export interface JudgeAnswer {
  isSealed: boolean
  faults: { rule: string; problem: string }[]
  failed?: { name: string; code?: string }
}

/** Judges visits in a thread beside the one that serves, which reads them from the database by itself. */
export class JudgingThread {
  readonly #thread = askingThread<JudgeAsk, JudgeAnswer>(new URL('./worker.mjs', import.meta.url))

  /** @param onFault is told of rules that fail on a record */
  constructor(
    private readonly url: string,
    private readonly onFault: (rule: string, problem: string) => void
  ) {
    // To read the program takes it a second; whoever writes first waits for that otherwise.
    this.#thread.ask({ url, visit: null }).catch(() => undefined)
  }

  /**
   * Asks the rules of a visit that was written in, and lists what they say.
   * @returns whether it is sealed
   * @throws Error with the code of what went wrong in the thread
   */
  async judge(visit: string): Promise<boolean> {
    const { isSealed, faults, failed } = await this.#thread.ask({ url: this.url, visit })
    for (const { rule, problem } of faults) this.onFault(rule, problem)
    if (failed) throw Object.assign(new Error(`a visit could not be judged (${failed.name})`), failed)
    return isSealed
  }

  end(): Promise<void> {
    return this.#thread.end()
  }
}
