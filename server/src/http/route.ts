import type { Context } from 'koa'
import type { z } from 'zod'
import type { Contract, Given, Told } from '@pasado/core/api/contract'
import type { Author } from '@pasado/core/record/attribution'
import type { Caller, Person } from '../db/people'
import type { Services } from '../services'

/** What a route answers: a JSON body, a file, or nothing (204). */
export interface Answer {
  status?: number
  json?: unknown
  file?: { name: string; bytes: Buffer | string }
  /** The route has taken the response over itself. */
  taken?: true
}

/** What a handler answers, by its contract. */
export type AnswerTo<C extends Contract> = C['answer'] extends z.ZodType
  ? { status?: 200; json: Told<z.output<C['answer']>> }
  : C['answer'] extends 'nothing'
    ? Record<string, never>
    : { file: { name: string; bytes: Buffer | string } } | { taken: true }

/** One call of a route: everything checked already. */
export interface Call<C extends Contract = Contract> extends Given<C> {
  services: Services
  /** Who calls; where a session is not needed perhaps nobody. */
  person: C['roles'] extends 'anyone' ? Caller | null : Caller
  context: Context
  /** The file that was sent, where the route takes one. */
  file: Buffer | null
}

/** A call of the API with what answers it. */
export interface Route extends Contract {
  /** The name of the call, its operationId. */
  name: string
  run: (call: Call) => Promise<Answer>
}

/** The routes of a part of the API: a handler for each of its calls, typed by its contract. */
export function routesOf<A extends Readonly<Record<string, Contract>>>(
  api: A,
  handlers: { [K in keyof A]: (call: Call<A[K]>) => Promise<AnswerTo<A[K]>> }
): Route[] {
  return Object.entries(api).map(([name, contract]) => ({
    ...contract,
    name,
    run: handlers[name] as unknown as Route['run']
  }))
}

/** A person as entries name them. */
export function authorOf({ id, name, role }: Person): Author {
  return { id, name, role }
}
