/** True where the text has no lone surrogate. */
export function isWellFormed(text: string): boolean {
  return !/\p{Surrogate}/u.test(text)
}

/** How many octets a well-formed text takes in UTF-8. */
export function utf8Length(text: string): number {
  let octets = 0
  for (const character of text) octets += octetsOf(character.codePointAt(0)!)
  return octets
}

/** How many octets a code point takes in UTF-8 (RFC 3629). */
function octetsOf(point: number): number {
  if (point < 0x80) return 1
  if (point < 0x800) return 2
  return point < 0x10000 ? 3 : 4
}
