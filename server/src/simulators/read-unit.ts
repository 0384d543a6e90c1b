import { readDotted } from '@pasado/core/documents/dotted'

/** Why a unit could not be read. */
export class UnitSilent extends Error {
  constructor(readonly why: 'login' | 'silent' | 'unreadable') {
    super(why)
  }
}

const WAIT_MS = 5000
const MOST_OCTETS = 256_000

/**
 * Reads what a unit's own page tells, over HTTP with Basic login.
 * @throws UnitSilent where nothing answers in five seconds, the login is refused or the answer cannot be read
 */
export async function readUnit(
  address: string,
  login: { user: string; password: string } | null
): Promise<Record<string, string>> {
  let response: Response
  try {
    response = await fetch(address, {
      signal: AbortSignal.timeout(WAIT_MS),
      redirect: 'error',
      headers: login
        ? { authorization: `Basic ${Buffer.from(`${login.user}:${login.password}`, 'utf8').toString('base64')}` }
        : {}
    })
  } catch {
    throw new UnitSilent('silent')
  }
  if (response.status === 401 || response.status === 403) throw new UnitSilent('login')
  if (!response.ok) throw new UnitSilent('silent')
  const text = await response.text()
  if (text.length > MOST_OCTETS) throw new UnitSilent('unreadable')
  const { values, problems } = readDotted(text)
  if (problems.length && Object.keys(values).length === 0) throw new UnitSilent('unreadable')
  return values
}
