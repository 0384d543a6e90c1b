import { zxcvbn, zxcvbnOptions } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary as common } from '@zxcvbn-ts/language-common'
import { dictionary as english } from '@zxcvbn-ts/language-en'

/** Of signs that may stand for letters so many ways to read them are tried: the library's own hundred takes seconds for some texts. */
const MOST_READINGS = 20
/** The library's work grows with the cube of the length: a longer text is judged by its beginning and by its end, whichever is the stronger. */
const MOST_AT_ONCE = 40

zxcvbnOptions.setOptions({
  dictionary: { ...common, ...english },
  graphs: adjacencyGraphs,
  l33tMaxSubstitutions: MOST_READINGS
})

/** How strong a passphrase is. */
export interface Strength {
  /** 0 to 4, as zxcvbn scores it. */
  score: 0 | 1 | 2 | 3 | 4
  /** The base-2 logarithm of the guesses needed. */
  bits: number
  /** Why it is weak, in plain words; empty where nothing stands out. */
  warning: string
}

/**
 * Judges a passphrase, in a bounded time: some tenths of a second at most, so not on a thread that somebody waits for.
 * @param hints names a guesser near this home would try first: network, customer, street
 */
export function judgeStrength(passphrase: string, hints: readonly string[] = []): Strength {
  const words = hints.flatMap((hint) => [hint, ...hint.split(/\s+/)]).filter((word) => word.length >= 3)
  const pieces =
    passphrase.length > MOST_AT_ONCE
      ? [passphrase.slice(0, MOST_AT_ONCE), passphrase.slice(-MOST_AT_ONCE)]
      : [passphrase]
  const [result] = pieces.map((piece) => zxcvbn(piece, words)).sort((a, b) => b.guessesLog10 - a.guessesLog10) as [
    ReturnType<typeof zxcvbn>
  ]
  return {
    score: result.score,
    bits: Math.max(0, result.guessesLog10 * Math.log2(10)),
    warning:
      warnings[result.feedback.warning ?? ''] ??
      (result.score < 3 ? 'It would be guessed too soon: use more words.' : '')
  }
}

const warnings: Record<string, string> = {
  straightRow: 'It is a row of keys on the keyboard.',
  keyPattern: 'It is a pattern of keys on the keyboard.',
  simpleRepeat: 'It repeats one character.',
  extendedRepeat: 'It repeats a short piece.',
  sequences: 'It holds a run such as abc or 123.',
  recentYears: 'It holds a year.',
  dates: 'It holds a date.',
  topTen: 'It is one of the ten most used passwords.',
  topHundred: 'It is one of the hundred most used passwords.',
  common: 'It is a much used password.',
  similarToCommon: 'It is close to a much used password.',
  wordByItself: 'It is a single word.',
  namesByThemselves: 'It is a name.',
  commonNames: 'It holds a common name.',
  userInputs: 'It holds a name that would be tried first here.'
}
