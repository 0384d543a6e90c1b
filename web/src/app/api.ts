import { holdClockAgainst } from './clock'

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

const away: ProblemDocument = { type: 'away', title: 'The server cannot be reached just now.', status: 0 }

async function request(method: string, path: string, body?: unknown): Promise<Response> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      credentials: 'same-origin',
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

/** Asks the API and reads its JSON. */
export async function ask<T>(method: 'GET' | 'POST' | 'DELETE', path: string, body?: unknown): Promise<T> {
  const response = await request(method, path, body)
  return (response.status === 204 ? undefined : await response.json()) as T
}

/** Sends a form with a file in it, telling how far it is. */
export function sendForm(path: string, form: FormData, onProgress: (share: number) => void): Promise<unknown> {
  return new Promise((resolve, reject) => {
    // fetch cannot tell how much of what it sends has gone.
    const request = new XMLHttpRequest()
    request.open('POST', `/api${path}`)
    request.upload.addEventListener('progress', (event) => {
      if (event.lengthComputable) onProgress(event.loaded / event.total)
    })
    request.addEventListener('error', () => reject(new ApiProblem(away)))
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

/** Fetches a file as it is. */
export async function fetchFile(method: 'GET' | 'POST', path: string, body?: unknown): Promise<Blob> {
  return (await request(method, path, body)).blob()
}

/** Fetches a file and hands it to the person under the name the server gives it. */
export async function download(method: 'GET' | 'POST', path: string, body?: unknown): Promise<void> {
  const response = await request(method, path, body)
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'pasado'
  const url = URL.createObjectURL(await response.blob())
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
