import { evenLight, type Gray } from './gray'
import { distance, homography, mapped, straightened, type Homography, type Point, type Quad } from './homography'
import { findLabel } from './find-label'

/** A rectangle in pixels. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** A connected part of the print: a letter, a dot, a piece of a code. */
interface Blob extends Box {
  pixels: number
}

/** Darker than this after evening out is print. */
const PRINT = 138
/** Heights of capitals, in pixels, that the reader of text likes: the first best, the other for a second opinion. */
export const likedHeights = [34, 46] as const
const LARGEST_SIDE = 2200
const SMALLEST_LETTER_PX = 7

/** A label as the reader of text gets it: upright, its light even, nothing on it but letters. */
export interface Print {
  picture: Gray
  /** The same place of the photograph, upright, nothing else done to it: for codes. */
  plain: Gray
  /** From pixels of this picture to those of the photograph. */
  toPhoto: Homography
  /** How far its lines were straightened, for a label on a round base: pixels down at half its width from the middle. */
  bendPx: number
}

/**
 * Makes a photograph of a label ready for reading: finds the label or the way its lines run, brings it upright and to a
 * good size, evens out the light, and takes off rules, frames, codes and specks.
 */
export function preparePrint(photo: Gray, liked: number = likedHeights[0]): Print {
  const letters = lettersOf(evenLight(softened(photo)))
  const quad = alongLines(labelQuad(photo, letters), letters) ?? turnedFrame(photo, letters)
  const { width, height } = frameSize(quad, letters, liked)
  const framed = straightened(photo, quad, width, height)
  const even = evenLight(softened(framed))
  const turn = leaning(even)
  const toPhoto = homography(
    [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height]
    ],
    quad
  )
  const upright = turn ? straightened(even, turn, width, height) : even
  const bendPx = bendOf(lettersOf(upright), width)
  const picture = onlyLetters(bendPx === 0 ? upright : unbent(upright, bendPx))
  if (!turn) return { picture, plain: framed, toPhoto, bendPx }
  return {
    picture,
    bendPx,
    plain: straightened(framed, turn, width, height),
    toPhoto: composed(
      toPhoto,
      homography(
        [
          [0, 0],
          [width, 0],
          [width, height],
          [0, height]
        ],
        turn
      )
    )
  }
}

/** Takes the grain out: each pixel the mean of three by three. */
export function softened({ width, height, data }: Gray): Gray {
  const across = new Float32Array(data.length)
  const soft = new Uint8ClampedArray(data.length)
  for (let y = 0; y < height; y++) {
    const row = y * width
    for (let x = 0; x < width; x++)
      across[row + x] =
        (data[row + Math.max(0, x - 1)]! + 2 * data[row + x]! + data[row + Math.min(width - 1, x + 1)]!) / 4
  }
  for (let y = 0; y < height; y++) {
    const [row, above, below] = [y * width, Math.max(0, y - 1) * width, Math.min(height - 1, y + 1) * width]
    for (let x = 0; x < width; x++) soft[row + x] = (across[above + x]! + 2 * across[row + x]! + across[below + x]!) / 4
  }
  return { width, height, data: soft }
}

