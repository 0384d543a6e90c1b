import { createRequire } from 'node:module'
import { dirname } from 'node:path'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { createWorker, OEM, PSM } from 'tesseract.js'
import { grayOf, type Gray } from '@pasado/core/labels/picture/gray'
import { graymap, readyPicture, secondPrint, type TextLine } from '../web/src/labels/read-picture'
import type { Eyes } from '../web/src/labels/read-label'

const require = createRequire(import.meta.url)

/** The reader of text outside a browser, on the same data. */
export async function textReader(): Promise<{
  read: (picture: Gray) => Promise<TextLine[]>
  stop: () => Promise<void>
}> {
  const langPath = dirname(require.resolve('@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz'))
  const worker = await createWorker('eng', OEM.LSTM_ONLY, {
    langPath,
    cacheMethod: 'none',
    gzip: true,
    errorHandler: () => undefined
  })
  await worker.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_BLOCK, preserve_interword_spaces: '1' })
  return {
    read: async (picture) => {
      const { data } = await worker.recognize(Buffer.from(graymap(picture)), {}, { text: false, blocks: true })
      return (data.blocks ?? [])
        .flatMap(({ paragraphs }) => paragraphs.flatMap(({ lines }) => lines))
        .map(({ text, confidence, bbox }) => ({
          text,
          sureness: confidence / 100,
          piece: { x: bbox.x0, y: bbox.y0, width: bbox.x1 - bbox.x0, height: bbox.y1 - bbox.y0 }
        }))
    },
    stop: async () => void (await worker.terminate())
  }
}

/** The grey pixels of a picture file. */
export async function pixelsOf(png: Buffer): Promise<Gray> {
  const image = await loadImage(png)
  const canvas = createCanvas(image.width, image.height)
  const pen = canvas.getContext('2d')
  pen.drawImage(image, 0, 0)
  return grayOf(
    new Uint8ClampedArray(pen.getImageData(0, 0, image.width, image.height).data),
    image.width,
    image.height
  )
}

/** Eyes for one picture, without a worker. */
export function eyesOn(photo: Gray, text: Eyes['text']): Eyes {
  return {
    first: () => Promise.resolve(readyPicture(photo)),
    second: (codes) => Promise.resolve(secondPrint(photo, codes)),
    text
  }
}
