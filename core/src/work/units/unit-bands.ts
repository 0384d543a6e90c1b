import { bands, type Band } from '../../values/band'
import { modelOf, type Catalogue } from '../../catalogue/model'

/** The bands that a unit, or what stays, sends on, by its model; all where it is not known which those are. */
export function bandsSentBy(
  equipment: { facts: { model?: string; modelVersion?: number } } | null | undefined,
  catalogue: Catalogue
): readonly Band[] {
  const radios = equipment && modelOf(equipment, catalogue)?.radios
  return radios?.length ? bands.filter((band) => radios.some((radio) => radio.band === band)) : bands
}
