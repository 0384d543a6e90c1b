import { busy } from '../problem'

/**
 * Does heavy reads sparingly: few at a time, so that they never hold every connection, and one for all who ask the same meanwhile.
 */
export class Sparing {
  readonly #asked = new Map<string, Promise<unknown>>()
  readonly #waiting: (() => void)[] = []
  #running = 0

  constructor(
    private readonly atOnce = 2,
    private readonly mostWaiting = 30
  ) {}

  /**
   * The answer to a question; shared with whoever asks it while it is being found.
   * @throws DomainProblem where too many wait already
   */
  ask<T>(question: string, find: () => Promise<T>): Promise<T> {
    const known = this.#asked.get(question)
    if (known) return known as Promise<T>
    if (this.#waiting.length >= this.mostWaiting)
      return Promise.reject(busy('Too many figures are being counted just now; ask again.'))
    const answer = this.#inTurn(find).finally(() => this.#asked.delete(question))
    this.#asked.set(question, answer)
    return answer
  }

  async #inTurn<T>(find: () => Promise<T>): Promise<T> {
    if (this.#running >= this.atOnce) await new Promise<void>((resolve) => this.#waiting.push(resolve))
    this.#running++
    try {
      return await find()
    } finally {
      this.#running--
      this.#waiting.shift()?.()
    }
  }
}
