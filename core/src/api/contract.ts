import { z } from 'zod'

/** What a person of the company may be. */
export const personRoles = ['technician', 'lead', 'office'] as const
export type PersonRole = (typeof personRoles)[number]
export const everyRole: readonly PersonRole[] = ['technician', 'lead', 'office']
export const inTheField = ['technician', 'lead'] as const satisfies readonly PersonRole[]

/** How much a body may be: what a stranger sends, what a person usually sends, or a whole file. */
export type BodySize = 'stranger' | 'usual' | 'file'

/** A call of the API as both sides know it: where it goes, who may make it, what it takes and what it answers. */
export interface Contract {
  method: 'get' | 'post' | 'delete'
  /** Path below /api, parameters as `:name`. */
  path: string
  does: string
  /** Who may call it; `anyone` needs no session. */
  roles: readonly PersonRole[] | 'anyone'
  params?: z.ZodObject
  query?: z.ZodType
  body?: z.ZodType
  /** How much its body may be; left out: what a stranger or a person usually sends. */
  takes?: BodySize
  /** The name of the file that is sent as multipart/form-data, its other fields being the body. */
  upload?: string
  /** The JSON that it answers, the type of a file, or nothing. */
  answer: z.ZodType | `${string}/${string}` | 'nothing'
  /** What it answers where something is made; 200 otherwise, 204 with nothing. */
  status?: 201
}

/** Defines a call. */
export const contract = <const C extends Contract>(call: C): C => call

type Field<C, K extends string> = C extends { [F in K]: infer S extends z.ZodType } ? S : undefined
type Output<S> = S extends z.ZodType ? z.output<S> : undefined
type Input<S> = S extends z.ZodType ? z.input<S> : undefined

/** What the server is given of a call, checked and brought into form. */
export interface Given<C extends Contract> {
  params: Output<Field<C, 'params'>>
  query: Output<Field<C, 'query'>>
  body: Output<Field<C, 'body'>>
}

/** What a browser puts into a call; what it has no use for is left out. */
export type Sent<C> = Filled<'params', Field<C, 'params'>> &
  Filled<'query', Field<C, 'query'>> &
  Filled<'body', Field<C, 'body'>>
type Filled<K extends string, S> = S extends undefined
  ? { [F in K]?: undefined }
  : object extends Input<S>
    ? { [F in K]?: Input<S> }
    : { [F in K]: Input<S> }

/** What a browser gets. */
export type Answered<C> = Output<Field<C, 'answer'>>

/** What a server may tell for an answer: moments as they are, which JSON writes as texts. */
export type Told<T> = T extends string
  ? T | Date
  : T extends readonly (infer E)[]
    ? readonly Told<E>[]
    : T extends object
      ? { [K in keyof T]: Told<T[K]> }
      : T

/** An answer whose shape core's own types tell: nothing of it is checked. */
export const shapedAs = <T>(): z.ZodType<T> => z.custom<T>()

/** A moment as JSON tells it. */
export const moment = z.iso.datetime({ offset: true })
/** Where the next page of a list begins; null where there is none. */
export const nextPage = z.string().nullable()
/** From which outbox something is asked for, and what had been seen there when its look was taken. */
export const outboxLook = z.strictObject({ from: z.uuid(), base: z.int().min(0), own: z.int().min(0).optional() })
