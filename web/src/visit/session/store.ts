import { v7 as uuidv7 } from 'uuid'
import { create } from 'zustand'
import { catalogueOf, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import type { ToldOfForeign } from '@pasado/core/documents/foreign'
import type { Draft, Entry, Placed } from '@pasado/core/record/entry'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import type { VisitRecord } from '@pasado/core/record/record'
import { apply, emptyRecord, reduce } from '@pasado/core/record/reduce'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import type { Standard } from '@pasado/core/policy/standard'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { ApiProblem, ask, failureTitle } from '../../app/api'
import { localTime } from '../../app/local-time'
import { useSession } from '../../app/session'
import {
  lookAt,
  onLinesSent,
  outboxOwned,
  outboxReady,
  putIn,
  useOutbox,
  waits,
  type Look,
  type OutboxRow
} from '../../outbox/outbox'
import { sendNow } from '../../outbox/send'
import { fetchVisit, loadVisit, takeVisit, type Loaded } from './load'
import { inverseOf } from '@pasado/core/record/inverse'

/** Whether what was written is on the server: all of it, on its way, or kept here until the server is back. */
export type Saving = 'saved' | 'saving' | 'not saved yet'

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
  /** What the rules said when it was sealed; null of an open visit. */
  verdicts: Finding[] | null
  /** That it came as a file; null of our own. */
  foreign: ToldOfForeign | null
  pending: Draft[]
  saving: Saving
  undoable: { kind: EntryKind; body: unknown }[]
  problem: string | null
}

/** The visit that is open. What is written is shown at once, kept on the device, and sent until the server has it. */
export const useVisit = create<VisitState>(() => ({ ...nothing() }))

function nothing(): VisitState {
  return {
    id: null,
    entries: [],
    confirmed: emptyRecord,
    record: emptyRecord,
    findings: [],
    standard: firstStandard,
    catalogue: new Map(),
    models: [],
    asOf: null,
    verdicts: null,
    foreign: null,
    pending: [],
    saving: 'saved',
    undoable: [],
    problem: null
  }
}

const RETRY_MS = 2_000
const TAKE_MS = 3_000
let events: EventSource | null = null
/** Each thing that is tried again has a timer of its own: one must not end another. */
let opening: ReturnType<typeof setTimeout> | undefined
let listening: ReturnType<typeof setTimeout> | undefined
let taking: ReturnType<typeof setTimeout> | undefined

/** Opens a visit: its logbook, then news as they come. What this device still holds of it is sent, as all it holds. */
export async function openVisit(id: string): Promise<void> {
  closeVisit()
  useVisit.setState({ ...nothing(), id })
  try {
    const [loaded] = await Promise.all([loadVisit(id), outboxReady()])
    if (useVisit.getState().id !== id) return
    show(id, loaded)
    listen(id)
    void sendNow()
  } catch (error) {
    if (useVisit.getState().id !== id) return
    useVisit.setState({
      problem: failureTitle(error, 'The visit could not be opened.')
    })
    if (error instanceof ApiProblem && error.passing) opening = setTimeout(() => void openVisit(id), RETRY_MS)
  }
}

/** Leaves the visit; what is not sent yet stays on the device, and is sent from there. */
export function closeVisit(): void {
  events?.close()
  events = null
  clearTimeout(opening)
  clearTimeout(listening)
  takeNow()
}

/** Shows what was loaded, with what this device still holds of the visit. */
function show(id: string, { entries, standard, models, all, asOf, verdicts = null, foreign = null }: Loaded): void {
  const { id: now, confirmed, entries: shown } = useVisit.getState()
  if (now !== id) return
  // What was sent while this was on its way is known here already.
  const known = confirmed.lastSeq > (entries.at(-1)?.seq ?? 0) ? shown : entries
  useVisit.setState({
    entries: known,
    confirmed: reduce(known as Placed[]),
    standard,
    models,
    catalogue: catalogueOf([...all, ...models]),
    asOf,
    verdicts,
    foreign,
    problem: null
  })
  reckon()
}

/** Whether the server has a row already, as far as is known here. */
function isKnown({ item }: OutboxRow): boolean {
  const { entries, confirmed } = useVisit.getState()
  if (item.kind === 'line') return entries.some(({ id }) => id === item.draft.id)
  return item.kind === 'secret'
    ? Object.hasOwn(confirmed.secrets, item.ref)
    : Object.hasOwn(confirmed.photos ?? {}, item.ref)
}

/** The lines of the open visit that wait on this device, in order. */
function waitingLines(): Draft[] {
  const { id } = useVisit.getState()
  const { rows, owner } = useOutbox.getState()
  return rows.flatMap((row) =>
    row.visit === id && row.item.kind === 'line' && waits(row, owner) && !isKnown(row) ? [row.item.draft] : []
  )
}

// Another tab may have written or sent something, and what is refused is shown no more.
useOutbox.subscribe(({ rows, owner, stuckSince }, before) => {
  if (rows === before.rows && owner === before.owner && stuckSince === before.stuckSince) return
  const { pending } = useVisit.getState()
  const waiting = waitingLines()
  // A line that leaves the outbox was taken in from the logbook before: the record is what it was, and is not judged again.
  if (waiting.length === pending.length && waiting.every(({ id }, at) => id === pending[at]!.id))
    useVisit.setState({ saving: savingOf(pending.length) })
  else reckon()
})
onLinesSent(async (visit) => {
  if (useVisit.getState().id !== visit || useVisit.getState().entries.length === 0) return null
  await catchUp()
  return new Set(useVisit.getState().entries.map(({ id }) => id))
})

