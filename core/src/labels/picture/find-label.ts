import { parting, shrunk, type Gray } from './gray'
import type { Point, Quad } from './homography'

const LOOKED_AT = 360
const LEAST_SHARE = 0.06
const MOST_SHARE = 0.97
/** How much of its four corners a bright patch must fill to be taken for a label; print may take up to half. */
const LEAST_FILL = 0.72

/**
 * Finds a bright label on a darker unit.
 * @returns its corners in the picture's pixels, or null where nothing bright with four corners stands out
 */
export function findLabel(picture: Gray): Quad | null {
  const { picture: small, scale } = shrunk(picture, LOOKED_AT)
  const otsu = parting(small)
  let best: { corners: Point[]; fill: number } | null = null
  // Glare or a dark table on the label can mislead the threshold, so that a few are tried.
  for (const threshold of [otsu, otsu * 0.85, otsu * 0.7, otsu * 1.12]) {
    const patch = largestPatch(small.width, small.height, closed(small, threshold))
    const share = patch.length / small.data.length
    if (share < LEAST_SHARE || share > MOST_SHARE) continue
    const corners = fourOf(convexHull(patch.map((at): Point => [at % small.width, Math.floor(at / small.width)])))
    const fill = corners ? patch.length / areaOf(corners) : 0
    if (corners && fill > (best?.fill ?? LEAST_FILL)) best = { corners, fill }
  }
  if (!best) return null
  return fromUpperLeft(best.corners).map(([x, y]) => [(x + 0.5) * scale, (y + 0.5) * scale] as const) as unknown as Quad
}

const CLOSED_PX = 2

/** Which pixels are bright, with gaps of print and ruled lines closed. */
function closed({ width, height, data }: Gray, above: number): Uint8Array {
  let bright: Uint8Array = new Uint8Array(data.length)
  for (let at = 0; at < data.length; at++) bright[at] = data[at]! > above ? 1 : 0
  for (const wanted of [1, 0]) {
    const next = new Uint8Array(bright)
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        if (bright[y * width + x] !== wanted) continue
        for (let by = -CLOSED_PX; by <= CLOSED_PX; by++) {
          if (x + by >= 0 && x + by < width) next[y * width + x + by] = wanted
          if (y + by >= 0 && y + by < height) next[(y + by) * width + x] = wanted
        }
      }
    }
    bright = next
  }
  return bright
}

/** The pixels of the largest connected bright part. */
function largestPatch(width: number, height: number, bright: Uint8Array): number[] {
  const seen = new Uint8Array(bright.length)
  let largest: number[] = []
  for (let start = 0; start < bright.length; start++) {
    if (seen[start] || !bright[start]) continue
    const patch = [start]
    seen[start] = 1
    for (let next = 0; next < patch.length; next++) {
      const at = patch[next]!
      const x = at % width
      for (const beside of [x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width, at + width]) {
        if (beside < 0 || beside >= width * height || seen[beside] || !bright[beside]) continue
        seen[beside] = 1
        patch.push(beside)
      }
    }
    if (patch.length > largest.length) largest = patch
  }
  return largest
}

/** The corners of the smallest convex shape round points (Andrew's monotone chain). */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1])
  const turn = (o: Point, a: Point, b: Point) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])
  const half = (list: readonly Point[]) => {
    const chain: Point[] = []
    for (const point of list) {
      while (chain.length >= 2 && turn(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop()
      chain.push(point)
    }
    chain.pop()
    return chain
  }
  return [...half(sorted), ...half(sorted.reverse())]
}

/** Leaves out the corner that matters least until four are left. */
function fourOf(hull: readonly Point[]): Point[] | null {
  const corners = [...hull]
  if (corners.length < 4) return null
  while (corners.length > 4) {
    let [least, at] = [Infinity, 0]
    corners.forEach((corner, index) => {
      const area = areaOf([corners.at(index - 1)!, corner, corners[(index + 1) % corners.length]!])
      if (area < least) [least, at] = [area, index]
    })
    corners.splice(at, 1)
  }
  return corners
}

/** The area within corners (the shoelace formula). */
export function areaOf(corners: readonly Point[]): number {
  let twice = 0
  corners.forEach(([x, y], at) => {
    const [nextX, nextY] = corners[(at + 1) % corners.length]!
    twice += x * nextY - nextX * y
  })
  return Math.abs(twice) / 2
}

/** The same corners, clockwise on the screen, beginning with the upper left one. */
function fromUpperLeft(corners: readonly Point[]): Point[] {
  const first = corners.reduce((best, [x, y], at) => (x + y < corners[best]![0] + corners[best]![1] ? at : best), 0)
  const turned = [...corners.slice(first), ...corners.slice(0, first)]
  const [a, b, , d] = turned as [Point, Point, Point, Point]
  const clockwise = (b[0] - a[0]) * (d[1] - a[1]) - (b[1] - a[1]) * (d[0] - a[0]) > 0
  return clockwise ? turned : [turned[0]!, ...turned.slice(1).reverse()]
}
