import { describe, expect, it } from 'vitest'
import type { Model } from '@pasado/core/catalogue/model'
import { modelFaults, modelFaultsOf, type ModelFaultCode } from '@pasado/core/catalogue/validate'
import { demoModels } from '@pasado/demo/models/all'

const heron = demoModels.find(({ id }) => id === 'ostrel-heron')!
const planted: [ModelFaultCode, string, (model: Model) => void][] = [
  [
    'unknown-name',
    'a lamp that is not there',
    (model) => {
      model.states[1]!.lamps[0]!.lamp = 'power'
    }
  ],
  ['unknown-name', 'a move to nowhere', (model) => model.moves.push({ from: 'well', to: 'nowhere' })],
  [
    'unknown-name',
    'a press that nothing confirms',
    (model) => {
      model.buttons[0]!.presses[0]!.confirms = 'sparkling'
    }
  ],
  ['repeated-name', 'a state twice', (model) => model.states.push(structuredClone(model.states[0]!))],
  [
    'unreached-state',
    'a state no move leads to',
    (model) =>
      model.states.push({
        ...structuredClone(model.states[1]!),
        state: 'asleep',
        lamps: [{ lamp: 'status', colour: 'purple', pattern: 'solid' }]
      })
  ],
  [
    'unreached-good-state',
    'a good state beyond reach',
    (model) => {
      model.states.push(
        {
          ...structuredClone(model.states[5]!),
          state: 'blessed',
          lamps: [{ lamp: 'status', colour: 'cyan', pattern: 'solid' }]
        },
        {
          ...structuredClone(model.states[1]!),
          state: 'island',
          lamps: [{ lamp: 'status', colour: 'purple', pattern: 'solid' }]
        }
      )
      model.moves.push({ from: 'island', to: 'blessed' }, { from: 'blessed', to: 'island' })
    }
  ],
  [
    'no-good-state',
    'nothing is good',
    (model) => {
      for (const row of model.states) row.good = false
    }
  ],
  [
    'states-alike',
    'two looks that are one',
    (model) => {
      model.states.find(({ state }) => state === 'no-internet')!.lamps[0] = {
        lamp: 'status',
        colour: 'white',
        pattern: 'solid'
      }
    }
  ],
  [
    'unknown-expectation',
    'a step that waits for what the model lacks',
    (model) => {
      model.methods[0]!.steps[0]!.expect = 'sparkling'
    }
  ],
  [
    'times-out-of-order',
    'at most before usually',
    (model) => {
      model.states[1]!.maxMin = 0.5
    }
  ],
  [
    'times-out-of-order',
    'a wait that falls',
    (model) => {
      model.methods[0]!.steps[0]!.wait!.mostMin = 0.1
    }
  ],
  [
    'firmware-never-installed',
    'a release that needs what was never made',
    (model) => {
      model.firmware.releases[3]!.needs = '3.0.5'
    }
  ],
  [
    'minimum-not-offered',
    'a minimum above everything',
    (model) => {
      model.firmware.minimum = '9.0'
    }
  ],
  [
    'power-without-budget',
    'a powered port and no budget',
    (model) => {
      model.ports[1]!.powerOutW = 15.4
    }
  ],
  [
    'no-unit-in-box',
    'a set without a unit',
    (model) => {
      model.kits![0]!.items = [{ item: 'start card', count: 1 }]
    }
  ],
  [
    'repeated-name',
    'an item twice',
    (model) => {
      model.box.push({ ...model.box[0]! })
    }
  ],
  [
    'firmware-repeated',
    'one version twice',
    (model) => {
      model.firmware.releases[3]!.version = 'v3.0.2.0'
    }
  ],
  [
    'not-named',
    'nobody said what it is',
    (model) => {
      model.name = 'Model'
    }
  ],
  [
    'nothing-to-connect',
    'neither a port nor a radio',
    (model) => {
      model.ports = []
      model.radios = []
    }
  ]
]

describe('the catalogue', () => {
  it.each(demoModels.map((model) => [model.id, model] as const))('%s has no fault', (_, model) =>
    expect(modelFaultsOf(model)).toEqual([])
  )

  it.each(planted)('%s is found: %s', (code, _, plant) => {
    const model = structuredClone(heron)
    plant(model)
    const faults = modelFaultsOf(model)
    expect(faults.map((fault) => fault.code)).toContain(code)
    for (const { path, message } of faults) expect([path.length > 0, message.length > 10]).toEqual([true, true])
  })

  it('every fault that can be found is planted above', () => {
    expect([...modelFaults].filter((code) => !planted.some(([item]) => item === code))).toEqual([])
  })
})
