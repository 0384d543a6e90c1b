import type { Gray } from './gray'
import { centre, medianOf, type Blob } from './letters'

/** How far down lines run at the sides, as a parabola, in pixels at half the width: where the middles of letters fall on the fewest lines; 0 where they run straight. */
export function bendOf(letters: readonly Blob[], width: number): number {
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
export function unbent({ width, height, data }: Gray, bendPx: number): Gray {
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
