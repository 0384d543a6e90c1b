interface Due {
  at: number
  order: number
  unit: string
  then: () => void
  token: number
}

/** What comes by itself to units, each the one thing it waits for: a later one, or an interruption, takes the place of the one before. */
export class Timers {
  /** Seconds since it began. */
  now = 0
  readonly #due: Due[] = []
  readonly #tokens = new Map<string, number>()
  #order = 0

  /** Something that comes in so many seconds, unless the unit is interrupted before. */
  after(unit: string, seconds: number, then: () => void): void {
    this.interrupt(unit)
    const token = this.#tokens.get(unit)!
    this.#due.push({ at: this.now + seconds, order: ++this.#order, unit, then, token })
    this.#due.sort((a, b) => a.at - b.at || a.order - b.order)
  }

  interrupt(unit: string): void {
    this.#tokens.set(unit, (this.#tokens.get(unit) ?? 0) + 1)
  }

  #counts({ unit, token }: Due): boolean {
    return token === this.#tokens.get(unit)
  }

  /** Whether a unit waits for something. */
  isBusy(unit: string): boolean {
    return this.#due.some((candidate) => candidate.unit === unit && this.#counts(candidate))
  }

  /** When the next thing comes, in seconds; null where nothing does. */
  get nextAt(): number | null {
    return this.#due.find((candidate) => this.#counts(candidate))?.at ?? null
  }

  /** Lets time pass up to a second, all that comes meanwhile included; `before` is told of each. */
  advanceTo(second: number, before: () => void): void {
    for (let next = this.#due[0]; next && next.at <= second; next = this.#due[0]) {
      this.#due.shift()
      if (!this.#counts(next)) continue
      this.now = next.at
      before()
      next.then()
    }
    this.now = Math.max(this.now, second)
  }
}
