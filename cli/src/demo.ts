import { spawn } from 'node:child_process'
import { join } from 'node:path'
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
    const root = join(import.meta.dirname, '../..')
    // It writes to the database itself: through the API, so many visits would take hours.
    const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'scripts/demo-homes.ts'), String(homes)], {
      cwd: root,
      stdio: 'inherit'
    })
    return await new Promise((resolve) => child.once('exit', (status) => resolve(status ?? 1)))
  } catch (error) {
    if (!(error instanceof UsageError)) throw error
    console.error(error.message)
    return 2
  }
}
