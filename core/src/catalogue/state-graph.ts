import type { Model } from './model'

/** Where a state stands when a model's states are drawn: how many moves from the start, and its place among those. */
export interface PlacedState {
  state: string
  layer: number
  row: number
}

/** Lays a model's states out by how many moves they are from the start; what cannot be reached stands in a layer of its own at the end. */
export function placeStates(model: Pick<Model, 'states' | 'moves' | 'start'>): PlacedState[] {
  const layerOf = new Map([[model.start, 0]])
  for (const [state, layer] of layerOf) {
    for (const move of model.moves) if (move.from === state && !layerOf.has(move.to)) layerOf.set(move.to, layer + 1)
  }
  const last = Math.max(...layerOf.values()) + 1
  const filled = new Map<number, number>()
  return model.states.map(({ state }) => {
    const layer = layerOf.get(state) ?? last
    const row = filled.get(layer) ?? 0
    filled.set(layer, row + 1)
    return { state, layer, row }
  })
}
