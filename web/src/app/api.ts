import type { AnswerOf, CallName, FullName, SentTo } from '@pasado/core/api/all'
import type { On, Together } from './calls'
import { holdClockAgainst } from './clock'
import { saveFile } from './save-file'

/** What the server says where it cannot do what was asked (RFC 9457). */
export interface ProblemDocument {
  type: string
  title: string
  status: number
  detail?: string
  errors?: { pointer: string; field: string; detail: string }[]
}

/** An answer that is a problem, or no answer at all (status 0). */
export class ApiProblem extends Error {
  constructor(readonly document: ProblemDocument) {
    super(document.title)
  }

  get status(): number {
    return this.document.status
  }

  /** True where the same request may go through later. */
  get passing(): boolean {
    return this.status === 0 || this.status === 429 || this.status >= 500
  }

  /** The title and what is wrong with each field, as one text. */
  get words(): string {
    const fields = this.document.errors?.map(({ field, detail }) => `${field} ${detail}`) ?? []
    return [this.document.title, ...fields].join(' ')
  }
}

/** What is told of a call that failed: the title the server gave it, else `otherwise`. */
export const failureTitle = (error: unknown, otherwise: string): string =>
  error instanceof ApiProblem ? error.document.title : otherwise

/** What is told of a call that failed, with what is wrong with each field; else `otherwise`. */
export const failureWords = (error: unknown, otherwise: string): string =>
  error instanceof ApiProblem ? error.words : otherwise

const away: ProblemDocument = { type: 'away', title: 'The server cannot be reached just now.', status: 0 }

/** What a call carries, whichever it is. */
export interface Carried {
  params?: Readonly<Record<string, string>> | undefined
  query?: Readonly<Record<string, Asked | readonly Asked[]>> | undefined
  body?: unknown
}
/** Tells when an answer is not waited for any longer. */
type Until = { signal?: AbortSignal }
type Asked = string | number | undefined

/** The address of a call: its path with its parameters, and what it asks for behind it. */
function addressOf(path: string, { params = {}, query = {} }: Carried): string {
  const at = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name]!))
  const asked = new URLSearchParams()
  for (const [name, value] of Object.entries(query))
    for (const item of [value].flat()) if (item !== undefined) asked.append(name, `${item}`)
  return `/api${at}${asked.size ? `?${asked.toString()}` : ''}`
}

async function request(call: string, carried: Carried & Until = {}): Promise<Response> {
  const [method, path] = call.split(' ') as [string, string]
  const { body, signal = null } = carried
  let response: Response
  try {
    response = await fetch(addressOf(path, carried), {
      method,
      credentials: 'same-origin',
      signal,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
    })
  } catch {
    throw new ApiProblem(away)
  }
  holdClockAgainst(response.headers.get('date'))
  if (response.ok) return response
  let document: ProblemDocument
  try {
    document = (await response.json()) as ProblemDocument
  } catch {
    document = { ...away, status: response.status >= 500 ? 0 : response.status }
  }
  throw new ApiProblem(document)
}

/** Makes any call, for parts that carry calls of others: what goes in and comes out is theirs to know. @throws ApiProblem */
export const askAny = async (call: string, carried?: Carried): Promise<unknown> => {
  const response = await request(call, carried)
  return response.status === 204 ? undefined : response.json()
}
const fetchAny = async (call: string, carried?: Carried) => (await request(call, carried)).blob()
const downloadAny = async (call: string, carried?: Carried) => {
  const response = await request(call, carried)
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'pasado'
  saveFile(name, await response.blob())
}

/**
 * Functions on calls of the API: what goes in and what comes out is as the contract of the call says. A function for each call, not one
 * for all with the call as its parameter: there the compiler weighs what is put in against all that any call takes, a third of a second
 * each time.
 */
interface OnCalls {
  ask: Together<{ [N in CallName]: On<N, SentTo<N> & Until, Promise<AnswerOf<N>>> }[CallName]>
  fetchFile: Together<{ [N in FullName]: (call: N, sent: SentTo<N>) => Promise<Blob> }[FullName]>
  download: Together<{ [N in CallName]: On<N, SentTo<N>, Promise<void>> }[CallName]>
}

/**
 * Makes a call of the API by its method and path, and reads its JSON.
 * @throws ApiProblem where it is refused, or the server cannot be reached
 */
export const ask = askAny as unknown as OnCalls['ask']
/** Fetches a file as it is. @throws ApiProblem */
export const fetchFile = fetchAny as unknown as OnCalls['fetchFile']
/** Fetches a file and hands it to the person under the name the server gives it. @throws ApiProblem */
export const download = downloadAny as unknown as OnCalls['download']

/** Sends a photo of a visit as a form, telling how far it is. @throws ApiProblem */
export function sendPhoto(
  visit: string,
  form: FormData,
  signal: AbortSignal,
  onProgress: (share: number) => void
): Promise<unknown> {
  return new Promise((resolve, reject) => {
    // fetch cannot tell how much of what it sends has gone.
    const request = new XMLHttpRequest()
    request.open('POST', `/api/visits/${visit}/photos`)
    request.upload.addEventListener('progress', (event) => {
      if (event.lengthComputable) onProgress(event.loaded / event.total)
    })
    request.addEventListener('error', () => reject(new ApiProblem(away)))
    request.addEventListener('abort', () => reject(new ApiProblem(away)))
    signal.addEventListener('abort', () => request.abort())
    request.addEventListener('load', () => {
      let said: unknown
      try {
        said = JSON.parse(request.responseText)
      } catch {
        said = undefined
      }
      if (request.status >= 200 && request.status < 300) resolve(said)
      else
        reject(
          new ApiProblem(
            said && typeof said === 'object'
              ? (said as ProblemDocument)
              : { ...away, status: request.status >= 500 ? 0 : request.status }
          )
        )
    })
    request.send(form)
  })
}
