import { createCanvas, type Canvas } from '@napi-rs/canvas'
import { homography, mapped, type Quad } from '@pasado/core/labels/picture/homography'
import { seededRandom } from '@pasado/core/values/random'

/** How well a label can be read on its picture. */
export const conditions = ['clean', 'worn', 'bad'] as const
export type Condition = (typeof conditions)[number]

interface Wear {
  /** Most turn of the picture, in degrees, and shift of each corner, as a share of the label. */
  turn: number
  slant: number
  blurPx: number
  /** Share of the contrast that is left. */
  contrast: number
  glare: number
  noise: number
  crumple: number
  scale: number
}

const wearOf: Record<Condition, Wear> = {
  clean: { turn: 1.5, slant: 0.01, blurPx: 0, contrast: 1, glare: 0, noise: 3, crumple: 0, scale: 1 },
  worn: { turn: 7, slant: 0.045, blurPx: 0.9, contrast: 0.6, glare: 0.25, noise: 9, crumple: 1.2, scale: 0.95 },
  bad: { turn: 14, slant: 0.1, blurPx: 1.9, contrast: 0.36, glare: 0.65, noise: 16, crumple: 3, scale: 0.8 }
}

const WIDTH = 1400
const HEIGHT = 1150

/**
 * Photographs a label: on the grey base of a unit, turned, slanted, crumpled, with glare, blur, noise and little contrast.
 * @param seed the same picture for the same seed
 */
export function photograph(label: Canvas, condition: Condition, seed: number): Canvas {
  const wear = wearOf[condition]
  const random = seededRandom(seed)
  const within = (most: number) => (random() * 2 - 1) * most
  const { width: labelWidth, height: labelHeight } = label
  const fit = Math.min((WIDTH * 0.8) / label.width, (HEIGHT * 0.8) / label.height) * wear.scale
  const [half, tall] = [(label.width * fit) / 2, (label.height * fit) / 2]
  const angle = (within(wear.turn) * Math.PI) / 180
  const corners = [
    [-half, -tall],
    [half, -tall],
    [half, tall],
    [-half, tall]
  ].map(([x, y]) => {
    const [sx, sy] = [x! + within(wear.slant) * half, y! + within(wear.slant) * tall]
    return [
      WIDTH / 2 + sx * Math.cos(angle) - sy * Math.sin(angle),
      HEIGHT / 2 + sx * Math.sin(angle) + sy * Math.cos(angle)
    ] as const
  })
  const source = label.getContext('2d').getImageData(0, 0, label.width, label.height).data
  const toLabel = homography(corners as unknown as Quad, [
    [0, 0],
    [label.width, 0],
    [label.width, label.height],
    [0, label.height]
  ])
  const glare = {
    x: WIDTH * (0.3 + random() * 0.4),
    y: HEIGHT * (0.3 + random() * 0.4),
    radius: 120 + random() * 160,
    power: wear.glare * 255
  }
  const waves = [random() * 6, random() * 6, 90 + random() * 60, 110 + random() * 60]
  const base = 52 + random() * 24
  const light = new Float32Array(WIDTH * HEIGHT)
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const bentX = x + wear.crumple * Math.sin((y / waves[2]!) * 2 + waves[0]!)
      const bentY = y + wear.crumple * Math.sin((x / waves[3]!) * 2 + waves[1]!)
      const [u, v] = mapped(toLabel, [bentX, bentY])
      let value =
        u >= 0 && v >= 0 && u < labelWidth - 1 && v < labelHeight - 1 ? sample(source, labelWidth, u, v) : base
      value = 128 + (value - 128) * wear.contrast
      if (glare.power) {
        const distance = Math.hypot(x - glare.x, y - glare.y) / glare.radius
        if (distance < 1) value += glare.power * (1 - distance) ** 2
      }
      light[y * WIDTH + x] = value
    }
  }
  const soft = blurred(light, wear.blurPx)
  const canvas = createCanvas(WIDTH, HEIGHT)
  const pen = canvas.getContext('2d')
  const picture = pen.createImageData(WIDTH, HEIGHT)
  const octets = picture.data
  for (let at = 0; at < soft.length; at++) {
    const value = soft[at]! + (random() + random() - 1) * wear.noise
    octets[at * 4] = octets[at * 4 + 1] = octets[at * 4 + 2] = value
    octets[at * 4 + 3] = 255
  }
  pen.putImageData(picture, 0, 0)
  return canvas
}

function sample(data: Uint8ClampedArray, width: number, u: number, v: number): number {
  const [left, top] = [Math.floor(u), Math.floor(v)]
  const [right, down] = [u - left, v - top]
  const at = (top * width + left) * 4
  const above = data[at]! * (1 - right) + data[at + 4]! * right
  const below = data[at + width * 4]! * (1 - right) + data[at + width * 4 + 4]! * right
  return above * (1 - down) + below * down
}

/** A Gaussian blur in two passes. */
function blurred(light: Float32Array, sigma: number): Float32Array {
  if (sigma === 0) return light
  const reach = Math.ceil(sigma * 3)
  const weights = Array.from({ length: reach * 2 + 1 }, (_, at) => Math.exp(-((at - reach) ** 2) / (2 * sigma * sigma)))
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const pass = (from: Float32Array, across: boolean) => {
    const to = new Float32Array(from.length)
    for (let y = 0; y < HEIGHT; y++) {
      for (let x = 0; x < WIDTH; x++) {
        let sum = 0
        for (let by = -reach; by <= reach; by++) {
          const px = across ? Math.min(WIDTH - 1, Math.max(0, x + by)) : x
          const py = across ? y : Math.min(HEIGHT - 1, Math.max(0, y + by))
          sum += from[py * WIDTH + px]! * weights[by + reach]!
        }
        to[y * WIDTH + x] = sum / total
      }
    }
    return to
  }
  return pass(pass(light, true), false)
}
