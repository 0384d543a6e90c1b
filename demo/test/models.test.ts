import { describe, expect, it } from 'vitest'
import { model } from '@pasado/core/catalogue/model'
import { followInput, followLamps } from '@pasado/core/catalogue/follow'
import { demoModels } from '@pasado/demo/models/all'

describe.each(demoModels.map((demoModel) => [demoModel.id, demoModel] as const))('%s', (_, item) => {
  it('is a model by the schema', () => expect(model.safeParse(item).error?.issues ?? []).toEqual([]))

  it('has a lamp table that can be followed, with every good state in reach', () => {
    const table = {
      states: item.states.map(({ state, lamps, maxMin }) => ({
        state,
        lamps,
        ...(maxMin === undefined ? {} : { maxMin })
      })),
      moves: item.moves,
      start: item.start
    }
    expect(followInput.safeParse({ ...table, seen: [] }).error?.issues ?? []).toEqual([])
    for (const good of item.states.filter((row) => row.good)) {
      expect(followLamps({ ...table, seen: [{ atMin: 0, lamps: good.lamps }] }).candidates).toContain(good.state)
    }
  })

  it('names only lamps and states it has', () => {
    const lamps = new Set(item.lamps.map(({ id }) => id))
    const states = new Set(item.states.map(({ state }) => state))
    for (const row of item.states) for (const look of row.lamps) expect(lamps).toContain(look.lamp)
    for (const step of item.methods.flatMap(({ steps }) => steps))
      if (step.expect) expect(states).toContain(step.expect)
    for (const press of item.buttons.flatMap(({ presses }) => presses))
      if (press.confirms) expect(states).toContain(press.confirms)
  })
})
