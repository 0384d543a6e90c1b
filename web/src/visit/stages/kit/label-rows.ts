import { labelFields, secretLabelFields, type LabelField } from '@pasado/core/labels/fields'
import type { ParsedLabel, Proposal } from '@pasado/core/labels/parse'
import { checkField } from '@pasado/core/record/facts'
import type { Unit } from '@pasado/core/record/record'
import { secretProblem } from '../../session/secrets'

/** Where each field of a label is kept. */
export const factOf: Partial<Record<LabelField, 'serial' | 'mac' | 'defaultSsid' | 'pageAddress'>> = {
  serial: 'serial',
  mac: 'mac',
  ssid: 'defaultSsid',
  address: 'pageAddress'
}
export const purposeOf = { key: 'label-key', 'setup-code': 'setup-code', login: 'label-login' } as const

/** One value of the label while it is looked at. */
export interface LabelRow {
  field: LabelField
  value: string
  /** True where the person takes it over. */
  taken: boolean
  /** True once the person has typed another value. */
  corrected: boolean
  proposal: Proposal | null
}

/** A row for each field that was found, and an empty one for each that the model's label has besides. */
export function rowsOf({ proposals, oddities }: ParsedLabel, expected: readonly LabelField[]): LabelRow[] {
  // From what looks like another unit's label nothing is taken unless the person says so.
  const another = oddities.some(({ code }) => code === 'another-model')
  return labelFields.flatMap((field): LabelRow[] => {
    if (field === 'model') return []
    const proposal = proposals.find((candidate) => candidate.field === field) ?? null
    if (!proposal && !expected.includes(field)) return []
    return [
      {
        field,
        value: proposal?.value ?? '',
        taken: !another && proposal !== null && proposal.trust !== 'unsure',
        corrected: false,
        proposal
      }
    ]
  })
}

/** What is wrong with a value as it stands, in words; null where it can be taken over. */
export function rowProblem({ field, value }: LabelRow): string | null {
  if (value.trim() === '') return 'is empty'
  if (secretLabelFields.has(field)) return secretProblem(purposeOf[field as 'key'], value.trim(), false)
  const checked = checkField('unit', factOf[field]!, value.trim())
  return 'problem' in checked ? checked.problem : null
}

/** Another unit of the visit that has this very serial or MAC address already. */
export function twinOf({ field, value }: LabelRow, unit: Unit, units: readonly Unit[]): Unit | null {
  if (field !== 'serial' && field !== 'mac') return null
  const checked = checkField('unit', field, value.trim())
  if ('problem' in checked) return null
  return (
    units.find(
      ({ id, facts }) =>
        id !== unit.id &&
        facts[field] !== undefined &&
        facts[field].toLowerCase() === String(checked.value).toLowerCase() &&
        (field === 'mac' || facts.model === unit.facts.model)
    ) ?? null
  )
}
