import type { Reading } from '@pasado/core/labels/reading'
import type { Gray } from '@pasado/core/labels/picture/gray'
import { graymap, type TextLine } from '../labels/read-picture'
import type { Eyes } from '../labels/read-label'
import { asking } from './asking'
import type { LabelAnswer, LabelAsk } from './label.worker'

/** Said where a file that was chosen is no picture that this browser can open. */
export class NoPicture extends Error {}

const { ask: askWorker } = asking<LabelAsk, LabelAnswer>(
  'What stands on the label',
  () => new Worker(new URL('./label.worker.ts', import.meta.url), { type: 'module' })
)

type TextReader = (picture: Gray) => Promise<TextLine[]>
let reader: Promise<TextReader> | null = null

/** The reader of text, with its program and its data from our own server; loaded when it is first needed. */
function textReader(): Promise<TextReader> {
  reader ??= loadReader().catch((error: unknown) => {
    reader = null
    throw error
  })
  return reader
}

async function loadReader(): Promise<TextReader> {
  const [{ createWorker, OEM, PSM }, { default: workerPath }, { default: corePath }, { default: dataPath }] =
    await Promise.all([
      import('tesseract.js'),
      import('tesseract.js/dist/worker.min.js?url'),
      import('tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url'),
      import('@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz?url')
    ])
  // The reader wants the folder of its data, in which the file keeps its name (see the build's settings).
  const langPath = new URL(dataPath, location.href).href.replace(/\/[^/]*$/, '')
  const tesseract = await createWorker('eng', OEM.LSTM_ONLY, {
    langPath,
    workerPath: new URL(workerPath, location.href).href,
    corePath: new URL(corePath, location.href).href,
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: () => undefined,
    errorHandler: () => undefined
  })
  await tesseract.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_BLOCK, preserve_interword_spaces: '1' })
  return async (picture) => {
    const { data: page } = await tesseract.recognize(
      new Blob([graymap(picture) as Uint8Array<ArrayBuffer>]),
      {},
      { text: false, blocks: true }
    )
    return (page.blocks ?? [])
      .flatMap(({ paragraphs }) => paragraphs.flatMap(({ lines }) => lines))
      .map(({ text, confidence, bbox }) => ({
        text,
        sureness: confidence / 100,
        piece: { x: bbox.x0, y: bbox.y0, width: bbox.x1 - bbox.x0, height: bbox.y1 - bbox.y0 }
      }))
  }
}

/** Loads the reader of text beforehand, so that the first label does not wait for it. */
export function warmUp(): void {
  void textReader().catch(() => undefined)
}

/** Eyes for one picture. `size` is that of the picture the pieces are told in. */
export function eyesFor(photo: Blob): Eyes & { size: () => { width: number; height: number } } {
  let size = { width: 1, height: 1 }
  const print = (answer: LabelAnswer) => {
    if ('problem' in answer) throw new NoPicture()
    if (!('picture' in answer)) throw new Error('the worker answered something else')
    size = { width: answer.width, height: answer.height }
    return { codes: answer.codes, print: { picture: answer.picture, toPhoto: answer.toPhoto, bendPx: answer.bendPx } }
  }
  return {
    first: async () => print(await askWorker({ does: 'first', photo })),
    second: async (codes) => print(await askWorker({ does: 'second', codes })).print,
    text: async (picture) => (await textReader())(picture),
    size: () => size
  }
}

/** Looks at one frame of the camera for codes only. */
export async function glance(frame: ImageBitmap): Promise<Reading[]> {
  const answer = await askWorker({ does: 'glance', frame }, [frame])
  return 'codes' in answer ? answer.codes : []
}
