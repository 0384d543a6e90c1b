import { create } from 'zustand'
import type { Draft } from '@pasado/core/record/entry'
import { useSession } from '../app/session'
import { adopted } from './adopt'
import {
  dropRow,
  holdContents,
  jotDown,
  keepRow,
  outboxIdOf,
  readRows,
  writeDownJotted,
  type Look,
  type OutboxItem,
  type OutboxRow,
  type Owner
} from './rows'

export type { Look, OutboxItem, OutboxRow } from './rows'

interface OutboxState {
  /** Who is writing here, and the id the server knows their outbox by. */
  owner: Owner | null
  id: string
  /** Everything on this device that the server does not have, of every person, in the order it is sent. */
  rows: readonly OutboxRow[]
  /** Rows that are not written down yet: they last as long as this page. */
  unwritten: ReadonlySet<string>
  /** How far a secret or photo is that is just being sent, by its reference, from 0 to 1. */
  progress: Readonly<Record<string, number>>
  /** Since when nothing could be sent, for whatever reason that passes; null while all goes well. */
  stuckSince: number | null
  /** False where the browser keeps nothing: what is written lasts as long as this page. */
  keeps: boolean
}

/** What is written on this device and not on the server yet: one outbox a person, the same for all tabs and after a restart. */
export const useOutbox = create<OutboxState>(() => ({
  owner: null,
  id: '',
  rows: [],
  unwritten: new Set(),
  progress: {},
  stuckSince: null,
  keeps: true
}))

/** What tabs tell each other: that rows changed, or since when nothing can be sent. */
type Heard = 'changed' | { stuckSince: number | null }

let begun: Promise<void> | null = null
let channel: BroadcastChannel | null = null
/** Writing down goes one after another, in the order it was asked for. */
let writing: Promise<unknown> = Promise.resolve()
const listeners = new Set<() => void>()
const isUnwritten = (key: string): boolean => useOutbox.getState().unwritten.has(key)
const noteWritten = (key: string): void =>
  useOutbox.setState(({ unwritten }) => ({ unwritten: new Set([...unwritten].filter((other) => other !== key)) }))
/** Rows that are not taken off the device yet. */
const going = new Set<string>()
/** Rows that a page which is left now does not lose, though they are not written down yet. */
const jotted = new Set<string>()
const unkept = () => [...useOutbox.getState().unwritten].some((key) => !jotted.has(key))

/** Tells somebody whenever there may be something to send. */
export function onSomethingToSend(listener: () => void): void {
  listeners.add(listener)
}

/** Told that something of a visit went to the server, before it leaves the outbox. Who shows the visit fetches the news, and says which lines are there now. */
type OnSent = (visit: string) => Promise<ReadonlySet<string> | null>
const onSent = new Set<OnSent>()
export function onLinesSent(listener: OnSent): () => void {
  onSent.add(listener)
  return () => onSent.delete(listener)
}

/** Tells that something of a visit went to the server. @returns which lines are there, where somebody looked */
export async function toldOf(visit: string): Promise<ReadonlySet<string> | null> {
  let known: ReadonlySet<string> | null = null
  for (const listener of onSent) known = (await listener(visit)) ?? known
  return known
}

const tell = () => {
  for (const listener of listeners) listener()
}

/** Waits until it is known who writes here, and into which outbox. */
export function outboxOwned(): Promise<void> {
  if (useOutbox.getState().owner) return Promise.resolve()
  return new Promise((resolve) => {
    const stop = useOutbox.subscribe(({ owner }) => {
      if (owner) {
        stop()
        resolve()
      }
    })
  })
}

/** Waits until it is known what this device holds, and for whom. */
export function outboxReady(): Promise<void> {
  return (begun ??= begin())
}

async function begin(): Promise<void> {
  await adopted()
  await writeDownJotted().catch(() => undefined)
  await reread()
  globalThis.addEventListener?.('beforeunload', (event) => {
    // A secret or photo is not sealed and written down in no time; whoever leaves in that moment is asked.
    if (unkept()) event.preventDefault()
  })
  channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('pasado-outbox')
  channel?.addEventListener('message', ({ data }: MessageEvent<Heard>) => {
    if (data === 'changed') void reread().then(tell)
    else useOutbox.setState(data)
  })
  let person: string | undefined
  const follow = async () => {
    const { me } = useSession.getState()
    if (me === undefined || me?.id === person) return
    // Until it is known which outbox is theirs, nobody writes into that of who was here before.
    useOutbox.setState({ owner: null, id: '' })
    person = me?.id
    if (!me) return
    const id = await outboxIdOf(me.id)
    if (useSession.getState().me?.id === me.id) useOutbox.setState({ owner: { id: me.id, name: me.name }, id })
    tell()
  }
  useSession.subscribe(() => void follow())
  if (useSession.getState().me === undefined)
    await useSession
      .getState()
      .look()
      .catch(() => undefined)
  await follow()
}

/** Reads what the device holds, as another tab may have left it. What this tab has not written down yet stays. */
async function reread(): Promise<void> {
  try {
    const kept = (await readRows()).filter(({ key }) => !going.has(key))
    const known = new Set(kept.map(({ key }) => key))
    // What another tab has sent is fetched before it leaves what is shown here.
    for (const visit of new Set(
      useOutbox.getState().rows.flatMap((row) => (known.has(row.key) || isUnwritten(row.key) ? [] : [row.visit]))
    ))
      await toldOf(visit)
    useOutbox.setState(({ rows }) => ({
      rows: [...kept, ...rows.filter(({ key }) => isUnwritten(key) && !known.has(key))].sort((a, b) =>
        a.key < b.key ? -1 : 1
      )
    }))
  } catch {
    useOutbox.setState({ keeps: false })
  }
}

