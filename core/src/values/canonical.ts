import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import canonicalize from 'canonicalize'

/** The canonical JSON of a value (RFC 8785): one value, one text. */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value)
  if (text === undefined) throw new Error('there is no JSON for this value')
  return text
}

/** Whether two values are one in canonical JSON, whatever the order of their fields; one that is left out is none. */
export function sameJson(a: unknown, b: unknown): boolean {
  return canonicalJson(a ?? null) === canonicalJson(b ?? null)
}

/** SHA-256 of a text's UTF-8, in lower-case hexadecimal. */
export function sha256Hex(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)))
}

/** SHA-256 of a value's canonical JSON. */
export function digestOf(value: unknown): string {
  return sha256Hex(canonicalJson(value))
}
