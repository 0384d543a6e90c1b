import { readBy, reading, Reads } from './reads'

/**
 * Keeps what is worked out of things that are never changed in place, as long as they are the same objects: many rules ask the same of
 * one. Whoever is given what was kept has looked at all that it was made of. Nobody changes what it gives.
 */
export class Kept<K extends object, T> {
  readonly #known = new WeakMap<K, { of: readonly unknown[]; made: T; reads: Reads }>()

  /**
   * @param key the thing that it is kept with
   * @param of what else it is made of
   */
  get(key: K, of: readonly unknown[], make: () => T): T {
    const known = this.#known.get(key)
    if (known?.of.length === of.length && known.of.every((part, at) => part === of[at])) {
      reading()?.add(known.reads)
      return known.made
    }
    const reads = new Reads()
    const made = readBy(reads, make)
    this.#known.set(key, { of, made, reads })
    return made
  }
}
