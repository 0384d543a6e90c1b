import { modelOf, type Catalogue, type Model } from '../../catalogue/model'
import { farthestFirst } from './upstream'
import { unitName, type Unit, type VisitRecord } from '../../record/record'
import { updateWork } from '../../catalogue/firmware-work'

/** One unit's place in the order of updating. */
export interface UpdateStep {
  unit: Unit
  name: string
  model: Model
  path: string[]
  /** Minutes for all its installs; null where the catalogue does not tell. */
  usualMin: number | null
  mostMin: number | null
  /** Names of units that are cut off while it starts again. */
  cutsOff: string[]
  /** Steps of one round may run side by side: none of them is reached through another. */
  round: number
}

/** Every unit's updates in an order, and how long they take. */
export interface UpdateOrder {
  steps: UpdateStep[]
  /** Minutes with the units of a round side by side, and one after another. */
  besideMin: number
  afterMin: number
}

/**
 * In which order the units are updated so that none loses its way to the internet in the middle of an install: the farthest from the
 * line first, and a unit only when all that is reached through it is done. Units that wait for nobody run side by side.
 */
export function updateOrder(record: VisitRecord, catalogue: Catalogue): UpdateOrder {
  const all = farthestFirst(record, catalogue)
  const behind = (id: string): string[] =>
    all.filter(({ through }) => through === id).flatMap(({ unit }) => [unit.id, ...behind(unit.id)])
  const steps: UpdateStep[] = []
  for (const { unit } of all) {
    const model = modelOf(unit, catalogue)
    const { firmwareBefore, firmwareAfter } = unit.facts
    const runs = firmwareAfter ?? firmwareBefore
    if (!model || runs === undefined) continue
    const { path, usualMin, mostMin } = updateWork(model, runs)
    if (path.length === 0) continue
    const cut = behind(unit.id)
    const round = Math.max(-1, ...steps.filter((step) => cut.includes(step.unit.id)).map((step) => step.round)) + 1
    steps.push({
      unit,
      name: unitName(unit),
      model,
      path,
      usualMin,
      mostMin,
      cutsOff: all.filter((upstream) => cut.includes(upstream.unit.id)).map((upstream) => unitName(upstream.unit)),
      round
    })
  }
  steps.sort((a, b) => a.round - b.round)
  const rounds = [...new Set(steps.map(({ round }) => round))]
  return {
    steps,
    besideMin: rounds.reduce(
      (sum, round) =>
        sum + Math.max(...steps.filter((step) => step.round === round).map(({ usualMin }) => usualMin ?? 0)),
      0
    ),
    afterMin: steps.reduce((sum, { usualMin }) => sum + (usualMin ?? 0), 0)
  }
}
