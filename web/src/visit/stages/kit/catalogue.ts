import { modelOf, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { useVisit } from '../../session/visit-state'

/** The model of a unit of the open visit. */
export function useModelOf(unit: Unit): Model | undefined {
  return modelOf(
    unit,
    useVisit((state) => state.catalogue)
  )
}
