import { evenLight, type Gray } from './gray'
import { distance, homography, mapped, straightened, type Homography, type Point, type Quad } from './homography'
import { bendOf, unbent } from './bend'
import { findLabel } from './find-label'
import { blobsOf, centre, densityOf, isLetter, lettersOf, medianOf, MOST_DENSITY, type Blob } from './letters'

/** Heights of capitals, in pixels, that the reader of text likes: the first best, the other for a second opinion. */
export const likedHeights = [34, 46] as const
const LARGEST_SIDE = 2200

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
