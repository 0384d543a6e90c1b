import { describe, expect, it } from 'vitest'
import { nearestStates } from '@pasado/core/catalogue/nearest'
import { demoModels } from '@pasado/demo/models/all'

const near = (
  model: string,
  colour: string,
  pattern: 'solid' | 'blink' | 'pulse' | 'fast-blink' | 'off',
  lamp = 'status'
) =>
  nearestStates(
    demoModels.find(({ id }) => id === model)!,
    [{ lamp, colour, pattern }]
  ).map(({ lamps }) => lamps.map((look) => `${look.colour} ${look.pattern}`).join())

describe('the nearest look', () => {
  it('is amber for orange, a blink for a slow pulse; none where a state looks just so', () => {
    expect(near('fenmarrow-lattice-3', 'orange', 'solid')[0]).toMatch(/^amber solid/)
    expect(near('ostrel-heron', 'blue', 'pulse')[0]).toBe('blue blink')
    expect(near('ostrel-heron', 'blue', 'blink')).toEqual([])
    expect(near('ostrel-heron', 'off', 'off')).toEqual([])
  })

  it('is none where nothing is near: green is not red, nor steady blinking', () => {
    for (const model of demoModels) {
      for (const state of nearestStates(model, [{ lamp: model.lamps[0]!.id, colour: 'green', pattern: 'solid' }]))
        expect(state.lamps.find(({ lamp }) => lamp === model.lamps[0]!.id)!.pattern).toBe('solid')
    }
    expect(near('ostrel-heron', 'red', 'solid').filter((look) => /blue|white|green/.test(look))).toEqual([])
  })
})
