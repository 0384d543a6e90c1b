import type { Catalogue } from '../catalogue/model'
import type { Unsettled } from '../history/conflicts'
import { choices, type Choice } from '../record/answers'
import type { ThingKind } from '../record/facts'
import { isPresence } from '../record/keys'
import type { VisitRecord } from '../record/record'
import type { Finding } from '../rules/finding'
import { wordsOf } from '../values/plain'
import { fieldWords, thingName, valueWords } from './field-words'

/**
 * What two people set who had not seen each other, and each value they gave it, for people; secrets are never in one.
 * @param findings what the rules say of the visit: they know what a rule asks, and what it is called
 */
export function conflictWords(
  record: VisitRecord,
  catalogue: Catalogue,
  conflict: Unsettled,
  findings: readonly Finding[]
): { what: string; valueOf: (value: unknown) => string } {
  const { kind, id, field } = conflict
  const name = thingName(record, id)
  const of = name ? ` of ${name}` : ''
  switch (kind) {
    case 'secret':
      return { what: `${wordsOf(field)}${of}`, valueOf: () => 'a secret' }
    case 'answer': {
      const [rule = '', subject] = id.split('/')
      const about = subject ? (thingName(record, subject) ?? wordsOf(subject)) : null
      const known = findings.find((finding) => finding.rule === rule)
      return { what: `${known?.asks ?? known?.name ?? rule}${about ? ` (${about})` : ''}`, valueOf: String }
    }
    case 'choice':
      return { what: choices[id as Choice], valueOf: String }
    case 'custody':
      return { what: 'who keeps the secrets', valueOf: (value) => wordsOf((value as { custody: string }).custody) }
    case 'prompt':
      return { what: `prompt ${wordsOf(field)}${of}`, valueOf: String }
    case 'item':
      return {
        what: `${field}${of}`,
        valueOf: (value) => (value as { state: string } | null)?.state ?? 'not looked at'
      }
  }
  if (isPresence(conflict))
    return {
      what: `whether ${name ?? `a ${kind}`} is here`,
      valueOf: (value) => (value === false ? 'taken out' : 'still here')
    }
  return {
    what: `${fieldWords(field)}${of}`,
    valueOf: (value) => valueWords(record, catalogue, kind as ThingKind, field, value) ?? 'nothing'
  }
}
