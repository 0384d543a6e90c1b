/** True where the text has no lone surrogate. */
export function isWellFormed(text: string): boolean {
  return !/\p{Surrogate}/u.test(text)
}

/** How many octets a well-formed text takes in UTF-8. */
export function utf8Length(text: string): number {
  let octets = 0
  for (const character of text) {
    const point = character.codePointAt(0)!
    octets += point < 0x80 ? 1 : point < 0x800 ? 2 : point < 0x10000 ? 3 : 4
  }
  return octets
}
