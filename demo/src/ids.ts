import { sha256Hex } from '@pasado/core/record/canonical'

/** A UUID that is the same for the same name at every load. */
export function demoId(...name: (string | number)[]): string {
  const hex = sha256Hex(`tern and tideway ${name.join(' ')}`)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** A visit's id: a UUID of version 7 with a fixed time, the same at every load. */
export function demoVisitId(name: string): string {
  const hex = sha256Hex(`tern and tideway visit ${name}`)
  return `019a0000-${hex.slice(0, 4)}-7${hex.slice(5, 8)}-8${hex.slice(9, 12)}-${hex.slice(12, 24)}`
}

/** A stream of numbers from 0 to below 1, the same for the same seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = state
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
}
