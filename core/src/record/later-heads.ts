import { ed25519 } from '@noble/curves/ed25519.js'
import { hexToBytes, utf8ToBytes } from '@noble/hashes/utils.js'
import { z } from 'zod'
import { canonicalJson } from '../values/canonical'
import type { Entry } from './entry'
import { digest } from './fields'
import { keyName } from './seal'

/** The server's signature under the logbook as it stood with a line that was written after the seal. */
export const laterHead = z.strictObject({
  seq: z.int().min(2),
  key: z.string().max(80),
  publicKey: digest,
  signature: z.string().max(200)
})
export type LaterHead = z.infer<typeof laterHead>

/** The text that such a signature covers. */
export const headText = (visit: string, { seq, hash }: Pick<Entry, 'seq' | 'hash'>, key: string): string =>
  canonicalJson({ format: 'pasado.head/1', visit, seq, hash, key })

function holds(visit: string, entry: Pick<Entry, 'seq' | 'hash'>, { key, publicKey, signature }: LaterHead): boolean {
  try {
    return (
      keyName(publicKey) === key &&
      ed25519.verify(hexToBytes(signature), utf8ToBytes(headText(visit, entry, key)), hexToBytes(publicKey))
    )
  } catch {
    return false
  }
}

/**
 * What does not hold of the signatures under lines after a seal. Lines from before they were signed have none; from the first that has
 * one on, all have.
 * @param sealed the number of the line that seals
 * @returns null where all of it holds
 */
export function laterHeadProblem(
  visit: string,
  entries: readonly Entry[],
  sealed: number,
  heads: readonly LaterHead[]
): string | null {
  const byLine = new Map(heads.map((head) => [head.seq, head]))
  const first = Math.min(...byLine.keys())
  for (const seq of byLine.keys())
    if (seq <= sealed || seq > entries.length) return `line ${seq} has a signature, and is no line after the seal`
  for (const entry of entries.slice(Math.max(sealed, first - 1))) {
    const head = byLine.get(entry.seq)
    if (!head) return `line ${entry.seq} was written after the seal, and has no signature as the lines before it have`
    if (!holds(visit, entry, head)) return `line ${entry.seq} was altered after the server had signed it`
  }
  return null
}
