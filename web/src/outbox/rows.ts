import type { SentTo } from '@pasado/core/api/all'
import { createStore, del, entries, get, set, update, type UseStore } from 'idb-keyval'
import type { Draft } from '@pasado/core/record/entry'

/** Whose an outbox is. */
export interface Owner {
  id: string
  name: string
}

/** What had been seen in a visit when a look was taken: the last line, and how many lines of this outbox there were, sent or not. */
export interface Look {
  base: number
  own?: number
}

/** What waits to be sent: a line of a logbook, a secret for the vault, or a photo. */
export type OutboxItem =
  | { kind: 'line'; draft: Draft }
  | {
      kind: 'secret'
      ref: string
      look: Look
      body: Omit<SentTo<'POST /visits/:id/secrets'>['body'], 'ref' | 'value' | 'outbox'>
    }
  | {
      kind: 'photo'
      ref: string
      look: Look
      fields: { thing: string; about: string; label: 'yes' | 'no'; caption?: string }
    }

/** One row of the outbox; the contents of a secret or photo stand beside it on the device, sealed. */
export interface OutboxRow {
  /** Rows are sent in the order of their keys. */
  key: string
  /** Null where an earlier version did not write down whose it is. */
  owner: Owner | null
  /** The id that the server knows the outbox by. */
  outbox: string
  visit: string
  /** What the visit is called by people, as far as it was known here. */
  street: string
  item: OutboxItem
  /** Why the server did not take it; null while it waits. */
  refused: string | null
}

interface Sealed {
  iv: Uint8Array<ArrayBuffer> | null
  data: ArrayBuffer
}

let rowStore: UseStore | null = null
let idStore: UseStore | null = null
let keyStore: UseStore | null = null
const store = () => (rowStore ??= createStore('pasado-outbox', 'rows'))
const ids = () => (idStore ??= createStore('pasado-outbox-ids', 'ids'))
const keys = () => (keyStore ??= createStore('pasado-box-key', 'key'))

/** Contents that are not written down yet, or cannot be as the browser has no cipher or keeps nothing: in memory until they are sent. */
const inMemory = new Map<string, Sealed>()

/** The key that contents are sealed with: made on this device, kept by the browser, given out to nobody, not even to us. */
async function sealingKey(): Promise<CryptoKey | null> {
  if (!globalThis.crypto?.subtle) return null
  const known = await get<CryptoKey>('key', keys())
  if (known) return known
  const made = await crypto.subtle.generateKey({ name: 'AES-GCM', length: 256 }, false, ['encrypt', 'decrypt'])
  await set('key', made, keys())
  return made
}

/**
 * A line is kept in the very moment it is written, before the store has answered: a page that is left in the same moment loses nothing.
 * Only lines: what a secret or photo holds may not lie about unsealed.
 */
const jotted = (key: string) => `pasado-jotted ${key}`

/** Keeps a line at once, until it is written down. @returns whether the device keeps it */
export function jotDown(row: OutboxRow): boolean {
  try {
    localStorage.setItem(jotted(row.key), JSON.stringify(row))
    return true
  } catch {
    return false
  }
}

function forgetJotted(key: string): void {
  try {
    localStorage.removeItem(jotted(key))
  } catch {
    /* Where the browser keeps nothing, nothing was jotted down. */
  }
}

/** Writes down what was jotted down as its page was left. */
export async function writeDownJotted(): Promise<void> {
  const left = Object.keys(globalThis.localStorage ?? {}).filter((key) => key.startsWith(jotted('')))
  for (const key of left) {
    const row = JSON.parse(localStorage.getItem(key) ?? 'null') as OutboxRow | null
    if (row) await keepRow(row)
  }
}

/** Every row on this device, in the order they are sent. @throws where the browser keeps nothing */
export async function readRows(): Promise<OutboxRow[]> {
  const found = (await entries<string, OutboxRow & Partial<Sealed>>(store())).map(
    ([, { iv: _, data: __, ...row }]) => row
  )
  return found.sort((a, b) => (a.key < b.key ? -1 : 1))
}

/** Writes a row down; with it, sealed, what it carries. Says whether the device keeps it. Until it does, what it carries is held in memory. */
export function keepRow(row: OutboxRow, contents?: Uint8Array<ArrayBuffer>): Promise<boolean> {
  return writeDown(row, contents).catch(() => false)
}

/** Holds what a row carries until it is written down. */
export function holdContents(key: string, contents: Uint8Array<ArrayBuffer>): void {
  inMemory.set(key, { iv: null, data: contents.slice().buffer })
}

async function writeDown(row: OutboxRow, contents?: Uint8Array<ArrayBuffer>): Promise<boolean> {
  const before = contents ? undefined : await get<Partial<Sealed>>(row.key, store())
  const kept = before?.data ? { iv: before.iv!, data: before.data } : {}
  const sealed = contents ? await seal(contents) : kept
  if (contents && (sealed as Sealed).iv === null) return false
  await set(row.key, { ...row, ...sealed }, store())
  if (contents) inMemory.delete(row.key)
  forgetJotted(row.key)
  return true
}

/** Writes a row down whose contents were sealed by an earlier version. */
export async function keepSealedRow(row: OutboxRow, sealed: Sealed): Promise<void> {
  await set(row.key, { ...row, ...sealed }, store())
}

async function seal(contents: Uint8Array<ArrayBuffer>): Promise<Sealed> {
  const key = await sealingKey()
  if (!key) return { iv: null, data: contents.slice().buffer }
  const iv = crypto.getRandomValues(new Uint8Array(12))
  return { iv, data: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, contents) }
}

/** What a row carries; null where it is gone. */
export async function contentsOf(key: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const held = inMemory.get(key) ?? (await get<Sealed>(key, store()).catch(() => undefined))
  if (!held?.data) return null
  if (!held.iv) return new Uint8Array(held.data)
  const cipher = await sealingKey()
  return new Uint8Array(await crypto.subtle.decrypt({ name: 'AES-GCM', iv: held.iv }, cipher!, held.data))
}

/** Takes a row off the device. */
export async function dropRow(key: string): Promise<void> {
  inMemory.delete(key)
  forgetJotted(key)
  await del(key, store()).catch(() => undefined)
}

/** The id of a person's outbox on this device: the same in every tab and after a restart. */
export async function outboxIdOf(person: string): Promise<string> {
  try {
    // In one step: two tabs that begin at once are to agree.
    const made = newId()
    await update<string>(person, (known) => known ?? made, ids())
    return (await get<string>(person, ids())) ?? made
  } catch {
    // Where the browser keeps nothing, an outbox lasts as long as its tab.
    return newId()
  }
}

/** A random UUID, also on a page without TLS, where the browser has none of its own. */
function newId(): string {
  const octets = crypto.getRandomValues(new Uint8Array(16))
  octets[6] = (octets[6]! & 0x0f) | 0x40
  octets[8] = (octets[8]! & 0x3f) | 0x80
  const hex = [...octets].map((octet) => octet.toString(16).padStart(2, '0')).join('')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')
}
