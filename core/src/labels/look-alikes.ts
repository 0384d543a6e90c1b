import { placesOf } from '../values/mask'

/** Characters that look alike in print, each group once. */
export const lookAlikeGroups = [
  '0OoQD',
  '1lI|i!',
  '5Ss',
  '8B',
  '2Zz',
  '6Gb',
  '9gq',
  '4A',
  'uv',
  'VU',
  'Cc',
  'Kk',
  'Pp',
  'Ww',
  'Xx',
  'Yy',
  'Mm',
  'Nn',
  'Tt',
  'Jj',
  'Ff',
  'Uu',
  'Vv'
] as const

/** Characters that worn print makes alike, taken only where the one that was read cannot stand. */
const wornGroups = ['068BD', '17T', '3B8', '5E6', '9g4', '®©@0O', '7Z', 'hb6', 'cecoe', 'rnm', '€CE'] as const

function alike(groups: readonly string[], character: string): string[] {
  const found = new Set(groups.filter((group) => group.includes(character)).join(''))
  found.delete(character)
  return [...found]
}

/** The characters that one may have been, itself left out. */
export function lookAlikesOf(character: string): string[] {
  return alike(lookAlikeGroups, character)
}

/** Whether print makes two characters alike, worn print too. */
export function wornAlike(a: string, b: string): boolean {
  return lookAlikesOf(a).includes(b) || wornGroups.some((group) => group.includes(a) && group.includes(b))
}

/** Pairs that even a careful eye takes for each other, whatever the print. */
const doubtful = /[0OoQ1lI|5S8B2Z6G]/

/** A reading brought into the form of its field. */
export interface Settled {
  value: string
  /** True where the form of the field leaves no other reading. */
  sure: boolean
}

/**
 * Brings a reading into a mask: where a character cannot stand at its place, the one that looks like it and can is taken.
 * @returns null where the reading cannot be brought into the mask
 */
export function settleByMask(text: string, mask: string): Settled | null {
  const places = placesOf(mask)
  if (text.length !== places.length) return null
  let sure = true
  let value = ''
  for (const [at, place] of places.entries()) {
    const read = text[at]!
    const near = [read, ...lookAlikesOf(read)].filter((character) => place.allows(character))
    const can = near.length ? near : alike(wornGroups, read).filter((character) => place.allows(character))
    if (can.length === 0) return null
    if (near.length === 0 && !place.fixed) sure = false
    value += can[0]
    // A doubtful character is sure only where just one of its look-alikes can stand here.
    if (!place.fixed && doubtful.test(read) && can.length > 1) sure = false
    if (can[0] !== read && can.length > 1) sure = false
  }
  return { value, sure }
}

/** Hexadecimal digits as they are misread. The letter B and the digit 8 are both hexadecimal, so those two stay in doubt. */
const hexRepairs: Record<string, string> = {
  O: '0',
  o: '0',
  Q: '0',
  I: '1',
  l: '1',
  '|': '1',
  i: '1',
  '!': '1',
  S: '5',
  s: '5',
  Z: '2',
  z: '2',
  G: '6',
  g: '9',
  q: '9'
}

/** Twelve hexadecimal digits out of a reading, misread ones put right; null where it does not hold just twelve. A mask tells what the maker's addresses look like. */
export function settleHex(text: string, mask?: string): Settled | null {
  const bare = text.replace(/[\s:.\-_;,]/g, '')
  if (bare.length !== 12) return null
  const masked = mask === undefined ? null : settleByMask(bare.toUpperCase(), mask)
  if (masked) return { value: masked.value.toLowerCase(), sure: masked.sure && !/[8B6]/.test(bare.slice(-6)) }
  const value = [...bare].map((character) => hexRepairs[character] ?? character).join('')
  return /^[0-9A-Fa-f]{12}$/.test(value)
    ? { value: value.toLowerCase(), sure: value === bare && !/[8B6]/.test(bare) }
    : null
}

const MOST_OTHERS = 6

/**
 * Other readings of a value in which a doubtful character is another: the nearest first, one character changed each.
 * @param mask where given, only readings that fit it
 */
export function otherReadings(value: string, mask?: string): string[] {
  const places = mask === undefined ? null : placesOf(mask)
  const found: string[] = []
  for (const [at, character] of [...value].entries()) {
    if (!doubtful.test(character)) continue
    for (const other of lookAlikesOf(character)) {
      if (!doubtful.test(other) || other === '|') continue
      if (places && !(places[at]?.allows(other) ?? false)) continue
      found.push(value.slice(0, at) + other + value.slice(at + 1))
    }
  }
  return [...new Set(found)].slice(0, MOST_OTHERS)
}
