/** A value of any kind as text: nothing as an empty one, objects as JSON. */
export function textOf(value: unknown): string {
  if (value === undefined || value === null) return ''
  if (typeof value === 'string') return value
  return JSON.stringify(value) ?? ''
}

/** A name from code as words: `firmwareAfter` is “firmware after”, `wifi-passphrase` “wifi passphrase”. */
export const wordsOf = (name: string): string =>
  name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`).replaceAll('-', ' ')
