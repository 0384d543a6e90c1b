import { catalogueOf } from '@pasado/core/catalogue/model'
import type { Entry } from '@pasado/core/record/entry'
import { fold } from '@pasado/core/history/fold'
import { ApiProblem, ask, failureTitle } from '../../app/api'
import { useSession } from '../../app/session'
import { noteOpen } from '../../outbox/heard'
import { onLinesSent, outboxReady, useOutbox } from '../../outbox/outbox'
import { attempt } from '../../outbox/attempt'
import { sendNow } from '../../outbox/send'
import { fetchVisit, loadVisit, takeVisit, type Loaded } from './load'
import { followOutbox, recompute } from './record-now'
import { nothing, useVisit } from './visit-state'

const RETRY_MS = 2_000
const TAKE_MS = 3_000
/** The stream beats every 20 s: one that is as silent as this is dead, though nobody said so. */
const SILENT_MS = 50_000

type Later = 'open' | 'listen' | 'take' | 'catch up' | 'silent'

/**
 * One open visit: its stream of news, its part of the outbox, and the timers of all that is tried again. Whatever it began ends
 * with it: an answer that comes later changes nothing.
 */
class VisitSession {
  #over = false
  #events: EventSource | null = null
  /** Each thing that is tried again has a timer of its own: one must not end another. */
  readonly #timers = new Map<Later, ReturnType<typeof setTimeout>>()
  readonly #ends: (() => void)[] = []

  constructor(readonly id: string) {
    useVisit.setState({ ...nothing(), id })
    this.#ends.push(
      followOutbox(),
      onLinesSent(async (visit) => {
        if (visit !== this.id || useVisit.getState().entries.length === 0) return null
        await this.#catchUp()
        return this.#over ? null : new Set(useVisit.getState().entries.map(({ id }) => id))
      })
    )
    const online = () => this.#events && this.#listen()
    globalThis.addEventListener?.('online', online)
    this.#ends.push(noteOpen(id))
    this.#ends.push(() => globalThis.removeEventListener?.('online', online))
  }

  /** Opens it: the logbook, then news as they come. Where there is no connection it is tried again. */
  async begin(): Promise<void> {
    try {
      const [loaded] = await Promise.all([loadVisit(this.id), outboxReady()])
      if (this.#over) return
      await this.#show(loaded)
      if (this.#over) return
      this.#listen()
      void sendNow()
    } catch (error) {
      if (this.#over) return
      useVisit.setState({ problem: failureTitle(error, 'The visit could not be opened.') })
      if (error instanceof ApiProblem && error.passing) this.#later('open', RETRY_MS, () => void this.begin())
    }
  }

  /** Leaves it; what is not sent yet stays on the device, and is sent from there. */
  end(): void {
    if (this.#timers.has('take')) this.#takeAlong()
    this.#over = true
    this.#events?.close()
    for (const timer of this.#timers.values()) clearTimeout(timer)
    for (const end of this.#ends) end()
  }

  /** Does something a while from now, in place of what was to be done so before. */
  #later(what: Later, ms: number, work: () => void): void {
    clearTimeout(this.#timers.get(what))
    const timer = setTimeout(() => {
      this.#timers.delete(what)
      work()
    }, ms)
    this.#timers.set(what, timer)
  }

  /** Shows what was loaded, with what this device still holds of the visit. */
  async #show(loaded: Loaded): Promise<void> {
    if (this.#over) return
    const { entries, standard, models, all, asOf, verdicts = null, foreign = null, broken = null } = loaded
    const { confirmed: before, entries: shown } = useVisit.getState()
    // What was sent while this was on its way is known here already.
    const known = before.record.lastSeq > (entries.at(-1)?.seq ?? 0) ? shown : entries
    useVisit.setState({
      entries: known,
      confirmed: fold(known),
      standard,
      models,
      catalogue: catalogueOf([...all, ...models]),
      asOf,
      verdicts,
      foreign,
      broken,
      problem: null
    })
    await recompute()
  }

  /** What was shown as it was taken along is shown as the server has it, once it can be asked. */
  async #renew(): Promise<void> {
    try {
      await this.#show(await fetchVisit(this.id))
      await this.#catchUp()
      void sendNow()
    } catch {
      // The stream comes back, and asks again.
    }
  }

  /** Hears of news from now on, in place of a stream that may be dead. */
  #listen(): void {
    this.#events?.close()
    const { id: outbox } = useOutbox.getState()
    // With its outbox: the company knows then that this device has the visit, and may hold something of it.
    const events = new EventSource(
      `/api/visits/${this.id}/events?after=${useVisit.getState().confirmed.record.lastSeq}${outbox && `&outbox=${outbox}`}`
    )
    this.#events = events
    const heard = () => this.#later('silent', SILENT_MS, () => this.#listen())
    heard()
    events.addEventListener('beat', heard)
    events.addEventListener('entries', (event) => {
      heard()
      this.#receive(JSON.parse(event.data as string) as Entry[])
    })
    // A lost stream comes back by itself; what was missed meanwhile is fetched then.
    events.addEventListener('open', () => {
      heard()
      void (useVisit.getState().asOf === null ? this.#catchUp() : this.#renew())
    })
    // One that was refused does not come back by itself: the session may have ended, or the server was starting.
    events.addEventListener('error', () => {
      if (this.#over || events.readyState !== EventSource.CLOSED) return
      void useSession
        .getState()
        .look()
        .catch(() => undefined)
      this.#later('listen', RETRY_MS, () => this.#listen())
    })
  }

  /** Takes entries of the logbook in, in order and each once. */
  #receive(news: Entry[]): void {
    if (this.#over) return
    const { entries, confirmed } = useVisit.getState()
    const fresh = news.filter((entry) => entry.seq > confirmed.record.lastSeq).sort((a, b) => a.seq - b.seq)
    if (fresh.length === 0) return
    if (fresh[0]!.seq !== confirmed.record.lastSeq + 1) {
      void this.#catchUp()
      return
    }
    // Another version of the standard judges otherwise: it is fetched with everything else.
    if (fresh.some(({ kind }) => kind === 'standard.moved')) {
      void openVisit(this.id)
      return
    }
    useVisit.setState({ entries: [...entries, ...fresh], confirmed: fold(fresh, confirmed) })
    // A moment after it changed: a whole visit is not written down at every stroke.
    this.#later('take', TAKE_MS, () => this.#takeAlong())
    void recompute()
    // What the rules said when it was sealed is the server's to say.
    if (fresh.some(({ kind }) => kind === 'sealed')) void this.#renew()
  }

  async #catchUp(): Promise<void> {
    const { lastSeq } = useVisit.getState().confirmed.record
    const { signal, end } = attempt()
    try {
      const { entries } = await ask('GET /visits/:id/entries', {
        params: { id: this.id },
        query: { after: lastSeq },
        signal
      })
      this.#receive(entries)
    } catch {
      if (!this.#over) this.#later('catch up', RETRY_MS, () => void this.#catchUp())
    } finally {
      end()
    }
  }

  /** Takes the visit along as it stands. */
  #takeAlong(): void {
    const { entries, standard, models, verdicts, foreign, broken } = useVisit.getState()
    if (entries.length > 0) void takeVisit(this.id, { entries, standard, models, verdicts, foreign, broken })
  }
}

let session: VisitSession | null = null

/** Opens a visit, in place of the one that was open. What this device still holds of it is sent, as all it holds. */
export async function openVisit(id: string): Promise<void> {
  closeVisit()
  session = new VisitSession(id)
  await session.begin()
}

/** Leaves the open visit. */
export function closeVisit(): void {
  session?.end()
  session = null
}
