import type { z } from 'zod'
import { briefFacts } from './brief'
import { things, type StoredKind, type Things } from './things/all'

/** What holds facts: the brief, or a thing of the visit. */
export type ThingKind = 'brief' | StoredKind

type FactsSchema<K extends ThingKind> = K extends StoredKind ? Things[K]['facts'] : typeof briefFacts
export type Facts<K extends ThingKind> = Partial<z.infer<FactsSchema<K>>>

/** The schema of the facts of a kind. */
export function factsOf<K extends ThingKind>(kind: K): FactsSchema<K> {
  const stored: StoredKind | null = kind === 'brief' ? null : kind
  return (stored === null ? briefFacts : things[stored].facts) as FactsSchema<K>
}

/**
 * Checks one value of one field as the server will.
 * @returns the value as it is kept, or what is wrong with it
 */
export function checkField<K extends ThingKind>(
  kind: K,
  field: string,
  value: unknown
): { value: unknown } | { problem: string } {
  const shape = factsOf(kind).shape as Record<string, z.ZodType>
  const schema = shape[field]
  if (!schema) return { problem: 'is not a field that is known here' }
  const result = schema.safeParse(value)
  if (result.success) return { value: result.data }
  const issue = result.error.issues[0]!
  return {
    problem:
      issue.code === 'too_big' && /^Too/.test(issue.message)
        ? `is too long; at most ${issue.maximum} characters`
        : issue.message.replace(/^Invalid .*/, 'is not acceptable here; choose or type it again')
  }
}
