import type { Model } from '@pasado/core/catalogue/model'
import { useEditing, valueAt } from './draft'

/** A list of names as options to choose from. */
export const optionsOf = (list: readonly string[]) =>
  list.map((value) => ({ value, label: value.replaceAll('-', ' ') }))

/** The states that the draft has lamps for, as options to choose from. */
export const useStates = () =>
  optionsOf(
    ((valueAt(useEditing().draft, ['states']) as Model['states'] | undefined) ?? []).map(({ state }) => state)
  ).map(({ value }) => ({ value, label: value }))
