/**
 * A mask tells what a value on a label looks like, character by character:
 * `9` a digit, `A` a capital, `a` a small letter, `X` a capital or digit, `x` a small letter or digit,
 * `C` and `c` the same without characters that look like another, for makers who leave those out,
 * `H` a hexadecimal digit in capitals; `\` takes the next character as it is; anything else stands for itself.
 */
const alphabets: Record<string, string> = {
  9: '0123456789',
  A: 'ABCDEFGHIJKLMNOPQRSTUVWXYZ',
  a: 'abcdefghijklmnopqrstuvwxyz',
  X: 'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789',
  x: 'abcdefghijklmnopqrstuvwxyz0123456789',
  C: 'ACDEFHJKLMNPRTUVWXY3479',
  c: 'acdefhjkmnprtuvwxy3479',
  H: '0123456789ABCDEF'
}

/** One place of a mask: the characters that may stand there. */
export interface MaskPlace {
  /** True where only one character can stand here. */
  fixed: boolean
  alphabet: string
  allows: (character: string) => boolean
}

const parsed = new Map<string, MaskPlace[]>()

/** The places of a mask, in order. */
export function placesOf(mask: string): MaskPlace[] {
  const known = parsed.get(mask)
  if (known) return known
  const places: MaskPlace[] = []
  for (let at = 0; at < mask.length; at++) {
    const escaped = mask[at] === '\\'
    if (escaped) at++
    const sign = mask[at] ?? ''
    const alphabet = escaped ? undefined : alphabets[sign]
    places.push({
      fixed: alphabet === undefined,
      alphabet: alphabet ?? sign,
      allows: (character) => (alphabet ?? sign).includes(character)
    })
  }
  parsed.set(mask, places)
  return places
}

/** What is wrong with a mask, in words; null where nothing is. */
export function maskProblem(mask: string): string | null {
  if (/(?:^|[^\\])(?:\\\\)*\\$/.test(mask)) return 'ends with a backslash that has nothing after it'
  return /\s/.test(mask) ? 'must not hold blanks' : null
}

/** Whether a value looks as a mask tells. */
export function fitsMask(mask: string, value: string): boolean {
  const places = placesOf(mask)
  return value.length === places.length && places.every((place, at) => place.allows(value[at]!))
}

/**
 * Makes a value that fits a mask.
 * @param pick gives a whole number from 0 to below its argument
 */
export function fillMask(mask: string, pick: (below: number) => number): string {
  return placesOf(mask)
    .map(({ alphabet }) => alphabet[pick(alphabet.length)]!)
    .join('')
}
