import { inverse, mapped, type Point } from '@pasado/core/labels/picture/homography'
import type { Gray } from '@pasado/core/labels/picture/gray'
import { downAt } from '@pasado/core/labels/picture/bend'
import { likedHeights, preparePrint, type Print } from '@pasado/core/labels/picture/print'
import type { Piece, Reading } from '@pasado/core/labels/reading'
import { codesIn, paintOver } from './codes-in'

/** A line of text as the reader of text gives it, in pixels of the picture it was given. */
export interface TextLine {
  text: string
  /** From 0 to 1. */
  sureness: number
  piece: Piece
}

/** A picture of a label made ready: its codes are read, its print waits for the reader of text. */
export interface ReadyPicture {
  codes: Reading[]
  print: Print
}

/** The part of the work that is ours: codes, and the print made ready. Takes about a second; runs in a worker. */
export function readyPicture(photo: Gray): ReadyPicture {
  const print = preparePrint(photo)
  const codes: Reading[] = []
  for (const { kind, text, piece } of [...codesIn(print.plain, 'square'), ...codesIn(print.plain, 'bars')]) {
    codes.push({ source: kind, text, sureness: 1, piece: pieceOnPhoto(piece, print) })
    // What is left of a code would be read as letters.
    if (kind === 'qr') paintOver(print.picture, piece)
  }
  if (!codes.some(({ source }) => source === 'qr'))
    codes.push(
      ...codesIn(photo, 'square').map(({ text, piece }): Reading => ({ source: 'qr', text, sureness: 1, piece }))
    )
  return { codes, print }
}

/** A second opinion: the print at another size, what stands where codes are taken off. */
export function secondPrint(photo: Gray, codes: readonly Reading[]): Print {
  const print = preparePrint(photo, likedHeights[1])
  const toPrint = inverse(print.toPhoto)
  for (const { source, piece } of codes)
    if (source === 'qr' && piece) paintOver(print.picture, pieceOnPhoto(piece, { toPhoto: toPrint }))
  return print
}

/** Lines of print as readings, their pieces on the photograph. */
export function printReadings(
  lines: readonly TextLine[],
  print: Pick<Print, 'toPhoto' | 'bendPx'> & { picture: { width: number } }
): Reading[] {
  return lines.map(({ text, sureness, piece }) => ({
    source: 'print',
    text: text.replace(/\s+$/, ''),
    sureness,
    // Where lines were straightened it stands lower on the photograph.
    piece: pieceOnPhoto(
      { ...piece, y: piece.y + downAt(print.bendPx, piece.x + piece.width / 2, print.picture.width) },
      print
    )
  }))
}

/** Where a rectangle of the prepared picture stands on the photograph: the rectangle round its turned corners. */
function pieceOnPhoto({ x, y, width, height }: Piece, { toPhoto }: Pick<Print, 'toPhoto'>): Piece {
  const corners: Point[] = [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height]
  ]
  const points = corners.map((corner) => mapped(toPhoto, corner))
  const [left, top] = [Math.min(...points.map(([px]) => px)), Math.min(...points.map(([, py]) => py))]
  return {
    x: left,
    y: top,
    width: Math.max(...points.map(([px]) => px)) - left,
    height: Math.max(...points.map(([, py]) => py)) - top
  }
}

/** A grey picture as a portable graymap (PGM), which the reader of text takes as it is. */
export function graymap({ width, height, data }: Gray): Uint8Array {
  const head = new TextEncoder().encode(`P5\n${width} ${height}\n255\n`)
  const bytes = new Uint8Array(head.length + data.length)
  bytes.set(head)
  bytes.set(data, head.length)
  return bytes
}
