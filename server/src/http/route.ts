import type { Context } from 'koa'
import type { Author } from '@pasado/core/record/attribution'
import { id } from '@pasado/core/record/fields'
import { z } from 'zod'
import type { Person, PersonRole } from '../db/people'
import type { Services } from '../services'
import type { BodySize } from './body'

/** What a route answers: a JSON body, a file, or nothing (204). */
export interface Answer {
  status?: number
  json?: unknown
  file?: { name: string; type: string; bytes: Buffer | string }
  /** The route has taken the response over itself. */
  taken?: true
}

/** One call of a route: everything checked already. */
export interface Call<P = unknown, Q = unknown, B = unknown> {
  services: Services
  person: Person
  params: P
  query: Q
  body: B
  context: Context
  /** The file that was sent, where the route takes one. */
  file: Buffer | null
}

/** A route as it is registered and as the OpenAPI document describes it. */
export interface Route {
  method: 'get' | 'post' | 'delete'
  /** Path below /api, parameters as `:name`. */
  path: string
  does: string
  /** Who may call it; `anyone` needs no session. */
  roles: readonly PersonRole[] | 'anyone'
  params?: z.ZodType
  query?: z.ZodType
  body?: z.ZodType
  /** How much its body may be; left out: what a stranger or a person usually sends. */
  takes?: BodySize
  /** The name of the file that is sent as multipart/form-data, its other fields being the body. */
  upload?: string
  run: (call: Call<never, never, never>) => Promise<Answer>
}

/** A person as entries name them. */
export function authorOf({ id, name, role }: Person): Author {
  return { id, name, role }
}

/** From which outbox something is asked for, and what had been seen there when its look was taken. */
export const outboxLook = z.strictObject({ from: id, base: z.int().min(0), own: z.int().min(0).optional() })

export const everyRole: readonly PersonRole[] = ['technician', 'lead', 'office']

/** Defines a route, its handler typed by its schemas. */
export function route<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType>(definition: {
  method: Route['method']
  path: string
  does: string
  roles: Route['roles']
  params?: P
  query?: Q
  body?: B
  takes?: BodySize
  upload?: string
  run: (call: Call<z.output<P>, z.output<Q>, z.output<B>>) => Promise<Answer>
}): Route {
  return definition
}
