import { v7 as uuidv7 } from 'uuid'
import { Caller, draft, openAVisit } from './company'

/** What a batch that was taken came back with. */
export interface Acknowledged {
  visit: string
  id: string
  seq: number
  hash: string
}

const PAUSE_MS = 250
/** A call that has not been answered for so long is begun again. */
const PATIENCE_MS = 30_000

/**
 * Many people who write at once, each entry sent until it is taken: by whichever address answers, the same entry each time. What came
 * back is kept, to be held against what is stored.
 */
export class Burst {
  readonly acknowledged: Acknowledged[] = []
  /** How many calls came out how: a status, or the code of what broke off. */
  readonly outcomes = new Map<string, number>()
  readonly visits: string[] = []
  longestMs = 0
  #over = false
  #work: Promise<unknown> = Promise.resolve()

  /** @param addresses whichever are left out when one does not answer */
  constructor(
    private readonly addresses: readonly string[],
    private readonly clients: number,
    private readonly shared = 2
  ) {}

  /** Opens the visits, and begins: half of the clients write in visits of their own, half in those that are shared. */
  async begin(): Promise<void> {
    const isolde = await Caller.at(this.addresses[0]!, 'isolde')
    const both = Array.from({ length: this.shared }, () => openAVisit(isolde))
    const own = Array.from({ length: Math.ceil(this.clients / 2) }, () => openAVisit(isolde))
    const [sharedVisits, ownVisits] = [await Promise.all(both), await Promise.all(own)]
    this.visits.push(...sharedVisits, ...ownVisits)
    this.#work = Promise.all(
      Array.from({ length: this.clients }, (_, at) =>
        this.#client(isolde.cookie, at, at % 2 ? sharedVisits[at % this.shared]! : ownVisits[at >> 1]!)
      )
    )
  }

  /** Lets everybody finish what they are at. */
  async end(): Promise<void> {
    this.#over = true
    await this.#work
  }

  async #client(cookie: string, at: number, visit: string): Promise<void> {
    const [unit, outbox] = [uuidv7(), uuidv7()]
    const callers = this.addresses.map((address) => {
      const caller = new Caller(address)
      caller.cookie = cookie
      caller.outbox = outbox
      return caller
    })
    for (let written = 0; !this.#over; written++) {
      const entries = Array.from({ length: 1 + (written % 3) }, (_, of) =>
        of === 0 && written % 2
          ? draft(visit, 'unit.set', { id: unit, set: { place: `shelf ${at} ${written}` } })
          : draft(visit, 'note.written', { text: `client ${at}, ${written}, ${of}` })
      )
      const began = performance.now()
      for (let tries = 0; ; tries++) {
        if (await this.#sent(callers[(at + tries) % callers.length]!, visit, entries)) break
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
      }
      this.longestMs = Math.max(this.longestMs, performance.now() - began)
    }
  }

  async #sent(caller: Caller, visit: string, entries: readonly unknown[]): Promise<boolean> {
    try {
      const answer = caller.call<{ receipts: Omit<Acknowledged, 'visit'>[] }>('POST', `/visits/${visit}/entries`, {
        entries
      })
      const late = new Promise<never>((_, reject) => setTimeout(() => reject(new Error('late')), PATIENCE_MS).unref())
      const { status, body } = await Promise.race([answer, late])
      this.#count(String(status))
      if (status !== 200) {
        if (status < 500 && status !== 429) throw new Error(`an entry was refused: ${status} ${JSON.stringify(body)}`)
        return false
      }
      this.acknowledged.push(...body.receipts.map((receipt) => ({ ...receipt, visit })))
      return true
    } catch (error) {
      if (/was refused/.test((error as Error).message)) throw error
      const { code } = ((error as Error).cause ?? {}) as { code?: string }
      this.#count(code ?? (error as Error).message)
      return false
    }
  }

  #count(outcome: string): void {
    this.outcomes.set(outcome, (this.outcomes.get(outcome) ?? 0) + 1)
  }

  /** How calls came out since the last look, the commonest first; the longest that one batch took, s. */
  told(): string {
    const words = [...this.outcomes].sort((a, b) => b[1] - a[1]).map(([outcome, many]) => `${many} × ${outcome}`)
    const longest = (this.longestMs / 1000).toFixed(1)
    this.outcomes.clear()
    this.longestMs = 0
    return `${words.join(', ')}; longest ${longest} s`
  }
}
