import { get as readKept, set as keep } from 'idb-keyval'
import { v7 as uuidv7 } from 'uuid'
import { create } from 'zustand'
import { catalogueOf, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import type { Body, Draft, Entry, EntryKind, Placed } from '@pasado/core/record/entry'
import type { VisitRecord } from '@pasado/core/record/record'
import { apply, emptyRecord, reduce } from '@pasado/core/record/reduce'
import { evaluate, type Finding } from '@pasado/core/standard/evaluate'
import { firstStandard, type Standard } from '@pasado/core/standard/standard'
import { ApiProblem, ask } from '../app/api'
import { localTime } from '../app/local-time'
import { deviceId, useSession } from '../app/session'
import { openBox, sendBox } from './device-box'
import { fetchVisit, loadVisit, takeVisit, type Loaded } from './load'
import { inverseOf } from './undo'

/** Whether what was written is on the server: all of it, on its way, or kept here until the server is back. */
export type Saving = 'saved' | 'saving' | 'not saved yet'

interface Refused {
  draft: Draft
  words: string
}

interface VisitState {
  id: string | null
  entries: Entry[]
  /** The record by what the server has confirmed, and by that and what is still on its way. */
  confirmed: VisitRecord
  record: VisitRecord
  findings: Finding[]
  standard: Standard
  catalogue: Catalogue
  /** The models of the visit, in the versions it names. */
  models: Model[]
  /** Since when nobody has heard of the server: when what is shown was taken along; null where it is what the server has. */
  asOf: number | null
  pending: Draft[]
  saving: Saving
  refused: Refused[]
  undoable: { kind: EntryKind; body: unknown }[]
  problem: string | null
}

/** The visit that is open. What is written is shown at once, kept on the device, and sent until the server has it. */
export const useVisit = create<VisitState>(() => ({ ...nothing() }))

function nothing(): VisitState {
  return {
    id: null, entries: [], confirmed: emptyRecord, record: emptyRecord, findings: [], standard: firstStandard, catalogue: new Map(), models: [], asOf: null,
    pending: [], saving: 'saved', refused: [], undoable: [], problem: null
  }
}

const RETRY_MS = 2_000
const MOST_AT_ONCE = 200
const TAKE_MS = 3_000
const queueKey = (visit: string) => `pasado-queue-${visit}`
let events: EventSource | null = null
let sending: Promise<void> | null = null
let retry: ReturnType<typeof setTimeout> | undefined
let taking: ReturnType<typeof setTimeout> | undefined

/** Opens a visit: its logbook, then news as they come. What this device still holds of it is sent. */
export async function openVisit(id: string): Promise<void> {
  closeVisit()
  useVisit.setState({ ...nothing(), id })
  try {
    const loaded = await loadVisit(id)
    if (useVisit.getState().id !== id) return
    await show(id, loaded)
    if (useVisit.getState().id !== id) return
    listen(id)
    if (useVisit.getState().pending.length) void send()
    void openBox()
  } catch (error) {
    if (useVisit.getState().id !== id) return
    useVisit.setState({ problem: error instanceof ApiProblem ? error.document.title : 'The visit could not be opened.' })
    if (error instanceof ApiProblem && error.passing) retry = setTimeout(() => void openVisit(id), RETRY_MS)
  }
}

/** Leaves the visit; what is not sent yet stays on the device. */
export function closeVisit(): void {
  events?.close()
  events = null
  clearTimeout(retry)
  takeNow()
}

/** Shows what was loaded, with what this device still holds of the visit. */
async function show(id: string, { entries, standard, models, all, asOf }: Loaded): Promise<void> {
  const kept = (await readKept<Draft[]>(queueKey(id))) ?? []
  const { id: now, pending, confirmed, entries: shown } = useVisit.getState()
  if (now !== id) return
  // What was sent while this was on its way is known here already.
  const known = confirmed.lastSeq > (entries.at(-1)?.seq ?? 0) ? shown : entries
  const written = new Set([...known.map((one) => one.id), ...pending.map((one) => one.id)])
  const waiting = [...kept.filter((draft) => !written.has(draft.id)), ...pending.filter((draft) => !known.some((one) => one.id === draft.id))]
  useVisit.setState({ entries: known, confirmed: reduce(known as Placed[]), standard, models, catalogue: catalogueOf([...all, ...models]), pending: waiting, asOf, problem: null })
  reckon()
}

/** What was shown as it was taken along is shown as the server has it, once it can be asked. */
async function renew(id: string): Promise<void> {
  try {
    await show(id, await fetchVisit(id))
    await catchUp()
    if (useVisit.getState().pending.length) void send()
  } catch {
    // The stream comes back, and asks again.
  }
}

/** Takes the visit along as it stands. */
function takeNow(): void {
  if (taking === undefined) return
  clearTimeout(taking)
  taking = undefined
  const { id, entries, standard, models } = useVisit.getState()
  if (id && entries.length > 0) void takeVisit(id, { entries, standard, models })
}

/** Takes it along a moment after it changed: a whole visit is not written down at every stroke. */
function takeSoon(): void {
  clearTimeout(taking)
  taking = setTimeout(takeNow, TAKE_MS)
}

function listen(id: string): void {
  events = new EventSource(`/api/visits/${id}/events?after=${useVisit.getState().confirmed.lastSeq}`)
  events.addEventListener('entries', (event) => receive(JSON.parse(event.data as string) as Entry[]))
  // A lost stream comes back by itself; what was missed meanwhile is fetched then.
  events.addEventListener('open', () => void (useVisit.getState().asOf === null ? catchUp() : renew(id)))
  // One that was refused does not come back by itself: the session may have ended, or the server was starting.
  events.addEventListener('error', () => {
    if (events?.readyState !== EventSource.CLOSED) return
    void useSession.getState().look().catch(() => undefined)
    retry = setTimeout(() => { if (useVisit.getState().id === id) listen(id) }, RETRY_MS)
  })
}

/** Takes entries of the logbook in, in order and each once. */
export function receive(news: Entry[]): void {
  const { entries, confirmed, pending, id } = useVisit.getState()
  const fresh = news.filter((one) => one.seq > confirmed.lastSeq).sort((a, b) => a.seq - b.seq)
  if (fresh.length === 0 || id === null) return
  if (fresh[0]!.seq !== confirmed.lastSeq + 1) {
    void catchUp()
    return
  }
  // Another version of the standard judges otherwise: it is fetched with everything else.
  if (fresh.some(({ kind }) => kind === 'standard.moved')) { void openVisit(id); return }
  const known = new Set(fresh.map((one) => one.id))
  const left = pending.filter((draft) => !known.has(draft.id))
  useVisit.setState({ entries: [...entries, ...fresh], confirmed: reduce(fresh as Placed[], confirmed), pending: left })
  takeSoon()
  if (left.length !== pending.length) void keep(queueKey(id), left)
  reckon()
}

async function catchUp(): Promise<void> {
  const { id, confirmed } = useVisit.getState()
  if (!id) return
  try {
    const { entries } = await ask<{ entries: Entry[] }>('GET', `/visits/${id}/entries?after=${confirmed.lastSeq}`)
    if (useVisit.getState().id === id) receive(entries)
  } catch {
    // The stream or the next sending asks again.
  }
}

/** Shows the record with what is still on its way, and judges it. */
function reckon(): void {
  const { confirmed, pending, catalogue, standard, saving } = useVisit.getState()
  const me = useSession.getState().me
  let record = confirmed
  for (const draft of pending) {
    record = apply(record, { ...draft, by: { id: me?.id ?? '', name: me?.name ?? '', role: me?.role ?? 'technician' }, seq: record.lastSeq + 1, received: draft.at } as Placed)
  }
  useVisit.setState({ record, findings: evaluate(record, catalogue, standard), saving: pending.length === 0 ? 'saved' : saving === 'saved' ? 'saving' : saving })
}

/** Writes an entry: shown at once, kept on the device, sent as soon as the server can be reached. */
export function write<K extends EntryKind>(kind: K, body: Body<K>, options: { undoing?: boolean } = {}): void {
  const { id, confirmed, record, pending, undoable } = useVisit.getState()
  if (!id) return
  const inverse = options.undoing ? null : inverseOf(kind, body, record)
  const draft = { id: uuidv7(), visit: id, at: localTime(new Date()), from: deviceId(), base: confirmed.lastSeq, kind, body } as Draft
  const queue = [...pending, draft]
  useVisit.setState({ pending: queue, undoable: inverse ? [...undoable.slice(-49), inverse] : undoable })
  reckon()
  void keep(queueKey(id), queue)
  void send()
}

/** Takes the last change made here back, by writing its opposite. Says whether there was one. */
export function undo(): boolean {
  const { undoable } = useVisit.getState()
  const last = undoable.at(-1)
  if (!last) return false
  useVisit.setState({ undoable: undoable.slice(0, -1) })
  write(last.kind, last.body as never, { undoing: true })
  return true
}

/** Sends what waits, one sending at a time, in order, again and again until the server has it. */
export function send(): Promise<void> {
  clearTimeout(retry)
  sending ??= sendAll().finally(() => { sending = null })
  return sending
}

async function sendAll(): Promise<void> {
  for (;;) {
    const { id, pending } = useVisit.getState()
    if (!id || pending.length === 0) return
    const batch = pending.slice(0, MOST_AT_ONCE)
    try {
      await ask('POST', `/visits/${id}/entries`, { entries: batch })
      await catchUp()
      if (useVisit.getState().pending[0]?.id === batch[0]!.id) throw new ApiProblem({ type: 'away', title: 'The logbook could not be read back.', status: 0 })
      useVisit.setState({ saving: 'saving' })
      reckon()
      void sendBox()
    } catch (error) {
      if (useVisit.getState().id !== id) return
      if (!(error instanceof ApiProblem) || error.passing || error.status === 401) {
        useVisit.setState({ saving: 'not saved yet' })
        retry = setTimeout(() => void send(), RETRY_MS)
        if (error instanceof ApiProblem && error.status === 401) void useSession.getState().look().catch(() => undefined)
        return
      }
      if (batch.length > 1) await sendOneByOne(id, batch)
      else setAside(batch[0]!, error)
    }
  }
}

/** A batch with an entry that is refused goes entry by entry, so that the others are not held up. */
async function sendOneByOne(id: string, batch: Draft[]): Promise<void> {
  for (const draft of batch) {
    try {
      await ask('POST', `/visits/${id}/entries`, { entries: [draft] })
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.passing) return
      setAside(draft, error)
    }
  }
  await catchUp()
}

/** Takes a refused entry out of the queue and shows why, with what it held: nothing typed is lost. */
function setAside(draft: Draft, error: ApiProblem): void {
  const { id, pending, refused } = useVisit.getState()
  const left = pending.filter((one) => one.id !== draft.id)
  useVisit.setState({ pending: left, refused: [...refused, { draft, words: error.words }] })
  if (id) void keep(queueKey(id), left)
  reckon()
}

/** Puts a refused entry away after the person has read why. */
export function dropRefused(id: string): void {
  useVisit.setState({ refused: useVisit.getState().refused.filter(({ draft }) => draft.id !== id) })
}
