import { v7 as uuidv7 } from 'uuid'
import { ApiProblem, ask, sendPhoto } from '../app/api'
import { useSession } from '../app/session'
import { attempt, giveUpAttempts, type Attempt } from './attempt'
import { tellAsClosed, tellNothingWaits } from './heard'
import { contentsOf } from './rows'
import {
  noteStuck,
  onSomethingToSend,
  toldOf,
  outboxReady,
  refuse,
  takeOut,
  useOutbox,
  waits,
  type OutboxRow
} from './outbox'

/** After how long what could not be sent is tried again. */
export const pace = { retryMs: 2_000 }
const MOST_AT_ONCE = 200
let sending: Promise<void> | null = null
/** Whether the company is still to be told that nothing waits here: after a start, and after having been away. */
let owesWord = true
let again: ReturnType<typeof setTimeout> | undefined

/** Begins to send by itself, from whatever view: whenever something is put in, when there is a connection again, and now and then. */
export async function keepSending(): Promise<void> {
  await outboxReady()
  onSomethingToSend(() => void sendNow())
  globalThis.addEventListener?.('pagehide', tellAsClosed)
  globalThis.addEventListener?.('online', () => {
    owesWord = true
    // What is under way was begun on a connection that may be gone.
    giveUpAttempts()
    void (sending ?? Promise.resolve()).then(sendNow)
  })
  void sendNow()
}

/** Sends what waits of who is here, of every visit and in order, until the server has it. */
export function sendNow(): Promise<void> {
  clearTimeout(again)
  sending ??= alone(sendAll)
    .catch((): Ended => 'later')
    .then((ended) => {
      sending = null
      const { rows, owner } = useOutbox.getState()
      if (!rows.some((row) => waits(row, owner))) {
        if (owesWord && ended === 'empty' && owner) {
          owesWord = false
          tellNothingWaits()
        }
        return
      }
      // Written just as the last one went.
      if (ended === 'empty') return sendNow()
      again = setTimeout(() => void sendNow(), pace.retryMs)
    })
  return sending
}

/** How a sending ended: nothing was left, or it is to be tried again later. */
type Ended = 'empty' | 'later'

/** One tab sends at a time, where the browser has a way to agree on it; the server takes each once in any case. */
async function alone(work: () => Promise<Ended>): Promise<Ended> {
  const { owner } = useOutbox.getState()
  if (!owner || typeof navigator === 'undefined' || !navigator.locks) return work()
  return navigator.locks.request(`pasado-outbox ${owner.id}`, { ifAvailable: true }, (lock): Promise<Ended> =>
    lock ? work() : Promise.resolve('later')
  )
}

async function sendAll(): Promise<Ended> {
  for (;;) {
    const { rows, owner } = useOutbox.getState()
    const { me, unasked } = useSession.getState()
    const mine = rows.filter((row) => waits(row, owner))
    if (mine.length === 0) {
      noteStuck(false)
      return 'empty'
    }
    // In nobody else's name: who is here has to be known to be who wrote it.
    if (!me || me.id !== owner?.id) return 'later'
    if (unasked) {
      await useSession
        .getState()
        .look()
        .catch(() => undefined)
      if (useSession.getState().unasked) {
        noteStuck(true)
        return 'later'
      }
    }
    if (!(await sendNext(mine))) {
      owesWord = true
      noteStuck(true)
      return 'later'
    }
    noteStuck(false)
  }
}

/** Sends the first row, with the lines of the same visit that follow it. @returns whether to go on at once */
async function sendNext(rows: readonly OutboxRow[]): Promise<boolean> {
  const first = rows[0]!
  const end = rows.findIndex((row, at) => at > 0 && (row.item.kind !== 'line' || row.visit !== first.visit))
  const batch =
    first.item.kind === 'line' ? rows.slice(0, Math.min(end < 0 ? rows.length : end, MOST_AT_ONCE)) : [first]
  try {
    await inOneAttempt((now) =>
      first.item.kind === 'line' ? sendLines(first.visit, batch, now) : sendContents(first, now)
    )
    return true
  } catch (error) {
    const passes = !(error instanceof ApiProblem) || error.passing || error.status === 401 || isOfAnother(error)
    // Somebody else may have logged in meanwhile, in another tab for one.
    if (isOfAnother(error) || (error as ApiProblem).status === 401)
      await useSession
        .getState()
        .look()
        .catch(() => undefined)
    if (passes && !isForgoneOutbox(error, first)) return false
    if (isNotJoined(error) && isOfBefore(first)) return joinFor(first)
    // A batch with a line that is refused goes line by line, so that the others are not held up.
    if (batch.length > 1) return sendOneByOne(first.visit, batch)
    refuse(first.key, (error as ApiProblem).words)
    return true
  }
}

