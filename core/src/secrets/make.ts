import { wordlist } from '@scure/bip39/wordlists/english.js'

/** How many words and digits a made passphrase has: 5 × 11 bits + 2 digits × 3.32 bits = 61.6 bits. */
const WORDS = 5
const DIGITS = 2

/** The entropy of a made passphrase, in bits: log2 of how many there are. */
export const madeBits = WORDS * Math.log2(wordlist.length) + DIGITS * Math.log2(10)

/**
 * Makes a passphrase that is easy to read aloud: words with hyphens between, and two digits at the end.
 * The words are of 3 to 8 plain letters and differ in their first four.
 * @param pick gives a whole number from 0 to below its argument, each equally likely, from a secure source
 */
export function makePassphrase(pick: (below: number) => number): string {
  const words = Array.from({ length: WORDS }, () => wordlist[pick(wordlist.length)]!)
  const digits = Array.from({ length: DIGITS }, () => pick(10)).join('')
  return [...words, digits].join('-')
}

/**
 * A picker over a source of random 32-bit numbers, without the bias of a plain remainder.
 * @param next32 gives a random whole number from 0 to 2^32 − 1
 */
export function pickerFrom(next32: () => number): (below: number) => number {
  return (below) => {
    const limit = 2 ** 32 - (2 ** 32 % below)
    for (;;) {
      const number = next32()
      if (number < limit) return number % below
    }
  }
}
