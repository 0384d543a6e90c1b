/**
 * Whether a text tells a private name: a whole word of at least four letters of one of the names stands in it.
 * @returns the word that gives it away, or null
 */
export function isPrivateName(text: string, names: readonly (string | undefined)[]): string | null {
  const flat = plain(text)
  for (const name of names) {
    const words = (name ?? '')
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => [...word].length >= 4 && !commonWords.has(plain(word)))
    const told = words.find((word) => flat.includes(plain(word)))
    if (told) return told
  }
  return null
}

/** Words of addresses that say nothing about where or who. */
const commonWords = new Set([
  'street',
  'road',
  'lane',
  'rise',
  'quay',
  'house',
  'cottage',
  'terrace',
  'harbour',
  'north',
  'south',
  'east',
  'west',
  'upper',
  'lower',
  'flat',
  'place',
  'the',
  'hill',
  'court',
  'close',
  'walk',
  'view',
  'steps',
  'yard'
])

/** Letters and digits only, lower case, without accents. */
export function plain(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]/gu, '')
    .toLowerCase()
}
