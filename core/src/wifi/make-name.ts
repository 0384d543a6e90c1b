import { wordlist } from '@scure/bip39/wordlists/english.js'

/**
 * A name for a home's network that tells nothing of who lives there: two plain words.
 * @param pick gives a whole number from 0 to below its argument
 */
export function makeNetworkName(pick: (below: number) => number): string {
  const word = () => { const found = wordlist[pick(wordlist.length)]!; return found[0]!.toUpperCase() + found.slice(1) }
  return `${word()} ${word()}`
}
