import { causes } from './causes'
import { looks } from './looks'

/** Something to look at or to try, and what can come of it. The first answer is what a sound home gives. */
export interface Observation {
  id: string
  asks: string
  answers: readonly { id: string; label: string }[]
  /** Minutes that it takes, walking included. */
  minutes: number
  /** Where it stands in the fixed order from cheap to costly that good technicians go by. */
  order: number
}

const helpedOrPartly = [
  { id: 'not', label: 'it did not help' },
  { id: 'partly', label: 'it helped, but something is still wrong' },
  { id: 'helped', label: 'it works now' }
] as const

export type ObservationId = (typeof looks)[number]['id']
export const observations: readonly (Observation & { id: ObservationId })[] = looks.map((observation, at) => ({
  ...observation,
  order: at + 1
}))

/** Whether a mend that was tried helped: kept as an observation like any other. */
const mends: readonly Observation[] = causes.map(({ id, remedy, remedyMin }) => ({
  id: mendedId(id),
  asks: `${remedy} Does it work then?`,
  answers: helpedOrPartly,
  minutes: remedyMin,
  order: 99
}))

/** Under which name it is kept whether the mend of a cause helped. */
export function mendedId(cause: string): string {
  return `mended.${cause}`
}

/** An observation by its id; undefined for one this version does not know. */
export const observationOf = (id: string): Observation | undefined =>
  observations.find((observation) => observation.id === id) ?? mends.find((remedy) => remedy.id === id)
