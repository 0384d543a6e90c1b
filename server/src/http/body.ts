import type { BodySize } from '@pasado/core/api/contract'
import { HttpProblem } from './problem'
import type { Context } from 'koa'

/** How much JSON a route takes: octets, how deep it may nest, and how many objects and lists it may hold. */
export interface BodyLimit {
  octets: number
  depth: number
  brackets: number
}

export const bodyLimits = {
  /** Before anybody is known: a login, a code. */
  stranger: { octets: 4_000, depth: 4, brackets: 20 },
  usual: { octets: 1_000_000, depth: 40, brackets: 60_000 },
  /** A long visit's file is larger than anything a browser sends. */
  file: { octets: 32_000_000, depth: 60, brackets: 3_000_000 }
} as const satisfies Record<BodySize, BodyLimit>

const inWords = (octets: number) => (octets >= 1_000_000 ? `${octets / 1_000_000} MB` : `${octets / 1000} kB`)

/**
 * Reads the JSON of a request, after it is known who asks and that they may. Nothing is inflated; what is too long is not read to its
 * end, and what nests too deep is not parsed.
 * @throws HttpProblem
 */
export async function readJson(context: Context, limit: BodyLimit): Promise<unknown> {
  if (context.get('Content-Encoding') && context.get('Content-Encoding') !== 'identity')
    throw new HttpProblem(415, 'encoding', 'Send JSON as it is, without Content-Encoding.')
  const text = await readText(context, limit.octets)
  mustBeShallow(text, limit)
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new HttpProblem(400, 'malformed', 'The body is not well-formed JSON.', [
      { pointer: '', field: 'body', detail: 'is not well-formed JSON; it may have been cut short' }
    ])
  }
}

async function readText(context: Context, octets: number): Promise<string> {
  const tooLarge = () => new HttpProblem(413, 'too-large', `This is larger than ${inWords(octets)}; send it in parts.`)
  const { req } = context
  if (Number(req.headers['content-length'] ?? 0) > octets) {
    context.set('Connection', 'close')
    throw tooLarge()
  }
  const chunks: Buffer[] = []
  let length = 0
  for await (const chunk of req as AsyncIterable<Buffer>) {
    length += chunk.length
    if (length > octets) {
      context.set('Connection', 'close')
      throw tooLarge()
    }
    chunks.push(chunk)
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(chunks))
  } catch {
    throw new HttpProblem(400, 'malformed', 'The body is not UTF-8.', [
      { pointer: '', field: 'body', detail: 'is not UTF-8' }
    ])
  }
}

/** Counts brackets outside of texts: the parser itself would take seconds for millions of them. */
function mustBeShallow(text: string, { depth, brackets }: BodyLimit): void {
  let [now, count, inText] = [0, 0, false]
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at)
    if (inText) {
      if (code === BACKSLASH) at++
      else if (code === QUOTE) inText = false
    } else if (code === QUOTE) inText = true
    else if (code === OPEN_LIST || code === OPEN_OBJECT) {
      now++
      count++
      if (now > depth || count > brackets)
        throw new HttpProblem(400, 'malformed', 'The body nests too deep or holds too many parts.', [
          { pointer: '', field: 'body', detail: 'nests too deep or holds too many objects and lists' }
        ])
    } else if (code === CLOSE_LIST || code === CLOSE_OBJECT) now--
  }
}

const [BACKSLASH, QUOTE, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [...'\\"[]{}'].map((sign) =>
  sign.charCodeAt(0)
) as [number, number, number, number, number, number]
