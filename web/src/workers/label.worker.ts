import { grayOf, type Gray } from '@pasado/core/labels/picture/gray'
import type { Homography } from '@pasado/core/labels/picture/homography'
import type { Reading } from '@pasado/core/labels/reading'
import { codesIn } from '../labels/codes-in'
import { readyPicture, secondPrint } from '../labels/read-picture'
import { answering } from './answering'

/** What can be asked of this worker. Pictures stay on the device. */
export type LabelAsk =
  | { does: 'first'; photo: Blob }
  | { does: 'second'; codes: readonly Reading[] }
  | { does: 'glance'; frame: ImageBitmap }

export type LabelAnswer =
  | { codes: Reading[]; picture: Gray; toPhoto: Homography; bendPx: number; width: number; height: number }
  | { codes: Reading[] }
  | { problem: 'no-picture' }

/** Larger pictures are read from a smaller copy: letters of a label that fills the picture are tall enough in it. */
const LONGEST_SIDE = 2400
const GLANCE_SIDE = 900

let photo: Gray | null = null

function pixels(bitmap: ImageBitmap, longest: number): Gray {
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height))
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)]
  const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!
  pen.drawImage(bitmap, 0, 0, width, height)
  bitmap.close()
  return grayOf(pen.getImageData(0, 0, width, height).data, width, height)
}

async function answer(asked: LabelAsk): Promise<LabelAnswer> {
  if (asked.does === 'glance') {
    const codes = codesIn(pixels(asked.frame, GLANCE_SIDE), 'square')
    return { codes: codes.map(({ text, piece }) => ({ source: 'qr', text, sureness: 1, piece })) }
  }
  if (asked.does === 'first') {
    let bitmap: ImageBitmap
    try {
      bitmap = await createImageBitmap(asked.photo, { imageOrientation: 'from-image' })
    } catch {
      return { problem: 'no-picture' }
    }
    photo = pixels(bitmap, LONGEST_SIDE)
    const { codes, print } = readyPicture(photo)
    return {
      codes,
      picture: print.picture,
      toPhoto: print.toPhoto,
      bendPx: print.bendPx,
      width: photo.width,
      height: photo.height
    }
  }
  const print = secondPrint(photo!, asked.codes)
  return {
    codes: [],
    picture: print.picture,
    toPhoto: print.toPhoto,
    bendPx: print.bendPx,
    width: photo!.width,
    height: photo!.height
  }
}

answering(answer)
