/** Stands in for the browser's own store: several named stores, in memory, that copy what they hold. */
const held = globalThis as { pasadoStores?: Map<string, Map<string, unknown>> }
/** One for every copy of this module that a test loads. */
const stores = (held.pasadoStores ??= new Map([['', new Map<string, unknown>()]]))

export type UseStore = string

/** What one store holds, to look into from a test. */
export const inStore = (name = ''): Map<string, unknown> => stores.get(name) ?? new Map()

export function clearStores(): void {
  for (const held of stores.values()) held.clear()
}

export function createStore(database: string, store: string): UseStore {
  const name = `${database}/${store}`
  if (!stores.has(name)) stores.set(name, new Map())
  return name
}

const copy = (value: unknown): unknown => {
  try {
    return structuredClone(value)
  } catch {
    return value
  }
}

export const get = (key: string, store: UseStore = '') => Promise.resolve(copy(inStore(store).get(key)))
export const set = (key: string, value: unknown, store: UseStore = '') => {
  inStore(store).set(key, copy(value))
  return Promise.resolve()
}
export const del = (key: string, store: UseStore = '') => {
  inStore(store).delete(key)
  return Promise.resolve()
}
export const entries = (store: UseStore = '') =>
  Promise.resolve([...inStore(store)].map(([key, value]) => [key, copy(value)]))
export const keys = (store: UseStore = '') => Promise.resolve([...inStore(store).keys()])
export const update = (key: string, change: (value: unknown) => unknown, store: UseStore = '') => {
  inStore(store).set(key, copy(change(copy(inStore(store).get(key)))))
  return Promise.resolve()
}
