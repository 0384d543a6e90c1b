import { createStore, del, entries, get, set, type UseStore } from 'idb-keyval'
import { create } from 'zustand'
import { v7 as uuidv7 } from 'uuid'
import { ApiProblem, ask, sendForm } from '../app/api'

/** What belongs on the server and is a secret or large: a secret of the visit, or a photo. */
export type BoxedMeta =
  | { kind: 'secret'; visit: string; ref: string; body: { purpose: string; thing: string; id: string; origin: string; security?: string } }
  | { kind: 'photo'; visit: string; ref: string; fields: { thing: string; about: string; label: 'yes' | 'no'; caption?: string } }

/** One thing that waits in the box, as the screen shows it; its contents are not in here. */
export interface Boxed {
  meta: BoxedMeta
  state: 'waiting' | 'sending' | 'refused'
  /** From 0 to 1 while it is being sent. */
  progress: number
  problem: string | null
}

interface Stored {
  meta: BoxedMeta
  iv: Uint8Array<ArrayBuffer> | null
  data: ArrayBuffer
}

/** What waits on this device to be sent. */
export const useDeviceBox = create<{ items: readonly Boxed[] }>(() => ({ items: [] }))

const RETRY_MS = 3_000
let boxStore: UseStore | null = null
const store = () => (boxStore ??= createStore('pasado-box', 'items'))
const keyStore = () => (boxKeyStore ??= createStore('pasado-box-key', 'key'))
let boxKeyStore: UseStore | null = null
let sending: Promise<void> | null = null
let retry: ReturnType<typeof setTimeout> | undefined

/** The key of the box: made on this device, kept by the browser, given out to nobody, not even to us. */
async function boxKey(): Promise<CryptoKey | null> {
  if (!globalThis.crypto?.subtle) return null
  const known = await get<CryptoKey>('key', keyStore())
  if (known) return known
  const made = await crypto.subtle.generateKey({ name: 'AES-GCM', length: 256 }, false, ['encrypt', 'decrypt'])
  await set('key', made, keyStore())
  return made
}

/**
 * Where the browser has no cipher (a page without TLS that is not on this machine), nothing is written down:
 * what waits is kept in memory until it is sent.
 */
const inMemory = new Map<string, Stored>()

async function putAway(meta: BoxedMeta, contents: Uint8Array<ArrayBuffer>): Promise<void> {
  const key = await boxKey()
  if (!key) {
    inMemory.set(meta.ref, { meta, iv: null, data: contents.slice().buffer })
    return
  }
  const iv = crypto.getRandomValues(new Uint8Array(12))
  await set(meta.ref, { meta, iv, data: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, contents) } satisfies Stored, store())
}

async function takeOut(ref: string): Promise<Uint8Array<ArrayBuffer> | null> {
  const held = inMemory.get(ref) ?? (await get<Stored>(ref, store()))
  if (!held) return null
  if (!held.iv) return new Uint8Array(held.data)
  const key = await boxKey()
  return new Uint8Array(await crypto.subtle.decrypt({ name: 'AES-GCM', iv: held.iv }, key!, held.data))
}

async function forget(ref: string): Promise<void> {
  inMemory.delete(ref)
  await del(ref, store())
  useDeviceBox.setState(({ items }) => ({ items: items.filter(({ meta }) => meta.ref !== ref) }))
}

function change(ref: string, to: Partial<Boxed>): void {
  useDeviceBox.setState(({ items }) => ({ items: items.map((one) => (one.meta.ref === ref ? { ...one, ...to } : one)) }))
}

/** A secret that goes to the vault as soon as the server can be reached; until then it is sealed on this device. */
export async function secretForVault(visit: string, body: Extract<BoxedMeta, { kind: 'secret' }>['body'], value: string): Promise<void> {
  const meta: BoxedMeta = { kind: 'secret', visit, ref: uuidv7(), body }
  await putAway(meta, new TextEncoder().encode(value))
  useDeviceBox.setState(({ items }) => ({ items: [...items, { meta, state: 'waiting', progress: 0, problem: null }] }))
  void sendBox()
}

/** A photo that is sent as soon as the server can be reached; until then it is sealed on this device. */
export async function photoForVisit(visit: string, fields: Extract<BoxedMeta, { kind: 'photo' }>['fields'], photo: Blob): Promise<void> {
  const meta: BoxedMeta = { kind: 'photo', visit, ref: uuidv7(), fields }
  await putAway(meta, new Uint8Array(await photo.arrayBuffer()))
  useDeviceBox.setState(({ items }) => ({ items: [...items, { meta, state: 'waiting', progress: 0, problem: null }] }))
  void sendBox()
}

/** Looks what an earlier session of this browser left in the box, and sends it. */
export async function openBox(): Promise<void> {
  const held = [...inMemory.values(), ...(await entries<string, Stored>(store()).catch(() => [])).map(([, one]) => one)]
  useDeviceBox.setState(({ items }) => ({
    items: [...items, ...held.filter(({ meta }) => !items.some((one) => one.meta.ref === meta.ref)).map(({ meta }): Boxed => ({ meta, state: 'waiting', progress: 0, problem: null }))]
  }))
  void sendBox()
}

/** Sends what waits, one after another, again and again until the server has it. What depends on an entry still on its way waits for it. */
export function sendBox(): Promise<void> {
  clearTimeout(retry)
  sending ??= sendWaiting().finally(() => { sending = null })
  return sending
}

async function sendWaiting(): Promise<void> {
  const tried = new Set<string>()
  for (;;) {
    const next = useDeviceBox.getState().items.find(({ meta, state }) => state !== 'refused' && !tried.has(meta.ref))
    if (!next) break
    const { ref } = next.meta
    tried.add(ref)
    const contents = await takeOut(ref)
    if (!contents) { await forget(ref); continue }
    change(ref, { state: 'sending', progress: 0 })
    try {
      await sendOne(next.meta, contents, (progress) => change(ref, { progress }))
      await forget(ref)
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.passing || error.status === 401 || notThereYet(error)) change(ref, { state: 'waiting', progress: 0 })
      else change(ref, { state: 'refused', problem: error.words })
    }
  }
  if (useDeviceBox.getState().items.some(({ state }) => state === 'waiting')) retry = setTimeout(() => void sendBox(), RETRY_MS)
}

/** The unit that a photo shows may still be on its way to the server itself. */
function notThereYet(error: ApiProblem): boolean {
  return error.document.errors?.some(({ field }) => field === 'about.id') ?? false
}

function sendOne(meta: BoxedMeta, contents: Uint8Array<ArrayBuffer>, onProgress: (share: number) => void): Promise<unknown> {
  if (meta.kind === 'secret') return ask('POST', `/visits/${meta.visit}/secrets`, { ref: meta.ref, ...meta.body, value: new TextDecoder().decode(contents) })
  const form = new FormData()
  for (const [name, value] of Object.entries({ ref: meta.ref, ...meta.fields })) if (value !== undefined) form.append(name, value)
  form.append('photo', new Blob([contents], { type: 'image/jpeg' }), 'photo.jpg')
  return sendForm(`/visits/${meta.visit}/photos`, form, onProgress)
}

/** Puts something that was refused out of the box, after the person has read why. */
export function dropBoxed(ref: string): void {
  void forget(ref)
}
