/** A grey picture: one octet a pixel, row by row. */
export interface Gray {
  width: number
  height: number
  data: Uint8ClampedArray
}

/** Grey from red, green, blue and alpha octets, by the luma weights of ITU-R BT.601. */
export function grayOf(rgba: Uint8ClampedArray, width: number, height: number): Gray {
  const data = new Uint8ClampedArray(width * height)
  for (let at = 0, from = 0; at < data.length; at++, from += 4)
    data[at] = (rgba[from]! * 299 + rgba[from + 1]! * 587 + rgba[from + 2]! * 114) / 1000
  return { width, height, data }
}

/** A smaller picture: each pixel the mean of those it stands for. One that is small enough comes back as it is. */
export function shrunk(picture: Gray, mostWidth: number): { picture: Gray; scale: number } {
  const step = Math.ceil(Math.max(picture.width, picture.height) / mostWidth)
  if (step <= 1) return { picture, scale: 1 }
  const width = Math.floor(picture.width / step)
  const height = Math.floor(picture.height / step)
  const data = new Uint8ClampedArray(width * height)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0
      for (let dy = 0; dy < step; dy++) {
        const row = (y * step + dy) * picture.width + x * step
        for (let dx = 0; dx < step; dx++) sum += picture.data[row + dx]!
      }
      data[y * width + x] = sum / (step * step)
    }
  }
  return { picture: { width, height, data }, scale: step }
}

/** The brightness that parts a picture best in two, by Otsu's method (1979). */
export function parting(picture: Gray): number {
  const counts = new Float64Array(256)
  for (const value of picture.data) counts[value]!++
  const total = picture.data.length
  let sum = 0
  counts.forEach((count, value) => {
    sum += value * count
  })
  let [below, sumBelow, best, at] = [0, 0, -1, 128]
  for (let value = 0; value < 256; value++) {
    below += counts[value]!
    if (below === 0 || below === total) continue
    sumBelow += value * counts[value]!
    const gap = sumBelow / below - (sum - sumBelow) / (total - below)
    const between = below * (total - below) * gap * gap
    if (between > best) [best, at] = [between, value]
  }
  return at
}

/** Sums over every rectangle from the corner, for means of any rectangle in four look-ups. */
function integral(picture: Gray): Float64Array {
  const { width, height, data } = picture
  const sums = new Float64Array((width + 1) * (height + 1))
  for (let y = 0; y < height; y++) {
    let row = 0
    for (let x = 0; x < width; x++) {
      row += data[y * width + x]!
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1]! + row
    }
  }
  return sums
}

/**
 * Evens the light out: each pixel against the mean of its surroundings, stretched, dark print on light ground.
 * Glare, shadow and faint print come out alike; light print on a dark base is turned round.
 */
export function evenLight(picture: Gray): Gray {
  const { width, height, data } = picture
  const sums = integral(picture)
  const reach = Math.max(12, Math.round(Math.max(width, height) / 28))
  const difference = new Float32Array(data.length)
  let [darker, lighter] = [0, 0]
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)]
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)]
      const sum =
        sums[bottom * (width + 1) + right]! -
        sums[top * (width + 1) + right]! -
        sums[bottom * (width + 1) + left]! +
        sums[top * (width + 1) + left]!
      const off = data[y * width + x]! - sum / ((bottom - top) * (right - left))
      difference[y * width + x] = off
      // Print is the minority that stands out most.
      if (off < 0) darker += off * off
      else lighter += off * off
    }
  }
  const sign = lighter > darker * 1.15 ? -1 : 1
  const spread = Math.sqrt((darker + lighter) / data.length) || 1
  const even = new Uint8ClampedArray(data.length)
  for (let at = 0; at < data.length; at++) even[at] = 190 + (sign * difference[at]! * 75) / spread
  return { width, height, data: even }
}
