import { modelKey, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { useVisit } from '../../session/visit-state'

/** The model of a unit, in the version that its record names. */
export function modelOf(unit: Unit, catalogue: Catalogue): Model | undefined {
  return catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
}

/** The model of a unit of the open visit. */
export function useModelOf(unit: Unit): Model | undefined {
  return modelOf(
    unit,
    useVisit((state) => state.catalogue)
  )
}
