/** Whether a word of a text tells a word of a name: shorter ones stand in too many words by chance, as anna does in savannah. */
function tells(said: string, word: string): boolean {
  const length = [...word].length
  if (length >= 5) return said.includes(word)
  return said === word || (length === 4 && (said.startsWith(word) || said.endsWith(word)))
}

/**
 * Whether a text tells a private name: a word of one of the names stands in it, by itself or, where it is long enough, as a part of
 * another. Words of a text are told apart by signs, digits and capitals.
 * @returns the word that gives it away, or null
 */
export function isPrivateName(text: string, names: readonly (string | undefined)[]): string | null {
  const inText = [...new Set([...wordsIn(text), ...spelledOut(text)])]
  for (const name of names) {
    const told = spelledOut(name ?? '')
      .filter((word) => [...word].length >= 2 && /^\p{L}+$/u.test(word) && !commonWords.has(word))
      .find((word) => inText.some((said) => tells(said, word)))
    if (told) return (name ?? '').split(/[^\p{L}\p{N}]+/u).find((word) => plain(word) === told) ?? told
  }
  return null
}

/** The words of a text as it is written, flat. */
const spelledOut = (text: string): string[] =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .map(plain)
    .filter(Boolean)

/** The words of a text that is written together: `LeeFamily2` is of lee, family and 2; the letters after a blank go on as well. */
function wordsIn(text: string): string[] {
  const found = text.match(/\p{Lu}+(?!\p{Ll})|\p{Lu}?\p{Ll}+|\p{Lo}+/gu) ?? []
  return [...found.map(plain), plain(text)]
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
  'yard',
  // Small words of names, which stand in any text.
  'de',
  'da',
  'di',
  'du',
  'den',
  'der',
  'del',
  'el',
  'al',
  'la',
  'le',
  'les',
  'van',
  'von',
  'of',
  'and',
  'st',
  'mr',
  'mrs',
  'ms',
  'dr',
  'no'
])

/** Letters and digits only, lower case, without accents. */
export function plain(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]/gu, '')
    .toLowerCase()
}
