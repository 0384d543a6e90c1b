/** A number as people type it: a decimal point or comma, a hyphen or a true minus; NaN where it is none. */
export function readNumber(text: string): number {
  const plain = text.trim().replace('−', '-').replace(',', '.')
  return /^[-+]?\d+(?:\.\d+)?$/.test(plain) ? Number(plain) : NaN
}