function change(write: () => Promise<unknown>): void {
  writing = writing.then(write, write).then(
    () => channel?.postMessage('changed'),
    () => undefined
  )
}

let last = Date.now()

/** A place behind everything that is here. */
function nextKey(): string {
  last = Math.max(
    last + 1,
    Date.now(),
    ...useOutbox
      .getState()
      .rows.slice(-1)
      .map(({ key }) => Number(key.slice(4, 18)) + 1)
  )
  // Two tabs may have the same moment.
  return `row ${String(last).padStart(14, '0')} ${Math.random().toString(36).slice(2, 10)}`
}

/**
 * Puts something into the outbox of who is here: shown at once, kept on the device, sent as soon as there is a connection.
 * @param contents of a secret or photo; sealed on this device
 */
export function putIn(visit: string, street: string, item: OutboxItem, contents?: Uint8Array<ArrayBuffer>): OutboxRow {
  const { owner, id } = useOutbox.getState()
  const row: OutboxRow = {
    key: nextKey(),
    owner,
    outbox: item.kind === 'line' ? item.draft.from : id,
    visit,
    street,
    item,
    refused: null
  }
  useOutbox.setState(({ rows, unwritten }) => ({ rows: [...rows, row], unwritten: new Set([...unwritten, row.key]) }))
  if (contents) holdContents(row.key, contents)
  else if (jotDown(row)) jotted.add(row.key)
  change(async () => {
    if (await keepRow(row, contents)) noteWritten(row.key)
    else useOutbox.setState({ keeps: false })
  })
  tell()
  return row
}

/** Leaves the outbox as a tab that is closed does: it hears and tells nothing any more. */
export function leaveOutbox(): void {
  channel?.close()
  channel = null
  listeners.clear()
  useOutbox.setState({ owner: null, rows: [] })
}

/** Whether a row is of who is here and still waits. */
export const waits = (row: OutboxRow, owner: Owner | null): boolean =>
  row.refused === null && row.owner !== null && row.owner.id === owner?.id

/** Takes rows out that the server has. */
export function takeOut(keys: readonly string[]): void {
  const gone = new Set(keys)
  for (const key of keys) {
    going.add(key)
    noteWritten(key)
  }
  useOutbox.setState(({ rows }) => ({ rows: rows.filter(({ key }) => !gone.has(key)) }))
  change(async () => {
    for (const key of keys) {
      await dropRow(key)
      going.delete(key)
    }
  })
}

/**
 * Notes that the server did not take a row, and why; it stays until a person has dealt with it. Later lines of its visit counted it
 * among those before them: it is none now.
 */
export function refuse(key: string, why: string): void {
  const { rows } = useOutbox.getState()
  const refused = rows.find((row) => row.key === key)
  if (!refused) return
  const place = ownOf(refused)
  const changed = rows.map((row): OutboxRow => {
    if (row.key === key) return { ...row, refused: why }
    if (
      place === undefined ||
      row.visit !== refused.visit ||
      row.outbox !== refused.outbox ||
      row.key < key ||
      (ownOf(row) ?? 0) <= place
    )
      return row
    return withOwn(row, ownOf(row)! - 1)
  })
  useOutbox.setState({ rows: changed })
  change(async () => {
    for (const [at, row] of changed.entries()) if (row !== rows[at]) await keepRow(row)
  })
}

const ownOf = ({ item }: OutboxRow) => (item.kind === 'line' ? item.draft.own : item.look.own)

function withOwn(row: OutboxRow, own: number): OutboxRow {
  return {
    ...row,
    item:
      row.item.kind === 'line'
        ? { ...row.item, draft: { ...row.item.draft, own } as Draft }
        : { ...row.item, look: { ...row.item.look, own } }
  }
}

/** Puts a refused row away, after the person has read why. */
export function putRowAway(key: string): void {
  takeOut([key])
}

/** Notes whether what waits can be sent; told to the other tabs, of which one at a time sends. */
export function noteStuck(isStuck: boolean): void {
  const { stuckSince } = useOutbox.getState()
  if ((stuckSince !== null) === isStuck) return
  const now = { stuckSince: isStuck ? Date.now() : null }
  useOutbox.setState(now)
  channel?.postMessage(now)
}

/** Gives rows of which nobody wrote down whose they are to who is here. */
export function claimRows(): void {
  const { owner, rows } = useOutbox.getState()
  if (!owner) return
  const changed = rows.map((row) => (row.owner === null ? { ...row, owner } : row))
  useOutbox.setState({ rows: changed })
  change(async () => {
    for (const [at, row] of changed.entries()) if (row !== rows[at]) await keepRow(row)
  })
  tell()
}

/** What has been seen in a visit now: its last confirmed line, and this outbox's lines in it, sent or not. */
export function lookAt(
  visit: string,
  confirmed: { lastSeq: number },
  ownConfirmed: number,
  isKnown: (row: OutboxRow) => boolean
): Look {
  const { owner, rows } = useOutbox.getState()
  return {
    base: confirmed.lastSeq,
    own: ownConfirmed + rows.filter((row) => row.visit === visit && waits(row, owner) && !isKnown(row)).length
  }
}
