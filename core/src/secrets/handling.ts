/** How easily a passphrase is said and typed. */
export interface Handling {
  /** Characters that are taken for another one, in order. */
  confused: string[]
  /** Changes between letters small and large, digits and signs. */
  changes: number
  /** Presses on a television's keyboard by the arrows of its remote control, the taking of each character among them. */
  remotePresses: number
  /** What makes it hard, in plain words; empty where nothing does. */
  reasons: string[]
}

const lookAlikes = new Set([...'0O1lI|5S2Z8B'])
/** A keyboard as televisions show them: rows of ten, small letters first; capitals and signs lie on pages of their own. */
const rows = ['1234567890', 'qwertyuiop', 'asdfghjkl-', 'zxcvbnm.@_']
const signs = ['!"#$%&\'()*', '+,/:;<=>?[', '\\]^`{|}~  ']

interface Key {
  page: 'small' | 'capital' | 'signs'
  row: number
  column: number
}

function keyOf(character: string): Key {
  const lower = character.toLowerCase()
  for (const [row, keys] of rows.entries()) {
    const column = keys.indexOf(lower)
    if (column >= 0) return { page: character === lower ? 'small' : 'capital', row, column }
  }
  for (const [row, keys] of signs.entries()) {
    const column = keys.indexOf(character)
    if (column >= 0) return { page: 'signs', row, column }
  }
  return { page: 'signs', row: 2, column: 8 }
}

/** Judges how a passphrase is read aloud and how it is typed on a television. Arrows do not go round the edge; a change of page is two presses. */
export function judgeHandling(passphrase: string): Handling {
  const characters = [...passphrase]
  const kind = (character: string) => {
    if (/\d/.test(character)) return 'digit'
    if (/[a-z]/.test(character)) return 'small'
    return /[A-Z]/.test(character) ? 'capital' : 'sign'
  }
  let [changes, remotePresses] = [0, 0]
  let at: Key = { page: 'small', row: 0, column: 0 }
  for (const [index, character] of characters.entries()) {
    // A hyphen between words is said as a pause and costs nobody anything.
    if (
      index > 0 &&
      character !== '-' &&
      characters[index - 1] !== '-' &&
      kind(character) !== kind(characters[index - 1]!)
    )
      changes++
    const key = keyOf(character)
    remotePresses += Math.abs(key.row - at.row) + Math.abs(key.column - at.column) + 1 + (key.page === at.page ? 0 : 2)
    at = key
  }
  // In a word of small letters nobody takes an l for a 1; alone among digits and capitals they do.
  const confused = characters.filter(
    (character, index) =>
      lookAlikes.has(character) &&
      !(kind(character) === 'small' && inWord(characters, index)) &&
      !(kind(character) === 'digit' && !characters.some((other) => /[A-Z]/.test(other)))
  )
  const message: string[] = []
  if (confused.length)
    message.push(
      `${[...new Set(confused)].join(' ')} ${confused.length === 1 ? 'is' : 'are'} taken for something else: spell it`
    )
  if (changes > 3) message.push(`it changes ${changes} times between small letters, capitals, digits and signs`)
  if (remotePresses > 200)
    message.push(`about ${remotePresses} presses of a remote control: words with hyphens are shorter to type`)
  return { confused, changes, remotePresses, reasons: message }
}

const inWord = (characters: readonly string[], index: number) =>
  /[a-z]/.test(characters[index - 1] ?? '') || /[a-z]/.test(characters[index + 1] ?? '')
