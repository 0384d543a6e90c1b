/**
 * What the faces of our documents can print, as code points in hexadecimal: Latin with its extensions, Greek, Cyrillic, and signs.
 * A test holds it against the faces themselves.
 */
const printed =
  '20-7e a0-ac ae-1c3 1cd-1e3 1e6-1f0 1f4-1f6 1f8-1f9 1fc-221 224-241 243-245 24c-24d 300-33f 343 358 361 374-377 37a-37f 384-38a 38c 38e-3a1 3a3-3ce 3d0-3e1 3f0-3ff 400-45f 462-463 472-473 490-49b 4a2-4a5 4aa-4b3 4ba-4bb 4c0-4c4 4c7-4c8 4cb-4cc 4cf-4f9 510-511 51a-51d 1e00-1e13 1e18-1e2d 1e30-1e4d 1e54-1e63 1e68-1e79 1e7c-1e99 1e9b 1e9f-1ea1 1eac-1ead 1eb0-1eb1 1eb6-1eb9 1ebc-1ebd 1ec6-1ec7 1eca-1ecd 1ed8-1edd 1ee0-1ee5 1ee8-1eeb 1eee-1ef5 1ef8-1ef9 1f00-1f15 1f18-1f1d 1f20-1f45 1f48-1f4d 1f50-1f57 1f59 1f5b 1f5d 1f5f-1f7d 1f80-1fb4 1fb6-1fc4 1fc6-1fd3 1fd6-1fdb 1fdd-1fef 1ff2-1ff4 1ff6-1ffe 2010-2023 2026 2030-2037 2039-203a 20a0-20b5 20b8-20ba 20bd 2116 2122 2190-2193 2212 2423'

const ranges = printed.split(' ').map((range) => {
  const [first, last = first] = range.split('-')
  return [Number.parseInt(first!, 16), Number.parseInt(last!, 16)] as const
})

/** Whether a code point can be printed. */
export function isPrinted(codePoint: number): boolean {
  let [low, high] = [0, ranges.length - 1]
  while (low <= high) {
    const middle = (low + high) >> 1
    const [first, last] = ranges[middle]!
    if (codePoint < first) high = middle - 1
    else if (codePoint > last) low = middle + 1
    else return true
  }
  return false
}

/** Line ends and tabs are laid out, not printed. */
const isLayout = (codePoint: number) => codePoint === 9 || codePoint === 10 || codePoint === 13

/** Whether paper can show a text as it is. */
export const isOnPaper = (text: string): boolean =>
  [...text].every((sign) => isPrinted(sign.codePointAt(0)!) || isLayout(sign.codePointAt(0)!))

/** A text as paper shows it: a sign that no face of ours has stands as its code point, so that nothing is lost and nothing is made up. */
export function forPaper(text: string): string {
  return [...text]
    .map((sign) => {
      const codePoint = sign.codePointAt(0)!
      if (isPrinted(codePoint) || isLayout(codePoint)) return sign
      return codePoint === 0xad ? '-' : `[U+${codePoint.toString(16).toUpperCase().padStart(4, '0')}]`
    })
    .join('')
}

/** A name or passphrase with the blanks at its ends made visible: whoever types it cannot see them otherwise. */
export function withBlanksShown(text: string): string {
  return text.replace(/^ +| +$/g, (blanks) => '␣'.repeat(blanks.length))
}
