import { writeFileSync } from 'node:fs'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { drawLabel } from '@pasado/demo/labels/draw'
import { labelValues, type LabelValues } from '@pasado/demo/labels/values'
import { photograph, type Condition } from '@pasado/demo/labels/wear'
import { demoModels } from '@pasado/demo/models/all'

const folder = mkdtempSync(join(tmpdir(), 'pasado-labels-'))

/** A photograph of the label of a made-up unit, with what is printed on it. */
export async function labelPicture(
  model: string,
  number: number,
  condition: Condition
): Promise<{ file: string; printed: LabelValues }> {
  const printed = labelValues(
    demoModels.find(({ id }) => id === model)!,
    number
  )
  const file = join(folder, `${model}-${number}-${condition}.png`)
  writeFileSync(file, await photograph(await drawLabel(printed), condition, number).encode('png'))
  return { file, printed }
}

/** The same as a film of one frame (YUV4MPEG2), which Chromium's fake camera plays. */
export async function labelFilm(
  model: string,
  number: number,
  condition: Condition
): Promise<{ file: string; printed: LabelValues }> {
  const printed = labelValues(
    demoModels.find(({ id }) => id === model)!,
    number
  )
  const picture = photograph(await drawLabel(printed), condition, number)
  const { width, height } = picture
  const rgba = picture.getContext('2d').getImageData(0, 0, width, height).data
  const light = Buffer.alloc(width * height)
  // Studio range: black is 16, white 235.
  for (let at = 0; at < light.length; at++) light[at] = 16 + Math.round((rgba[at * 4]! * 219) / 255)
  const file = join(folder, `${model}-${number}-${condition}.y4m`)
  writeFileSync(
    file,
    Buffer.concat([
      Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\nFRAME\n`),
      light,
      Buffer.alloc((width / 2) * (height / 2) * 2, 128)
    ])
  )
  return { file, printed }
}
