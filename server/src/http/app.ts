import { fieldErrors, HttpProblem, toHttp } from './problem'
import { refused, forbidden, DomainProblem } from '../problem'
import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { constants } from 'node:zlib'
import multer from '@koa/multer'
import Router from '@koa/router'
import Koa, { type Context, type Next } from 'koa'
import compress from 'koa-compress'
import helmet from 'koa-helmet'
import serve from 'koa-static'
import { v7 as uuidv7 } from 'uuid'
import { z } from 'zod'
import { problemsOf, Refusal, type Problem } from '@pasado/core/values/problem'
import { isAway, isInTrouble } from '../db/pool'
import { EpochMissing } from '../vault/epoch-store'
import { MOST_PHOTO_OCTETS } from '../photos/prepare'
import type { Services } from '../services'
import { devicePages } from '../simulators/device-pages'
import { speedSource } from '../simulators/speed-source'
import { bodyLimits, readJson } from './body'
import { addressOf } from './limits'
import { isHealthCall, tellHealth } from './health'
import type { Answer, Call, Route } from './route'
import { allRoutes } from './routes/all'
import { openApi } from './openapi'
import { Sessions } from './session'

/** Builds the application: the API under /api, the built interface for everything else. */
export function makeApp(services: Services): Koa {
  // The proxy itself adds the last address to the header; what stands before it is whatever a client wrote there.
  const app = new Koa({ proxy: services.config.TRUST_PROXY === '1', maxIpsCount: 1 })
  const secure = services.config.PUBLIC_URL?.startsWith('https:') ?? false
  const sessions = new Sessions(services.db, secure)
  app.on('error', (error) => {
    if (!isCallerGone(error)) services.log.error({ problem: (error as Error).name }, 'a response could not be sent')
  })
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"]
        }
      },
      hsts: secure ? { maxAge: 31_536_000 } : false,
      referrerPolicy: { policy: 'no-referrer' }
    })
  )
  app.use(async (context, next) => {
    // Behind a proxy with TLS that does not say so the cookie is Secure all the same.
    if (secure) context.cookies.secure = true
    await (isHealthCall(context) ? tellHealth(context, services) : next())
    // Also of a call that came before this process was told to end.
    if (services.stopping) context.set('Connection', 'close')
  })
  app.use((context, next) => guarded(context, next, services))
  const router = new Router({ prefix: '/api' })
  for (const route of allRoutes)
    router[route.method](route.path, (context: Context) => callRoute(route, context, services, sessions))
  const description = openApi(allRoutes)
  router.get('/openapi.json', (context: Context) => {
    context.body = description
  })
  app.use(router.routes())
  app.use(devicePages(services))
  app.use(speedSource(sessions))
  app.use(async (context, next) => {
    if (context.path.startsWith('/api')) throw new HttpProblem(404, 'not-found', 'There is nothing at this address.')
    await next()
  })
  serveInterface(app, services.config.WEB_ROOT)
  return app
}

/** Turns whatever goes wrong into a problem document, and logs calls without anything they carried. */
async function guarded(context: Context, next: Next, { log, metrics, config }: Services): Promise<void> {
  const began = performance.now()
  const request = requestIdOf(context, config.TRUST_PROXY === '1')
  context.set('X-Request-Id', request)
  try {
    if (context.method !== 'GET' && context.method !== 'HEAD') mustBeOurs(context)
    await next()
  } catch (error) {
    const problem =
      isCallerGone(error) && context.req.socket.destroyed
        ? new HttpProblem(400, 'broken-off', 'What was sent was broken off; send it again.')
        : problemOf(error)
    if (problem.status >= 500)
      log.error(
        {
          request,
          problem: (error as Error).name,
          code: (error as { code?: string }).code,
          stack: stackWithoutMessage(error)
        },
        problem.title
      )
    context.status = problem.status
    context.type = 'application/problem+json'
    if (problem.status === 503) context.set('Retry-After', '2')
    if (typeof problem.extra.retryAfterSeconds === 'number')
      context.set('Retry-After', String(problem.extra.retryAfterSeconds))
    const instance = problem.status >= 500 ? { instance: `urn:pasado:request:${request}` } : {}
    context.body = JSON.stringify({ ...problem.toDocument(), ...instance })
  }
  if (context.path.startsWith('/api')) {
    context.set('Cache-Control', 'no-store')
    const ms = Math.round(performance.now() - began)
    const { method, path, status } = context
    // By its route, which holds no id.
    metrics.noteCall(method, String(context._matchedRoute ?? 'none'), status, ms)
    log.debug({ request, method, path, status, ms }, 'call')
  }
}

