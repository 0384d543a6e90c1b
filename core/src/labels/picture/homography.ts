import type { Gray } from './gray'

export type Point = readonly [x: number, y: number]
/** Corners in order round: upper left, upper right, lower right, lower left. */
export type Quad = readonly [Point, Point, Point, Point]

/** A projective map of the plane, as its eight coefficients: x' = (h0 x + h1 y + h2)/(h6 x + h7 y + 1), y' alike with h3…h5. */
export type Homography = readonly number[]

/** The projective map that takes four corners to four others. */
export function homography(from: Quad, to: Quad): Homography {
  const rows: number[][] = []
  from.forEach(([x, y], at) => {
    const [u, v] = to[at]!
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v])
  })
  for (let column = 0; column < 8; column++) {
    let best = column
    for (let row = column + 1; row < 8; row++)
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[best]![column]!)) best = row
    ;[rows[column], rows[best]] = [rows[best]!, rows[column]!]
    for (let row = 0; row < 8; row++) {
      if (row === column) continue
      const factor = rows[row]![column]! / rows[column]![column]!
      for (let at = column; at < 9; at++) rows[row]![at]! -= factor * rows[column]![at]!
    }
  }
  return rows.map((row, at) => row[8]! / row[at]!)
}

/** Where a projective map takes a point. */
export function mapped(h: Homography, [x, y]: Point): Point {
  const w = h[6]! * x + h[7]! * y + 1
  return [(h[0]! * x + h[1]! * y + h[2]!) / w, (h[3]! * x + h[4]! * y + h[5]!) / w]
}

/** The projective map that leads back. */
export function inverse(h: Homography): Homography {
  const [a, b, c, d, e, f, g, k] = h as [number, number, number, number, number, number, number, number]
  const last = a * e - b * d
  return [e - f * k, c * k - b, b * f - c * e, f * g - d, a - c * g, c * d - a * f, d * k - e * g, b * g - a * k].map(
    (value) => value / last
  )
}

/** A rectangle of its own out of a slanted four-cornered part of a picture. */
export function straightened(picture: Gray, quad: Quad, width: number, height: number): Gray {
  const h = homography(
    [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height]
    ],
    quad
  )
  const data = new Uint8ClampedArray(width * height)
  const [mostX, mostY] = [picture.width - 1.001, picture.height - 1.001]
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const w = h[6]! * x + h[7]! * y + 1
      const u = Math.min(mostX, Math.max(0, (h[0]! * x + h[1]! * y + h[2]!) / w))
      const v = Math.min(mostY, Math.max(0, (h[3]! * x + h[4]! * y + h[5]!) / w))
      const [left, top] = [Math.floor(u), Math.floor(v)]
      const [right, down] = [u - left, v - top]
      const at = top * picture.width + left
      const above = picture.data[at]! * (1 - right) + picture.data[at + 1]! * right
      const below = picture.data[at + picture.width]! * (1 - right) + picture.data[at + picture.width + 1]! * right
      data[y * width + x] = above * (1 - down) + below * down
    }
  }
  return { width, height, data }
}

/** How far two points are from each other. */
export function distance([ax, ay]: Point, [bx, by]: Point): number {
  return Math.hypot(ax - bx, ay - by)
}
