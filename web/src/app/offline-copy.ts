import { createStore, del, entries, get, keys, set, type UseStore } from 'idb-keyval'

/** A copy of what the server said, and when. */
export interface Copy<T> {
  at: number
  value: T
}

/** Copies that were not renewed for so long are put away. */
const KEPT_MS = 14 * 24 * 3600 * 1000

let opened: UseStore | null = null

/** Where the browser keeps nothing, nothing is taken along, and nothing else stops for it. */
async function inStore<T>(act: (store: UseStore) => Promise<T>): Promise<T | undefined> {
  try {
    return await act((opened ??= createStore('pasado-taken', 'copies')))
  } catch {
    return undefined
  }
}

/**
 * Takes along on this device what is to be looked at without a connection: who is here, the day, the catalogue, the visits.
 * No secret is among it, and all of it goes when the session ends.
 */
export async function takeAlong(key: string, value: unknown): Promise<void> {
  await inStore((store) => set(key, { at: Date.now(), value } satisfies Copy<unknown>, store))
}

/** The copy of something, where there is one. */
export async function copyOf<T>(key: string): Promise<Copy<T> | null> {
  return (await inStore((store) => get<Copy<T>>(key, store))) ?? null
}

/** The names of what is taken along. */
export async function takenKeys(): Promise<string[]> {
  return (await inStore((store) => keys<string>(store))) ?? []
}

/** Puts away what is older than two weeks, or all of it. */
export async function putAway(which: 'old' | 'all'): Promise<void> {
  await inStore(async (store) => {
    for (const [key, copy] of await entries<string, Copy<unknown>>(store))
      if (which === 'all' || copy.at < Date.now() - KEPT_MS) await del(key, store)
  })
}