/** Under which id a call is told of: the proxy's where one is trusted, else one of its own. */
function requestIdOf(context: Context, trusted: boolean): string {
  const given = trusted ? context.get('X-Request-Id') : ''
  return /^[\w-]{8,64}$/.test(given) ? given : uuidv7()
}

/** The frames of an error without its message, which may quote what was sent. */
function stackWithoutMessage(error: unknown): string | undefined {
  return (error as Error).stack
    ?.split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 6)
    .join('\n')
}

function problemOf(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error
  if (error instanceof DomainProblem) return toHttp(error)
  if (error instanceof Refusal) return toHttp(refused(error.problems))
  if (isAway(error))
    return new HttpProblem(
      503,
      'database-away',
      'The database cannot be reached just now. Nothing was half written; send it again.'
    )
  if (isInTrouble(error))
    return new HttpProblem(
      503,
      'database-in-trouble',
      'The database takes nothing just now. Nothing was half written; send it again.'
    )
  if (error instanceof EpochMissing)
    return new HttpProblem(
      503,
      'key-missing',
      'This server lacks a key that another of the company has. Nothing was written; send it again, and tell whoever runs it.'
    )
  const { status, expose } = error as { status?: number; expose?: boolean }
  if (status === 413) return new HttpProblem(413, 'too-large', 'This is larger than 1 MB; send it in parts.')
  if (status && status < 500 && expose) return new HttpProblem(status, 'refused', 'This request cannot be read.')
  return new HttpProblem(
    500,
    'fault',
    'Something went wrong here. Nothing was half written; try again, then tell the lead.'
  )
}

/** A browser that left, or broke off what it sent, is no fault of ours; a database that did so says the same, which only the caller's own line tells apart. */
function isCallerGone(error: unknown): boolean {
  return ['ERR_STREAM_PREMATURE_CLOSE', 'ECONNRESET', 'EPIPE', 'ECANCELED'].includes(
    (error as { code?: string } | null)?.code ?? ''
  )
}

/** A browser tells where a request comes from: a page of somebody else's may not write in a person's name. */
function mustBeOurs(context: Context): void {
  const origin = context.get('Origin')
  if (origin && (!URL.canParse(origin) || new URL(origin).host !== context.host))
    throw forbidden('This request comes from another site.')
}

/** So long a list waits for what the rules say of what was written before, ms. */
const CATCH_UP_MS = 250

/** What may be asked with a password that somebody else gave. */
const beforeChoosing = new Set(['/session', '/sessions', '/session/password'])

async function callRoute(route: Route, context: Context, services: Services, sessions: Sessions): Promise<void> {
  context.state.sessions = sessions
  context.state.address = addressOf(context)
  // Whoever ends sessions, or changes who may do what, is looked up by what stands, and so is everybody after that.
  const changesWho = route.method !== 'get' && /^\/(sessions?|people)\b/.test(route.path)
  if (changesWho) sessions.forgetKnown()
  const person = await sessions.personOf(context)
  if (route.roles !== 'anyone') {
    if (!person) throw new HttpProblem(401, 'log-in', 'Log in first.')
    if (person.mustChoose && !beforeChoosing.has(route.path))
      throw new HttpProblem(403, 'choose-password', 'Choose a password of your own first.')
    if (!route.roles.includes(person.role)) throw forbidden(`The role ${person.role} may not do this.`)
  }
  if (route.upload) await receiveFile(context, route.upload)
  else if (route.body && !context.is('application/json'))
    throw new HttpProblem(415, 'json-wanted', 'Send JSON, with content-type application/json.')
  const problems: Problem[] = []
  const read = (schema: z.ZodType | undefined, value: unknown, above: (string | number)[]) => {
    if (!schema) return undefined
    const checked = schema.safeParse(value, { reportInput: true })
    if (!checked.success)
      problems.push(...problemsOf(checked.error).map((problem) => ({ ...problem, path: [...above, ...problem.path] })))
    return checked.data
  }
  const params = read(route.params, context.params, ['path'])
  const query = read(route.query, { ...context.query }, ['query'])
  const body = read(route.body, await sentBody(route, context), [])
  if (problems.length)
    throw new HttpProblem(422, 'refused', 'Something in what was sent is not acceptable.', fieldErrors(problems))
  const file = (context.file as { buffer?: Buffer } | undefined)?.buffer ?? null
  // Whoever wrote something finds by it what they look for next.
  if (route.method === 'get' && !route.path.startsWith('/visits/:id')) await services.followUp.caughtUp(CATCH_UP_MS)
  const call = { services, person, params, query, body, context, file } as unknown as Call
  const answer = await Promise.resolve(route.run(call)).finally(() => changesWho && sessions.forgetKnown())
  if (services.config.CHECK_ANSWERS === '1') mustKeepTo(route, answer)
  send(context, route, answer)
}

