import { drawLabel } from '@pasado/demo/labels/draw'
import { labelValues } from '@pasado/demo/labels/values'
import { conditions, photograph } from '@pasado/demo/labels/wear'
import { demoModels } from '@pasado/demo/models/all'
import { knownModels } from '@pasado/core/labels/known-models'
import { readLabel } from '../web/src/labels/read-label'
import { machine } from './machine'
import { eyesOn, pixelsOf, textReader } from './label-eyes'
import { readTrade } from './trade'
import { compareLabel, printedOn, type Comparison } from './label-trial'

/** npm run bench:labels: how much of a label is read right without correction, on made-up labels of every design, and on others of makers that no catalogue knows. */
const each = Number(process.argv[2] ?? 2)
const OF_UNKNOWN_MAKERS = 200
const models = knownModels(demoModels)
const aims: Record<string, string> = { clean: 'aim 98 %', worn: 'aim 85 %', bad: 'no aim' }
const percent = (part: number, of: number) => `${((100 * part) / of).toFixed(1)} %`

console.log(
  `${machine()}, Node.js ${process.version}\n${each} labels of each of ${demoModels.length} models in each condition\n`
)
console.log(
  `${'condition'.padEnd(10)} ${'labels'.padStart(6)} ${'fields'.padStart(6)} ${'right'.padStart(8)} ${'certain'.padStart(8)} ${'certain but wrong'.padStart(18)} ${'s a label'.padStart(10)}`
)
const text = await textReader()
for (const condition of conditions) {
  const total: Comparison & { labels: number; ms: number } = {
    fields: 0,
    right: 0,
    certain: 0,
    wronglyCertain: [],
    labels: 0,
    ms: 0
  }
  for (const [at, model] of demoModels.entries()) {
    for (let turn = 0; turn < each; turn++) {
      const values = labelValues(model, (at * 29 + turn * 7 + 3) % 256)
      const photo = await pixelsOf(await photograph(await drawLabel(values), condition, at * 1000 + turn).encode('png'))
      const began = performance.now()
      const read = await readLabel(eyesOn(photo, text.read), models, {
        model: models.find(({ id }) => id === model.id)!,
        fields: model.label
      })
      total.ms += performance.now() - began
      const compared = compareLabel(printedOn(values), read)
      total.labels++
      total.fields += compared.fields
      total.right += compared.right
      total.certain += compared.certain
      total.wronglyCertain.push(...compared.wronglyCertain)
    }
  }
  console.log(
    `${condition.padEnd(10)} ${String(total.labels).padStart(6)} ${String(total.fields).padStart(6)} ${percent(total.right, total.fields).padStart(8)} ${percent(total.certain, total.fields).padStart(8)} ${String(total.wronglyCertain.length).padStart(18)} ${(total.ms / total.labels / 1000).toFixed(2).padStart(10)}   ${aims[condition]}`
  )
}
await readTrade(text, OF_UNKNOWN_MAKERS)
await text.stop()
