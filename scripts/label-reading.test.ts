import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { drawLabel, designFor, labelDesigns } from '@pasado/demo/labels/draw'
import { demoLabels } from '@pasado/demo/labels/demo-units'
import { labelValues } from '@pasado/demo/labels/values'
import { photograph } from '@pasado/demo/labels/wear'
import { demoModels } from '@pasado/demo/models/all'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { fitsMask } from '@pasado/core/values/mask'
import { eyesOn, pixelsOf, textReader } from '../bench/label-eyes'
import { compareLabel, printedOn } from '../bench/label-trial'
import { knownModels } from '@pasado/core/labels/known-models'
import { readLabel, type ReadingStep } from '../web/src/labels/read-label'

const models = knownModels(demoModels)
let text: Awaited<ReturnType<typeof textReader>>
beforeAll(async () => {
  text = await textReader()
})
afterAll(() => text.stop())

async function read(id: string, number: number, condition: 'clean' | 'worn' | 'bad') {
  const model = demoModels.find((demoModel) => demoModel.id === id)!
  const values = labelValues(model, number)
  const photo = await pixelsOf(await photograph(await drawLabel(values), condition, number).encode('png'))
  const steps: ReadingStep[] = []
  const parsed = await readLabel(
    eyesOn(photo, text.read),
    models,
    { model: models.find((knownModel) => knownModel.id === id)!, fields: model.label },
    (step) => steps.push(step)
  )
  return { parsed, steps, compared: compareLabel(printedOn(values), parsed) }
}

describe('labels of the demo units', () => {
  it('are of every design, each unit its own, in the forms of its model', () => {
    expect(new Set(demoModels.map(({ maker }) => designFor(maker)))).toEqual(new Set(labelDesigns))
    const labels = demoLabels()
    expect(labels.length).toBeGreaterThan(20)
    for (const field of ['serial', 'mac', 'key'] as const) {
      const values = labels.flatMap(({ values: printed }) => printed[field] ?? [])
      expect(new Set(values).size).toBe(values.length)
    }
    for (const model of demoModels) {
      expect(modelFaultsOf(model)).toEqual([])
      if (model.masks?.serial) expect(fitsMask(model.masks.serial, labelValues(model, 9).serial)).toBe(true)
    }
  })

  // Of the makers whose labels are read below no clean one besides: each takes seconds, and npm run bench:labels reads them all.
  it.each([
    ['quillet-reed', 64],
    ['oldmere-weir', 65],
    ['karstine-sill', 66]
  ] as const)(
    'a clean one of %s is read, and nothing wrong is shown as certain',
    async (id, number) => {
      const { compared } = await read(id, number, 'clean')
      expect(compared.wronglyCertain).toEqual([])
      expect(compared.right).toBeGreaterThanOrEqual(compared.fields - 1)
    },
    240_000
  )

  it('a worn one is read mostly, a bad one never wrongly as certain', async () => {
    const worn = await read('ostrel-tern', 71, 'worn')
    expect([worn.compared.wronglyCertain, worn.compared.right / worn.compared.fields > 0.6]).toEqual([[], true])
    expect((await read('brackwater-l2', 72, 'bad')).compared.wronglyCertain).toEqual([])
  }, 240_000)

  it('one whose code holds everything is not read a second time', async () => {
    const { steps, compared } = await read('tolvane-spindle', 73, 'clean')
    expect([steps, compared.certain, compared.wronglyCertain]).toEqual([['codes'], 2, []])
  }, 240_000)

  it('each piece lies where its value stands on the photograph', async () => {
    const { parsed } = await read('fenmarrow-lattice-3', 74, 'clean')
    const [ssid, key] = (['ssid', 'key'] as const).map(
      (field) => parsed.proposals.find((proposal) => proposal.field === field)!.piece!
    )
    expect(key!.y).toBeGreaterThan(ssid!.y)
    for (const piece of [ssid!, key!])
      expect([piece.x > 0, piece.y > 0, piece.x + piece.width < 1400, piece.y + piece.height < 1150]).toEqual([
        true,
        true,
        true,
        true
      ])
  }, 240_000)
})
