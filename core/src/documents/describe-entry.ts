import type { Catalogue } from '../catalogue/model'
import { kindOf } from '../record/entries/all'
import type { Naming } from '../record/entries/kind'
import type { Placed } from '../record/entry'
import { equipmentOf } from '../record/equipment'
import type { VisitRecord } from '../record/record'
import { causes } from '../work/diagnose/causes'
import { observationOf } from '../work/diagnose/observations'
import { fieldWords, valueWords } from './field-words'

/**
 * What an entry says, in words; secrets are never in one.
 * @param moment how a moment is told, from its ISO text
 */
export function describeEntry(
  entry: Placed,
  record: VisitRecord,
  catalogue: Catalogue,
  moment: (iso: string) => string
): string {
  const names: Naming = {
    unit: (id) => equipmentOf(record, id)?.name ?? 'a unit',
    values: (kind, set) =>
      Object.entries(set)
        .map(
          ([field, value]) => `${fieldWords(field)} ${valueWords(record, catalogue, kind, field, value) ?? 'cleared'}`
        )
        .join(' · '),
    moment,
    cause: (id) => causes.find((cause) => cause.id === id)?.name ?? id,
    observation: describeObservation
  }
  return kindOf(entry.kind).describe(entry.body, names)
}

function describeObservation(id: string, answer: string | null): string {
  const observation = observationOf(id)
  const answered = observation?.answers.find((candidate) => candidate.id === answer)?.label ?? answer
  return `${observation?.asks ?? id} ${answered ?? 'taken back'}`
}
