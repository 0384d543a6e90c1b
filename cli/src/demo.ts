import { besideServer } from './beside-server'
import { parseWords, UsageError } from './words'

const MOST_HOMES = 500_000

/** `pasado demo --homes N`: adds a generated company of many homes to the database, with progress. */
export async function demo(words: readonly string[]): Promise<number> {
  try {
    const { rest, values } = parseWords(words, [], ['--homes'])
    const homes = Number(values.get('--homes'))
    if (rest.length > 0 || !values.has('--homes')) throw new UsageError('say how many: pasado demo --homes 50000')
    if (!Number.isInteger(homes) || homes < 1 || homes > MOST_HOMES)
      throw new UsageError(`--homes must be a whole number from 1 to ${MOST_HOMES}`)
    // It writes to the database itself: through the API, so many visits would take hours.
    return await besideServer('demo-homes', [String(homes)])
  } catch (error) {
    if (!(error instanceof UsageError)) throw error
    console.error(error.message)
    return 2
  }
}
