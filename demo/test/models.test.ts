import { describe, expect, it } from 'vitest'
import { model } from '@pasado/core/catalogue/model'
import { followInput, followLamps } from '@pasado/core/catalogue/follow'
import { demoModels } from '@pasado/demo/models/all'

describe.each(demoModels.map((demoModel) => [demoModel.id, demoModel] as const))('%s', (_, one) => {
  it('is a model by the schema', () => expect(model.safeParse(one).error?.issues ?? []).toEqual([]))

  it('has a lamp table that can be followed, with every good state in reach', () => {
    const table = {
      states: one.states.map(({ state, lamps, maxMin }) => ({
        state,
        lamps,
        ...(maxMin === undefined ? {} : { maxMin })
      })),
      moves: one.moves,
      start: one.start
    }
    expect(followInput.safeParse({ ...table, seen: [] }).error?.issues ?? []).toEqual([])
    for (const good of one.states.filter((row) => row.good)) {
      expect(followLamps({ ...table, seen: [{ atMin: 0, lamps: good.lamps }] }).candidates).toContain(good.state)
    }
  })

  it('names only lamps and states it has', () => {
    const lamps = new Set(one.lamps.map(({ id }) => id))
    const states = new Set(one.states.map(({ state }) => state))
    for (const row of one.states) for (const look of row.lamps) expect(lamps).toContain(look.lamp)
    for (const step of one.methods.flatMap(({ steps }) => steps)) if (step.expect) expect(states).toContain(step.expect)
    for (const press of one.buttons.flatMap(({ presses }) => presses))
      if (press.confirms) expect(states).toContain(press.confirms)
  })
})
