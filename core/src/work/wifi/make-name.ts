import { firstWords, secondWords } from './name-words'

/**
 * A name for a home's network that tells nothing of who lives there: two plain words.
 * @param pick gives a whole number from 0 to below its argument
 */
export function makeNetworkName(pick: (below: number) => number): string {
  return `${firstWords[pick(firstWords.length)]!} ${secondWords[pick(secondWords.length)]!}`
}
