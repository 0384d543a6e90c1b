import { HttpProblem } from '../http/problem'
import { randomBytes } from 'node:crypto'
import { Readable } from 'node:stream'
import type { Context, Next } from 'koa'
import type { Sessions } from '../http/session'

const BLOCK = randomBytes(64 * 1024)
/** The most that one transfer carries. */
const MOST_OCTETS = 64 * 1024 * 1024

/**
 * A source to measure against: real transfers between browser and server, down and up, and an answer that carries nothing for the
 * latency. It stands in for a source on the internet: what it measures is the way to this server.
 */
export function speedSource(sessions: Sessions) {
  return async (context: Context, next: Next): Promise<void> => {
    const way = /^\/stand-ins\/speed\/(down|up|ping)$/.exec(context.path)?.[1]
    if (!way) return void (await next())
    if (!(await sessions.personOf(context))) throw new HttpProblem(401, 'log-in', 'Log in first.')
    context.set('Cache-Control', 'no-store, no-transform')
    if (way === 'ping') {
      context.status = 204
      return
    }
    if (way === 'down') {
      const octets = Number(context.query.octets ?? 0)
      if (!Number.isInteger(octets) || octets < 1 || octets > MOST_OCTETS)
        throw new HttpProblem(422, 'refused', `octets must be a whole number from 1 to ${MOST_OCTETS}.`)
      context.type = 'application/octet-stream'
      context.length = octets
      context.body = Readable.from(blocksOf(octets))
      return
    }
    if (context.method !== 'POST') throw new HttpProblem(405, 'post-wanted', 'Send what is measured by POST.')
    let octets = 0
    for await (const part of context.req as AsyncIterable<Buffer>) {
      octets += part.length
      if (octets > MOST_OCTETS)
        throw new HttpProblem(413, 'too-large', `At most ${MOST_OCTETS} octets are taken at once.`)
    }
    context.body = { octets }
  }
}

function* blocksOf(octets: number): Generator<Buffer> {
  for (let left = octets; left > 0; left -= BLOCK.length) yield left >= BLOCK.length ? BLOCK : BLOCK.subarray(0, left)
}
