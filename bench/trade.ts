import { knownModels } from '@pasado/core/labels/known-models'
import { demoModels } from '@pasado/demo/models/all'
import { readLabel } from '../web/src/labels/read-label'
import { eyesOn, pixelsOf, type textReader } from './label-eyes'
import { compareLabel } from './label-trial'
import { ordinary, settings, tradeLabel } from '@pasado/demo/labels/trade-labels'

/** So many of the labels were looked at while captions and layouts were learned; nothing was learned on those after them. */
const LEARNED_ON = 40

interface Total {
  labels: number
  fields: number
  right: number
  wrong: string[]
  ms: number
}

const percent = (part: number, of: number) => (of ? `${((100 * part) / of).toFixed(1)} %` : '')

/** Reads labels of unknown makers, and prints how much of them is right. */
export async function readTrade(text: Awaited<ReturnType<typeof textReader>>, count: number): Promise<void> {
  const models = knownModels(demoModels)
  const totals = new Map<string, Total>()
  const add = (key: string, more: Omit<Total, 'labels'>) => {
    const total = totals.get(key) ?? { labels: 0, fields: 0, right: 0, wrong: [], ms: 0 }
    totals.set(key, {
      labels: total.labels + 1,
      fields: total.fields + more.fields,
      right: total.right + more.right,
      wrong: [...total.wrong, ...more.wrong],
      ms: total.ms + more.ms
    })
  }
  for (let number = 0; number < count; number++) {
    const { picture, printed, setting, layout } = await tradeLabel(number)
    const photo = await pixelsOf(await picture.encode('png'))
    const began = performance.now()
    const read = await readLabel(eyesOn(photo, text.read), models, null)
    const compared = compareLabel(printed, read)
    const figures = { ...compared, wrong: compared.wronglyCertain, ms: performance.now() - began }
    for (const key of [
      setting,
      layout,
      number < LEARNED_ON ? 'learned on' : 'held out',
      ...(ordinary.has(setting) ? ['ordinary light'] : [])
    ])
      add(key, figures)
  }
  console.log(
    `\n${'unknown makers'.padEnd(16)} ${'labels'.padStart(6)} ${'fields'.padStart(6)} ${'right'.padStart(8)} ${'certain but wrong'.padStart(18)} ${'s a label'.padStart(10)}`
  )
  for (const key of [
    ...settings,
    'lines',
    'columns',
    'pairs',
    'above',
    'boxes',
    'learned on',
    'held out',
    'ordinary light'
  ]) {
    const total = totals.get(key)
    if (total)
      console.log(
        `${key.padEnd(16)} ${String(total.labels).padStart(6)} ${String(total.fields).padStart(6)} ${percent(total.right, total.fields).padStart(8)} ${String(total.wrong.length).padStart(18)} ${(total.ms / total.labels / 1000).toFixed(2).padStart(10)}${key === 'ordinary light' ? '   aim 90 %' : ''}`
      )
  }
}
