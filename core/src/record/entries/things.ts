import { z } from 'zod'
import { briefFacts } from '../brief'
import { id } from '../fields'
import { origins } from '../origin'
import { anyThingsOf, tableOf, type AnyThing, type VisitRecord } from '../record'
import { setFields } from '../set-fields'
import { storedKinds, things, type StoredKind, type Things } from '../things/all'
import { modelKey } from '../../catalogue/model'
import { fieldKey, presenceKey } from '../keys'
import { entryKind, type EntryDefinition, type Line, type Told } from './kind'

const origin = z.enum(origins).optional()

/** All fields may be left out; null clears one. */
export function someOf<S extends z.ZodRawShape>(facts: z.ZodObject<S>) {
  const shape = Object.fromEntries(
    Object.entries(facts.shape).map(([key, schema]) => [key, (schema as z.ZodType).nullable().optional()])
  )
  return z.strictObject(shape).refine((set) => Object.keys(set).length > 0, 'must set at least one field')
}

/** What sets facts of a thing: any of its fields, null for none. */
export interface SetBody {
  id: string
  set: Record<string, unknown>
  origin?: z.infer<typeof origin>
}

function newThing(kind: StoredKind, id: string, seq: number): AnyThing {
  return { id, facts: {}, meta: {}, addedSeq: seq, removedSeq: null, ...things[kind].begins }
}

function setsFactsOf(kind: StoredKind): EntryDefinition<SetBody> {
  const { facts, label } = things[kind]
  return entryKind<SetBody>({
    body: z.strictObject({ id, set: someOf(facts as z.ZodObject), origin }),
    by: 'anybody',
    // What its fields refer to, the kind of thing tells.
    refersTo: {},
    problem: ({ set }, { knowsModel }) => {
      const key = modelNamed(set)
      return key === null || knowsModel(key)
        ? null
        : { field: ['set', 'model'], message: `no model ${key.replace('@', ' of version ')} is in the catalogue` }
    },
    tells: ({ id, set }) => toldOf(kind, id, set),
    apply: (record, line) => {
      const held = anyThingsOf(record, kind)
      const before = held[line.body.id] ?? newThing(kind, line.body.id, line.seq)
      const { thing, conflicts } = setFields(kind, before, line.body.set, line.body.origin, line, record.conflicts)
      return { [tableOf[kind]]: { ...held, [line.body.id]: thing }, conflicts }
    },
    inverse: ({ id, set }, before) => {
      const held = anyThingsOf(before, kind)[id]
      return held
        ? { kind: `${kind}.set`, body: { id, set: valuesBefore(set, held.facts) } }
        : { kind: 'thing.removed', body: { thing: kind, id } }
    },
    describe: ({ id, set }, names) => {
      const told = things[kind].told?.(set, names.unit) ?? set
      return `${kind === 'unit' ? names.unit(id) : (label ?? kind)}: ${names.values(kind, told)}`
    }
  })
}

/** The model that fields of a box or unit name, as `id@version`; null where they name none. */
export function modelNamed(set: Record<string, unknown>): string | null {
  const { model, modelVersion } = set as { model?: string | null; modelVersion?: number | null }
  return model ? modelKey(model, modelVersion ?? 1) : null
}

/** Every field that was set, by its key. */
const toldOf = (kind: string, id: string, set: Record<string, unknown>): Told[] =>
  Object.entries(set).map(([field, value]) => ({ key: fieldKey(kind, id, field), value }))

function valuesBefore(set: Record<string, unknown>, facts: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.keys(set).map((field) => [field, facts[field] ?? null]))
}

/** The kinds that set facts, one a kind of thing. */
type SetKinds = {
  [K in StoredKind as `${K}.set`]: EntryDefinition<{
    id: string
    set: { [F in keyof z.infer<Things[K]['facts']>]?: z.infer<Things[K]['facts']>[F] | null }
    origin?: z.infer<typeof origin>
  }>
}
const setKinds = Object.fromEntries(
  storedKinds.map((kind) => [`${kind}.set`, setsFactsOf(kind)])
) as unknown as SetKinds

const aThing = z.strictObject({ thing: z.enum(storedKinds), id })
type AThing = z.infer<typeof aThing>

function mark(record: VisitRecord, { thing, id }: AThing, removedSeq: number | null): Partial<VisitRecord> {
  const table = tableOf[thing]
  const held = anyThingsOf(record, thing)[id]
  return held ? { [table]: { ...record[table], [id]: { ...held, removedSeq } } } : {}
}

/** Facts set, and things taken out and put back. */
export const thingKinds = {
  'brief.set': entryKind({
    body: z.strictObject({ set: someOf(briefFacts), origin }),
    by: 'anybody',
    refersTo: {},
    tells: ({ set }) => toldOf('brief', 'brief', set),
    apply: (record, line) => {
      const { set, origin } = line.body
      const { thing, conflicts } = setFields('brief', record.brief, set, origin, line, record.conflicts)
      return { brief: thing, conflicts }
    },
    inverse: ({ set }, { brief }) => ({ kind: 'brief.set', body: { set: valuesBefore(set, brief.facts) } }),
    describe: ({ set }, names) => `Brief: ${names.values('brief', set)}`
  }),
  ...setKinds,
  'thing.removed': entryKind({
    body: aThing,
    by: 'anybody',
    refersTo: { id: ({ thing }: AThing) => thing },
    tells: ({ thing, id }) => [{ key: presenceKey(thing, id), value: false }],
    apply: (record, { body, seq }: Line<AThing>) => mark(record, body, seq),
    inverse: (body) => ({ kind: 'thing.restored', body }),
    describe: ({ thing }) => `A ${thing} taken out`
  }),
  'thing.restored': entryKind({
    body: aThing,
    by: 'anybody',
    refersTo: { id: ({ thing }: AThing) => thing },
    tells: ({ thing, id }) => [{ key: presenceKey(thing, id), value: true }],
    apply: (record, { body }: Line<AThing>) => mark(record, body, null),
    inverse: (body) => ({ kind: 'thing.removed', body }),
    describe: ({ thing }) => `A ${thing} put back`
  })
}
