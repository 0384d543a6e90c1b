import { bands, type Band } from '../../values/band'
import type { Unit } from '../../record/record'
import { modelKey, type Catalogue } from '../../catalogue/model'

/** The bands that a unit sends on, by its model; all where it is not known which those are. */
export function bandsSentBy(unit: Unit | undefined, catalogue: Catalogue): readonly Band[] {
  const radios = unit && catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))?.radios
  return radios?.length ? bands.filter((band) => radios.some((radio) => radio.band === band)) : bands
}
