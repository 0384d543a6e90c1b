import { UsageError } from './words'

/** A logged-in way to the server's API. */
export async function logIn(): Promise<{ url: string; cookie: string; logOut: () => Promise<void> }> {
  const url = process.env.PASADO_URL ?? 'http://127.0.0.1:4180'
  const login = process.env.PASADO_LOGIN
  const password = process.env.PASADO_PASSWORD
  if (!login || !password) throw new UsageError('set PASADO_LOGIN and PASADO_PASSWORD to a login of the server')
  const response = await call(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login, password })
  })
  const cookie = response.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
  return {
    url,
    cookie,
    logOut: async () => void (await call(`${url}/api/session`, { method: 'DELETE', headers: { cookie } }))
  }
}

/** Calls the server. @throws Error with what it says where it refuses, or where none answers */
export async function call(address: string, options: RequestInit): Promise<Response> {
  let response: Response
  try {
    response = await fetch(address, options)
  } catch {
    throw new Error(`no server answers at ${new URL(address).origin}; start it, or set PASADO_URL`)
  }
  if (response.ok) return response
  const problem = (await response.json().catch(() => ({ title: response.statusText }))) as {
    title: string
    errors?: { field: string; detail: string }[]
  }
  throw new Error(
    [problem.title, ...(problem.errors ?? []).map(({ field, detail }) => `${field}: ${detail}`)].join('\n')
  )
}