const receiver = multer({
  storage: multer.memoryStorage(),
  limits: { fileSize: MOST_PHOTO_OCTETS, files: 1, fields: 12, fieldSize: 4_000, parts: 14 }
})

/** Takes a file in, after it is known that this person may send one. */
async function receiveFile(context: Context, field: string): Promise<void> {
  if (!context.is('multipart/form-data'))
    throw new HttpProblem(415, 'form-wanted', 'Send multipart/form-data, the picture as its file.')
  try {
    await receiver.single(field)(context, () => Promise.resolve())
  } catch (error) {
    if ((error as { code?: string }).code === 'LIMIT_FILE_SIZE')
      throw new HttpProblem(413, 'too-large', 'This picture is larger than 12 MB; take it at a lower resolution.', [
        { pointer: `/${field}`, field, detail: 'is larger than 12 MB; take it at a lower resolution' }
      ])
    throw new HttpProblem(400, 'malformed', 'The form cannot be read.', [
      { pointer: '', field: 'form', detail: 'cannot be read; it may have been cut short' }
    ])
  }
}

/** That a handler answered what its contract says. @throws Error naming what is not so */
function mustKeepTo({ name, answer: shape }: Route, { json }: Answer): void {
  if (!(shape instanceof z.ZodType)) return
  const checked = shape.safeParse(JSON.parse(JSON.stringify(json)))
  if (!checked.success) throw new Error(`${name} answers what its contract does not say: ${checked.error.message}`)
}

function send(context: Context, route: Route, answer: Answer): void {
  if (answer.taken) return
  context.status = answer.status ?? (answer.json === undefined && !answer.file ? 204 : (route.status ?? 200))
  if (answer.file) {
    context.type = route.answer as string
    context.set('Content-Disposition', `attachment; filename="${answer.file.name}"`)
    context.body = answer.file.bytes
  } else if (answer.json !== undefined) context.body = answer.json
}

function serveInterface(app: Koa, root: string | undefined): void {
  if (!root || !existsSync(root)) return
  // The API is not compressed: its answers may hold a secret beside what a caller chose.
  app.use(compress({ threshold: 2048, br: { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } } }))
  app.use(
    serve(root, {
      maxage: 365 * 24 * 3600 * 1000,
      immutable: true,
      index: false,
      setHeaders: (response, path) => {
        if (!path.includes('/assets/')) response.setHeader('Cache-Control', 'no-cache')
      }
    })
  )
  app.use(async (context) => {
    if (context.method !== 'GET' || /\.\w+$/.test(context.path))
      throw new HttpProblem(404, 'not-found', 'There is nothing at this address.')
    context.type = 'html'
    context.set('Cache-Control', 'no-cache')
    context.body = await readFile(join(root, 'index.html'))
  })
}

/** The body of a call, where its route takes one: a file as it was received, else JSON of at most so many octets. */
async function sentBody(route: Route, context: Context): Promise<unknown> {
  if (route.upload) return (context.request as { body?: unknown }).body
  if (!route.body) return undefined
  return readJson(context, bodyLimits[route.takes ?? (route.roles === 'anyone' ? 'stranger' : 'usual')])
}
