import { modelKey, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { useVisit } from '../store'

/** Each model of a catalogue in its newest version. */
export function newestModels(catalogue: Catalogue): Map<string, Model> {
  const newest = new Map<string, Model>()
  for (const model of catalogue.values()) if ((newest.get(model.id)?.version ?? 0) < model.version) newest.set(model.id, model)
  return newest
}

/** The model of a unit, in the version that its record names. */
export function useModelOf(unit: Unit): Model | undefined {
  const catalogue = useVisit((state) => state.catalogue)
  return catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
}