/** Every connected dark part of an evened picture. */
function blobsOf({ width, height, data }: Gray, marks: Int32Array): Blob[] {
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
function densityOf(picture: Gray, cell: number): (x: number, y: number) => number {
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

const MOST_DENSITY = 0.42

function isLetter(blob: Blob, picture: Gray, density: (x: number, y: number) => number): boolean {
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

function lettersOf(picture: Gray): Blob[] {
  const density = densityOf(picture, Math.max(16, Math.round(picture.width / 40)))
  const letters = blobsOf(picture, new Int32Array(picture.data.length)).filter((blob) =>
    isLetter(blob, picture, density)
  )
  // Specks of grain are many and smaller than any letter.
  const tall = medianOf(letters.map(({ height }) => height).filter((height) => height >= 12)) || 20
  return letters.filter(({ height }) => height > tall * 0.4 && height < tall * 3)
}

function medianOf(values: readonly number[]): number {
  return values.length ? [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]! : 0
}

const centre = (box: Box): Point => [box.x + box.width / 2, box.y + box.height / 2]

/** The corners of a label that stands out, where most of the letters are on it. */
function labelQuad(photo: Gray, letters: readonly Blob[]): Quad | null {
  const quad = findLabel(photo)
  if (!quad) return null
  const toSquare = homography(quad, [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1]
  ])
  const inside = letters.filter((letter) => {
    const [u, v] = mapped(toSquare, centre(letter))
    return u > 0 && u < 1 && v > 0 && v < 1
  }).length
  return inside >= letters.length * 0.75 ? quad : null
}

/** Lines may run any way on a picture; which of their two ends is the first only reading tells. */
const ANY_WAY = 90

/** The corners of a label in the order in which its lines run from the first to the second: a label may lie on its side. */
function alongLines(quad: Quad | null, letters: readonly Blob[]): Quad | null {
  if (!quad || letters.length < 8) return quad
  const angle = lineAngle(letters, ANY_WAY)
  const off = (at: number) => {
    const [[x1, y1], [x2, y2]] = [quad[at]!, quad[(at + 1) % 4]!]
    return 1 - Math.cos(Math.atan2(y2 - y1, x2 - x1) - angle)
  }
  const first = [0, 1, 2, 3].sort((a, b) => off(a) - off(b))[0]!
  return [...quad.slice(first), ...quad.slice(0, first)] as unknown as Quad
}

/** The same print the other way up. */
export function turnedOver({ picture, toPhoto, bendPx }: Omit<Print, 'plain'>): Omit<Print, 'plain'> {
  const { width, height, data } = picture
  return {
    picture: { width, height, data: data.slice().reverse() },
    toPhoto: composed(toPhoto, [-1, 0, width, 0, -1, height, 0, 0]),
    bendPx: -bendPx
  }
}

/** A frame round the letters, turned as their lines run. */
function turnedFrame(photo: Gray, letters: readonly Blob[]): Quad {
  if (letters.length < 8)
    return [
      [0, 0],
      [photo.width, 0],
      [photo.width, photo.height],
      [0, photo.height]
    ]
  const angle = lineAngle(letters, ANY_WAY)
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const [acrosses, downs] = [
    letters.map(centre).map(([x, y]) => x * cos + y * sin),
    letters.map(centre).map(([x, y]) => -x * sin + y * cos)
  ]
  const tall = medianOf(letters.map(({ height }) => height))
  const within = (values: number[]): [number, number] => {
    const sorted = [...values].sort((a, b) => a - b)
    const room = tall * 3
    return [sorted[Math.floor(sorted.length * 0.01)]! - room, sorted[Math.ceil(sorted.length * 0.99) - 1]! + room]
  }
  const [left, right] = within(acrosses)
  const [top, bottom] = within(downs)
  const back = (across: number, down: number): Point => [across * cos - down * sin, across * sin + down * cos]
  return [back(left, top), back(right, top), back(right, bottom), back(left, bottom)]
}

/** The angle at which lines of letters run, in radians: where their middles fall on the fewest lines. */
function lineAngle(letters: readonly Blob[], mostDegrees: number): number {
  const middles = letters.map(centre)
  const bin = Math.max(3, medianOf(letters.map(({ height }) => height)) * 0.25)
  let [best, at] = [-1, 0]
  for (let degrees = -mostDegrees; degrees <= mostDegrees; degrees += 0.25) {
    const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
    const counts = new Map<number, number>()
    for (const [x, y] of middles) {
      const key = Math.round((-x * sin + y * cos) / bin)
      counts.set(key, (counts.get(key) ?? 0) + 1)
    }
    let score = 0
    for (const count of counts.values()) score += count * count
    if (score > best) [best, at] = [score, (degrees * Math.PI) / 180]
  }
  return at
}

/** How far down lines run at the sides, as a parabola, in pixels at half the width: where the middles of letters fall on the fewest lines; 0 where they run straight. */
function bendOf(letters: readonly Blob[], width: number): number {
  if (letters.length < 20) return 0
  const tall = medianOf(letters.map(({ height }) => height))
  const bin = Math.max(3, tall * 0.25)
  let [best, at] = [-1, 0]
  for (let bend = -tall * 3; bend <= tall * 3; bend += tall * 0.1) {
    const counts = new Map<number, number>()
    for (const [x, y] of letters.map(centre)) {
      const key = Math.round((y - downAt(bend, x, width)) / bin)
      counts.set(key, (counts.get(key) ?? 0) + 1)
    }
    let score = 0
    for (const count of counts.values()) score += count * count
    if (score > best * (Math.abs(bend) < Math.abs(at) ? 1 : 1.02)) [best, at] = [score, bend]
  }
  return Math.abs(at) < tall * 0.35 ? 0 : at
}

/** How far down a line with a bend is at a place across. */
export const downAt = (bendPx: number, x: number, width: number): number => bendPx * ((2 * x) / width - 1) ** 2

/** The picture with every column moved up by as much as its lines run down there. */
function unbent({ width, height, data }: Gray, bendPx: number): Gray {
  const straight = new Uint8ClampedArray(data.length).fill(255)
  for (let x = 0; x < width; x++) {
    const down = downAt(bendPx, x, width)
    for (let y = 0; y < height; y++) {
      const from = y + down
      const above = Math.floor(from)
      if (above < 0 || above + 1 >= height) continue
      const part = from - above
      straight[y * width + x] = data[above * width + x]! * (1 - part) + data[(above + 1) * width + x]! * part
    }
  }
  return { width, height, data: straight }
}

/** How large a frame is drawn so that its letters have the height that is liked. */
function frameSize(quad: Quad, letters: readonly Blob[], liked: number): { width: number; height: number } {
  const width = (distance(quad[0], quad[1]) + distance(quad[2], quad[3])) / 2
  const height = (distance(quad[0], quad[3]) + distance(quad[1], quad[2])) / 2
  const tall = medianOf(letters.map((letter) => letter.height)) || 22
  const grow = Math.min(LARGEST_SIDE / Math.max(width, height), Math.max(0.5, liked / tall))
  return { width: Math.max(40, Math.round(width * grow)), height: Math.max(40, Math.round(height * grow)) }
}

/** The corners to turn a picture by whose lines still lean a little; null where they do not. */
function leaning(picture: Gray): Quad | null {
  const letters = lettersOf(picture)
  const angle = letters.length < 8 ? 0 : lineAngle(letters, 6)
  if (Math.abs(angle) < 0.004) return null
  const { width, height } = picture
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const turned = ([x, y]: Point): Point => [
    width / 2 + (x - width / 2) * cos - (y - height / 2) * sin,
    height / 2 + (x - width / 2) * sin + (y - height / 2) * cos
  ]
  return (
    [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height]
    ] as Point[]
  ).map(turned) as unknown as Quad
}

/** One projective map after another. */
function composed(after: Homography, first: Homography): Homography {
  const a = [...after, 1]
  const b = [...first, 1]
  const product = Array.from({ length: 9 }, (_, at) => {
    const [row, column] = [Math.floor(at / 3) * 3, at % 3]
    return a[row]! * b[column]! + a[row + 1]! * b[column + 3]! + a[row + 2]! * b[column + 6]!
  })
  return product.slice(0, 8).map((value) => value / product[8]!)
}

/** A white sheet with nothing on it but letters and the dots that belong to them. */
function onlyLetters(picture: Gray): Gray {
  const { width, height, data } = picture
  const marks = new Int32Array(data.length)
  const blobs = blobsOf(picture, marks)
  const density = densityOf(picture, Math.max(16, Math.round(width / 40)))
  const large = blobs.filter((blob) => isLetter(blob, picture, density))
  const tall = medianOf(large.map((blob) => blob.height).filter((value) => value >= 12)) || 20
  const lines = new Set<number>()
  for (const blob of large)
    if (blob.height > tall * 0.4)
      for (let y = blob.y - tall * 0.3; y < blob.y + blob.height + tall * 0.5; y += 4) lines.add(Math.round(y / 4))
  const keeps = blobs.map((blob) => {
    if (isLetter(blob, picture, density) && blob.height > tall * 0.35) return true
    const dot = blob.height <= tall * 0.5 && blob.width <= tall * 1.3 && blob.pixels >= Math.max(6, tall * tall * 0.008)
    return dot && lines.has(Math.round((blob.y + blob.height / 2) / 4)) && density(blob.x, blob.y) < MOST_DENSITY
  })
  const sheet = new Uint8ClampedArray(data.length).fill(255)
  for (let at = 0; at < data.length; at++) {
    const mark = marks[at]!
    if (mark ? !keeps[mark - 1] : !besideKept(marks, keeps, at, width)) continue
    sheet[at] = data[at]! < 200 ? data[at]! : 255
  }
  return { width, height, data: sheet }
}

/** The soft rim of a letter belongs to it. */
function besideKept(marks: Int32Array, keeps: readonly boolean[], at: number, width: number): boolean {
  for (const beside of [at - 1, at + 1, at - width, at + width, at - 2, at + 2]) {
    const mark = marks[beside]
    if (mark && keeps[mark - 1]) return true
  }
  return false
}
