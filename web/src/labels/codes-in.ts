import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  GlobalHistogramBinarizer,
  HybridBinarizer,
  MultiFormatReader,
  RGBLuminanceSource,
  type Result
} from '@zxing/library'
import type { Gray } from '@pasado/core/labels/picture/gray'
import type { Piece } from '@pasado/core/labels/reading'

/** A code found on a picture: its content, its kind and where it stands. */
export interface FoundCode {
  kind: 'qr' | 'bars'
  text: string
  piece: Piece
}

const square = [BarcodeFormat.QR_CODE, BarcodeFormat.DATA_MATRIX]
/** Kinds with a check of their own; those without one may be misread and are left alone. */
const bars = [BarcodeFormat.CODE_128]
const MOST_CODES = 5

/** Every code on a picture: one is found, painted over, and the next looked for. */
export function codesIn(picture: Gray, kinds: 'square' | 'bars'): FoundCode[] {
  const left: Gray = { ...picture, data: new Uint8ClampedArray(picture.data) }
  const reader = new MultiFormatReader()
  reader.setHints(
    new Map<DecodeHintType, unknown>([
      [DecodeHintType.POSSIBLE_FORMATS, kinds === 'square' ? square : bars],
      [DecodeHintType.TRY_HARDER, true]
    ])
  )
  const found: FoundCode[] = []
  // Bars that stand side by side are told apart in stripes of the picture.
  const stripes =
    kinds === 'square'
      ? [[0, 1]]
      : [
          [0, 1],
          [0, 0.55],
          [0.45, 1]
        ]
  for (const [from, to] of stripes as [number, number][]) {
    for (let tries = 0; tries < MOST_CODES; tries++) {
      const x = Math.floor(from * picture.width)
      const result = decode(reader, cut(left, x, Math.floor(to * picture.width) - x))
      if (!result) break
      const inStripe = pieceOf(result, picture, kinds)
      const piece = { ...inStripe, x: inStripe.x + x }
      paintOver(left, piece)
      const text = result.getText()
      if (!found.some((code) => code.text === text))
        found.push({ kind: kinds === 'square' ? 'qr' : 'bars', text, piece })
    }
  }
  return found
}

function cut(picture: Gray, x: number, width: number): Gray {
  if (width === picture.width) return picture
  const data = new Uint8ClampedArray(width * picture.height)
  for (let row = 0; row < picture.height; row++)
    data.set(picture.data.subarray(row * picture.width + x, row * picture.width + x + width), row * width)
  return { width, height: picture.height, data }
}

function decode(reader: MultiFormatReader, picture: Gray): Result | null {
  const source = new RGBLuminanceSource(picture.data, picture.width, picture.height)
  for (const binarizer of [new HybridBinarizer(source), new GlobalHistogramBinarizer(source)]) {
    try {
      return reader.decodeWithState(new BinaryBitmap(binarizer))
    } catch {
      // Nothing found this way.
    }
  }
  return null
}

/** The rectangle round a code: its marks and half as much again for a square code, its line and some height for bars. */
function pieceOf(result: Result, { width, height }: Gray, kinds: 'square' | 'bars'): Piece {
  const points = result.getResultPoints().filter(Boolean)
  const [xs, ys] = [points.map((point) => point.getX()), points.map((point) => point.getY())]
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  // The marks of bars are the middles of their first and last pattern: what stands outside them belongs to the code as well.
  const room = kinds === 'square' ? Math.max(right - left, bottom - top) * 0.28 : (right - left) * 0.12
  const tall = kinds === 'square' ? room : Math.max(60, (right - left) * 0.25)
  const x = Math.max(0, Math.floor(left - room - 4))
  const y = Math.max(0, Math.floor(top - tall))
  return {
    x,
    y,
    width: Math.min(width, Math.ceil(right + room + 4)) - x,
    height: Math.min(height, Math.ceil(bottom + tall)) - y
  }
}

/** Paints a piece of a picture white. */
export function paintOver(picture: Gray, { x, y, width, height }: Piece): void {
  const [top, bottom, left, right] = [
    Math.max(0, Math.floor(y)),
    Math.min(picture.height, Math.ceil(y + height)),
    Math.max(0, Math.floor(x)),
    Math.min(picture.width, Math.ceil(x + width))
  ]
  for (let row = top; row < bottom; row++)
    picture.data.fill(255, row * picture.width + left, row * picture.width + right)
}
