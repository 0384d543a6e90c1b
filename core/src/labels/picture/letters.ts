import type { Gray } from './gray'
import type { Point } from './homography'

/** A rectangle in pixels. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** A connected part of the print: a letter, a dot, a piece of a code. */
export interface Blob extends Box {
  pixels: number
}

/** Darker than this after evening out is print. */
const PRINT = 138
const SMALLEST_LETTER_PX = 7

/** Every connected dark part of an evened picture. */
export function blobsOf({ width, height, data }: Gray, marks: Int32Array): Blob[] {
  const blobs: Blob[] = []
  const queue: number[] = []
  for (let start = 0; start < data.length; start++) {
    if (marks[start] || data[start]! >= PRINT) continue
    const mark = blobs.length + 1
    let [left, right, top, bottom, pixels] = [width, 0, height, 0, 0]
    queue.length = 0
    queue.push(start)
    marks[start] = mark
    while (queue.length) {
      const at = queue.pop()!
      const x = at % width
      const y = (at - x) / width
      pixels++
      if (x < left) left = x
      if (x > right) right = x
      if (y < top) top = y
      if (y > bottom) bottom = y
      for (let dy = -1; dy <= 1; dy++) {
        if (y + dy < 0 || y + dy >= height) continue
        for (let dx = -1; dx <= 1; dx++) {
          if (x + dx < 0 || x + dx >= width) continue
          const beside = at + dy * width + dx
          if (marks[beside] || data[beside]! >= PRINT) continue
          marks[beside] = mark
          queue.push(beside)
        }
      }
    }
    blobs.push({ x: left, y: top, width: right - left + 1, height: bottom - top + 1, pixels })
  }
  return blobs
}

/** The share of print in the surroundings of each point of a coarse grid: codes are half dark, lines of text much less. */
export function densityOf(picture: Gray, cell: number): (x: number, y: number) => number {
  const columns = Math.ceil(picture.width / cell)
  const rows = Math.ceil(picture.height / cell)
  const dark = new Float32Array(columns * rows)
  for (let y = 0; y < picture.height; y++) {
    const row = Math.floor(y / cell) * columns
    for (let x = 0; x < picture.width; x++)
      if (picture.data[y * picture.width + x]! < PRINT) dark[row + Math.floor(x / cell)]!++
  }
  return (x, y) => {
    const [column, row] = [Math.floor(x / cell), Math.floor(y / cell)]
    let [sum, cells] = [0, 0]
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        if (column + dx < 0 || column + dx >= columns || row + dy < 0 || row + dy >= rows) continue
        sum += dark[(row + dy) * columns + column + dx]!
        cells++
      }
    }
    return sum / (cells * cell * cell)
  }
}

export const MOST_DENSITY = 0.42

export function isLetter(blob: Blob, picture: Gray, density: (x: number, y: number) => number): boolean {
  const { width, height, pixels } = blob
  if (
    height < SMALLEST_LETTER_PX ||
    height > picture.height * 0.16 ||
    width > height * 5 ||
    width > picture.width * 0.2
  )
    return false
  if (height > width * 7 && height > 60) return false
  if (pixels < (width * height) / 12) return false
  return density(blob.x + width / 2, blob.y + height / 2) < MOST_DENSITY
}

export function lettersOf(picture: Gray): Blob[] {
  const density = densityOf(picture, Math.max(16, Math.round(picture.width / 40)))
  const letters = blobsOf(picture, new Int32Array(picture.data.length)).filter((blob) =>
    isLetter(blob, picture, density)
  )
  // Specks of grain are many and smaller than any letter.
  const tall = medianOf(letters.map(({ height }) => height).filter((height) => height >= 12)) || 20
  return letters.filter(({ height }) => height > tall * 0.4 && height < tall * 3)
}

export function medianOf(values: readonly number[]): number {
  return values.length ? [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]! : 0
}

export const centre = (box: Box): Point => [box.x + box.width / 2, box.y + box.height / 2]
