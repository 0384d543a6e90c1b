import { readFile } from 'node:fs/promises'
import { call, logIn } from './server'
import { parseWords, unreadable, UsageError } from './words'

function passphrase(): string {
  const given = process.env.PASADO_PASSPHRASE
  if (!given) throw new UsageError('set PASADO_PASSPHRASE to the passphrase that the secrets are encrypted to')
  return given
}

/** `pasado export`: a visit as a record file on standard output. */
export async function exportVisit(words: readonly string[]): Promise<number> {
  try {
    const { rest, has } = parseWords(words, ['--secrets'])
    if (rest.length !== 1) throw new UsageError('say which visit: pasado export VISIT')
    const secret = has.has('--secrets') ? passphrase() : null
    const { url, cookie, logOut } = await logIn()
    const address = `${url}/api/visits/${encodeURIComponent(rest[0]!)}/export`
    const response = await call(
      address,
      secret === null
        ? { headers: { cookie } }
        : {
            method: 'POST',
            headers: { cookie, 'content-type': 'application/json' },
            body: JSON.stringify({ passphrase: secret })
          }
    )
    process.stdout.write(await response.text())
    await logOut()
    return 0
  } catch (error) {
    return unreadable(error)
  }
}

/** `pasado import`: takes a record file in. */
export async function importVisit(words: readonly string[]): Promise<number> {
  try {
    const { rest, has } = parseWords(words, ['--secrets'])
    if (rest.length !== 1) throw new UsageError('say which file: pasado import FILE')
    const secret = has.has('--secrets') ? passphrase() : null
    const text = await readFile(rest[0]!, 'utf8')
    const { url, cookie, logOut } = await logIn()
    const response = await call(`${url}/api/import`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ text, ...(secret === null ? {} : { passphrase: secret }) })
    })
    const { visit, entries, known } = (await response.json()) as { visit: string; entries: number; known: boolean }
    console.log(
      known
        ? `Visit ${visit} is here already, the same to the last line.`
        : `Visit ${visit} taken in, ${entries} entries.`
    )
    await logOut()
    return 0
  } catch (error) {
    return unreadable(error)
  }
}
