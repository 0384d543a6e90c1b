import type { LabelField } from '@pasado/core/labels/fields'
import type { ParsedLabel } from '@pasado/core/labels/parse'
import type { LabelValues } from '@pasado/demo/labels/values'

/** What a label says, by the fields that are read off it; the model is known before. */
export function printedOn(values: LabelValues): Map<LabelField, string> {
  const { serial, mac, ssid, key, setupCode, address, user, password } = values
  const printed: [LabelField, string | undefined][] = [
    ['serial', serial],
    ['mac', mac],
    ['ssid', ssid],
    ['key', key],
    ['setup-code', setupCode],
    ['address', address],
    ['login', user === undefined ? undefined : `${user} / ${password}`]
  ]
  return new Map(printed.filter((value): value is [LabelField, string] => value[1] !== undefined))
}

/** How a reading compares with what is printed. */
export interface Comparison {
  fields: number
  right: number
  certain: number
  /** Fields shown as certain that are not what is printed: there must be none. */
  wronglyCertain: LabelField[]
}

/** Compares what was read with what is printed, field by field. */
export function compareLabel(printed: ReadonlyMap<LabelField, string>, { proposals }: ParsedLabel): Comparison {
  const byField = new Map(proposals.map((proposal) => [proposal.field, proposal] as const))
  const certain = proposals.filter(({ field, trust }) => trust === 'certain' && field !== 'model')
  return {
    fields: printed.size,
    right: [...printed].filter(([field, value]) => byField.get(field)?.value === value).length,
    certain: certain.length,
    wronglyCertain: certain.filter(({ field, value }) => printed.get(field) !== value).map(({ field }) => field)
  }
}