async function inOneAttempt(work: (now: Attempt) => Promise<unknown>): Promise<void> {
  const now = attempt()
  try {
    await work(now)
  } finally {
    now.end()
  }
}

/** What stands under the id of an outbox that was another person's before it was written down whose it is will not go through. */
function isForgoneOutbox(error: unknown, row: OutboxRow): boolean {
  return isOfAnother(error) && row.outbox !== useOutbox.getState().id && useSession.getState().me?.id === row.owner?.id
}

const isOfAnother = (error: unknown) => error instanceof ApiProblem && /:outbox-of-another$/.test(error.document.type)

const isNotJoined = (error: unknown) => error instanceof ApiProblem && /:not-joined$/.test(error.document.type)

/** Whether it was written with a program that did not yet ask whoever works on another’s visit to join it. */
const isOfBefore = ({ item }: OutboxRow) => (item.kind === 'line' ? item.draft : item.look)?.own === undefined

/** Joins the visit of a row of before, so that what was written there then is not lost. @returns whether to go on at once */
async function joinFor(row: OutboxRow): Promise<boolean> {
  try {
    const joined = {
      id: uuidv7(),
      visit: row.visit,
      at: new Date().toISOString(),
      from: useOutbox.getState().id,
      base: 0,
      kind: 'visit.joined',
      body: { reason: 'Written on this device before joining was asked for.' }
    }
    await inOneAttempt(({ signal }) =>
      ask('POST /visits/:id/entries', { params: { id: row.visit }, body: { entries: [joined] }, signal })
    )
    return true
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.passing || error.status === 401) return false
    refuse(row.key, error.words)
    return true
  }
}

async function sendOneByOne(visit: string, batch: readonly OutboxRow[]): Promise<boolean> {
  for (const { key } of batch) {
    // As it stands now: one before it that was refused is not counted any more.
    const row = useOutbox.getState().rows.find((candidate) => candidate.key === key)
    if (!row) continue
    try {
      await inOneAttempt((now) => sendLines(visit, [row], now))
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.passing || error.status === 401) return false
      refuse(key, error.words)
    }
  }
  return true
}

async function sendLines(visit: string, batch: readonly OutboxRow[], { signal, moved }: Attempt): Promise<void> {
  const entries = batch.flatMap(({ item }) => (item.kind === 'line' ? [item.draft] : []))
  await ask('POST /visits/:id/entries', { params: { id: visit }, body: { entries }, signal })
  moved()
  // Not forgotten here before it is seen there: the logbook is read back.
  const stored =
    (await toldOf(visit)) ??
    new Set(
      (
        await ask('GET /visits/:id/entries', {
          params: { id: visit },
          query: { after: Math.min(...entries.map(({ base }) => base)) },
          signal
        })
      ).entries.map(({ id }) => id)
    )
  const arrived = batch.filter(({ item }) => item.kind === 'line' && stored.has(item.draft.id))
  takeOut(arrived.map(({ key }) => key))
  if (arrived.length < batch.length)
    throw new ApiProblem({ type: 'away', title: 'The logbook could not be read back.', status: 0 })
}

async function sendContents({ key, visit, outbox, item }: OutboxRow, { signal, moved }: Attempt): Promise<void> {
  if (item.kind === 'line') return
  const contents = await contentsOf(key)
  if (!contents) {
    refuse(key, 'What it held is no longer on this device: the browser has put it away. Take it or type it again.')
    return
  }
  const from = outbox || useOutbox.getState().id
  const progress = (share: number) => {
    moved()
    useOutbox.setState(({ progress: known }) => ({ progress: { ...known, [item.ref]: share } }))
  }
  progress(0)
  try {
    if (item.kind === 'secret')
      await ask('POST /visits/:id/secrets', {
        params: { id: visit },
        body: {
          ref: item.ref,
          ...item.body,
          value: new TextDecoder().decode(contents),
          outbox: { from, ...item.look }
        },
        signal
      })
    else await sendPhoto(visit, formOf(item, contents, { from, ...item.look }), signal, progress)
    await toldOf(visit)
    takeOut([key])
  } finally {
    useOutbox.setState(({ progress: { [item.ref]: _, ...rest } }) => ({ progress: rest }))
  }
}

function formOf(
  { ref, fields }: Extract<OutboxRow['item'], { kind: 'photo' }>,
  contents: Uint8Array<ArrayBuffer>,
  outbox: object
): FormData {
  const form = new FormData()
  for (const [name, value] of Object.entries({ ref, ...fields, outbox: JSON.stringify(outbox) }))
    if (value !== undefined) form.append(name, value)
  form.append('photo', new Blob([contents], { type: 'image/jpeg' }), 'photo.jpg')
  return form
}