/**
 * What has been seen of the open visit just now. Whoever looks at something and writes it down later takes it when they look: what
 * changes meanwhile they have not seen.
 */
export function takeLook(): Look {
  const { id, confirmed, entries } = useVisit.getState()
  const { id: outbox } = useOutbox.getState()
  return lookAt(id ?? '', confirmed, entries.filter(({ from }) => from === outbox).length, isKnown)
}

/** What was shown as it was taken along is shown as the server has it, once it can be asked. */
async function renew(id: string): Promise<void> {
  try {
    show(id, await fetchVisit(id))
    await catchUp()
    void sendNow()
  } catch {
    // The stream comes back, and asks again.
  }
}

/** Takes the visit along as it stands. */
function takeNow(): void {
  if (taking === undefined) return
  clearTimeout(taking)
  taking = undefined
  const { id, entries, standard, models, verdicts, foreign } = useVisit.getState()
  if (id && entries.length > 0) void takeVisit(id, { entries, standard, models, verdicts, foreign })
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
    void useSession
      .getState()
      .look()
      .catch(() => undefined)
    clearTimeout(listening)
    listening = setTimeout(() => {
      if (useVisit.getState().id === id) listen(id)
    }, RETRY_MS)
  })
}

/** Takes entries of the logbook in, in order and each once. */
export function receive(news: Entry[]): void {
  const { entries, confirmed, id } = useVisit.getState()
  const fresh = news.filter((one) => one.seq > confirmed.lastSeq).sort((a, b) => a.seq - b.seq)
  if (fresh.length === 0 || id === null) return
  if (fresh[0]!.seq !== confirmed.lastSeq + 1) {
    void catchUp()
    return
  }
  // Another version of the standard judges otherwise: it is fetched with everything else.
  if (fresh.some(({ kind }) => kind === 'standard.moved')) {
    void openVisit(id)
    return
  }
  useVisit.setState({ entries: [...entries, ...fresh], confirmed: reduce(fresh as Placed[], confirmed) })
  takeSoon()
  reckon()
  // What the rules said when it was sealed is the server's to say.
  if (fresh.some(({ kind }) => kind === 'sealed')) void renew(id)
}

async function catchUp(): Promise<void> {
  const { id, confirmed } = useVisit.getState()
  if (!id) return
  try {
    const { entries } = await ask('GET /visits/:id/entries', { params: { id }, query: { after: confirmed.lastSeq } })
    if (useVisit.getState().id === id) receive(entries)
  } catch {
    // The stream or the next sending asks again.
  }
}

/** Shows the record with what is still on its way, and judges it; of a sealed visit what was said then. */
function reckon(): void {
  const { id, confirmed, catalogue, standard, verdicts } = useVisit.getState()
  if (id === null || confirmed.lastSeq === 0) return
  const me = useSession.getState().me
  const pending = waitingLines()
  let record = confirmed
  for (const draft of pending) {
    record = apply(record, {
      ...draft,
      by: { id: me?.id ?? '', name: me?.name ?? '', role: me?.role ?? 'technician' },
      seq: record.lastSeq + 1,
      received: draft.at
    })
  }
  useVisit.setState({
    pending,
    record,
    findings: record.seal && verdicts ? verdicts : evaluate(record, catalogue, standard),
    saving: savingOf(pending.length)
  })
}

function savingOf(pending: number): Saving {
  if (pending === 0) return 'saved'
  return useOutbox.getState().stuckSince !== null ? 'not saved yet' : 'saving'
}

/**
 * Writes an entry: shown at once, kept on the device, sent as soon as the server can be reached.
 * @param options.look what had been seen when the look was taken that it tells of; left out: now
 */
export function write<K extends EntryKind>(
  kind: K,
  body: Body<K>,
  options: { undoing?: boolean; look?: Look } = {}
): void {
  const { id, record, undoable } = useVisit.getState()
  if (!id) return
  if (!useOutbox.getState().owner) {
    // For a moment after somebody logged in it is not known which outbox is theirs.
    void outboxOwned().then(() => {
      if (useVisit.getState().id === id) write(kind, body, options)
    })
    return
  }
  const inverse = options.undoing ? null : inverseOf(kind, body, record)
  const draft = {
    id: uuidv7(),
    visit: id,
    at: localTime(new Date()),
    from: useOutbox.getState().id,
    ...(options.look ?? takeLook()),
    kind,
    body
  } as Draft
  if (inverse) useVisit.setState({ undoable: [...undoable.slice(-49), inverse] })
  putIn(id, record.brief.facts.street ?? '', { kind: 'line', draft })
}

/** A secret that goes to the vault as soon as the server can be reached; until then it is sealed on this device. */
export function secretForVault(
  body: Extract<OutboxRow['item'], { kind: 'secret' }>['body'],
  value: string,
  look = takeLook()
): void {
  const { id, record } = useVisit.getState()
  if (id)
    putIn(
      id,
      record.brief.facts.street ?? '',
      { kind: 'secret', ref: uuidv7(), look, body },
      new TextEncoder().encode(value)
    )
}

/** A photo that is sent as soon as the server can be reached; until then it is sealed on this device. */
export async function photoForVisit(
  fields: Extract<OutboxRow['item'], { kind: 'photo' }>['fields'],
  photo: Blob,
  look = takeLook()
): Promise<void> {
  const { id, record } = useVisit.getState()
  const contents = new Uint8Array(await photo.arrayBuffer())
  if (id) putIn(id, record.brief.facts.street ?? '', { kind: 'photo', ref: uuidv7(), look, fields }, contents)
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
