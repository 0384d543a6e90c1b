import { advisoryApi } from './advisory'
import { catalogueApi } from './catalogue'
import { checksApi } from './checks'
import type { Answered, Contract, Sent } from './contract'
import { dayApi } from './day'
import { figuresApi } from './figures'
import { homesApi } from './homes'
import { housesApi } from './houses'
import { keysApi } from './keys'
import { outboxesApi } from './outboxes'
import { packLinksApi } from './pack-links'
import { peopleApi } from './people'
import { photosApi } from './photos'
import { sessionApi } from './session'
import { standardsApi } from './standards'
import { visitsApi } from './visits'

/** Every call of the API by its name, which is its operationId in the OpenAPI document. */
export const api = {
  ...sessionApi,
  ...dayApi,
  ...homesApi,
  ...visitsApi,
  ...outboxesApi,
  ...photosApi,
  ...packLinksApi,
  ...catalogueApi,
  ...standardsApi,
  ...figuresApi,
  ...advisoryApi,
  ...checksApi,
  ...housesApi,
  ...keysApi,
  ...peopleApi
}
export type Api = typeof api

type NameOf<C extends Pick<Contract, 'method' | 'path'>> = `${Uppercase<C['method']>} ${C['path']}`
type ByName = { [K in keyof Api as NameOf<Api[K]>]: Api[K] }
/** Worked out once for all calls: a type that is made anew at each of them takes the compiler a third of a second there. */
type SentByName = { [N in keyof ByName]: Sent<ByName[N]> }
type AnswerByName = { [N in keyof ByName]: Answered<ByName[N]> }

/** A call as a browser names it: method and path. */
export type CallName = keyof ByName
/** What is put into a call, and what it answers. */
export type SentTo<N extends CallName> = SentByName[N]
export type AnswerOf<N extends CallName> = AnswerByName[N]
/** The calls that need nothing, and those that do. */
export type BareName = { [N in CallName]: object extends SentByName[N] ? N : never }[CallName]
export type FullName = Exclude<CallName, BareName>
