import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenLight, grayOf, parting, shrunk, type Gray } from '@pasado/core/labels/picture/gray'
import { areaOf, convexHull, findLabel } from '@pasado/core/labels/picture/find-label'
import {
  distance,
  homography,
  inverse,
  mapped,
  straightened,
  type Point,
  type Quad
} from '@pasado/core/labels/picture/homography'
import { downAt } from '@pasado/core/labels/picture/bend'
import { preparePrint, softened, turnedOver } from '@pasado/core/labels/picture/print'

/** A picture painted by a function of its pixels. */
function paint(width: number, height: number, light: (x: number, y: number) => number): Gray {
  const data = new Uint8ClampedArray(width * height)
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data[y * width + x] = light(x, y)
  return { width, height, data }
}

/** A bright label with a dark border of print on it, turned by an angle, on a dark unit. */
function turnedLabel(degrees: number): { picture: Gray; corners: Point[] } {
  const angle = (degrees * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const inside = (x: number, y: number): Point => [
    (x - 400) * cos + (y - 300) * sin,
    -(x - 400) * sin + (y - 300) * cos
  ]
  const picture = paint(800, 600, (x, y) => {
    const [u, v] = inside(x, y)
    if (Math.abs(u) > 250 || Math.abs(v) > 140) return 50
    return Math.abs(v % 40) < 5 && Math.abs(u) < 200 && Math.abs(u % 12) < 6 ? 30 : 225
  })
  const corners = (
    [
      [-250, -140],
      [250, -140],
      [250, 140],
      [-250, 140]
    ] as Point[]
  ).map(([u, v]): Point => [400 + u * cos - v * sin, 300 + u * sin + v * cos])
  return { picture, corners }
}

const quads = fc.tuple(...Array.from({ length: 8 }, () => fc.double({ min: -0.2, max: 0.2, noNaN: true }))).map(
  (shift) =>
    (
      [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1]
      ] as Point[]
    ).map(([x, y], at): Point => [x + shift[at * 2]!, y + shift[at * 2 + 1]!]) as unknown as Quad
)

describe('projective maps', () => {
  it('take four corners to four others, and back', () => {
    fc.assert(
      fc.property(
        quads,
        quads,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (from, to, x, y) => {
          const h = homography(from, to)
          from.forEach((corner, at) => expect(distance(mapped(h, corner), to[at]!)).toBeLessThan(1e-6))
          expect(distance(mapped(inverse(h), mapped(h, [x, y])), [x, y])).toBeLessThan(1e-5)
        }
      )
    )
  })

  it('an upright part is cut out as it is', () => {
    const picture = paint(40, 30, (x, y) => (x * 7 + y * 13) % 256)
    const cut = straightened(
      picture,
      [
        [10, 5],
        [30, 5],
        [30, 25],
        [10, 25]
      ],
      20,
      20
    )
    expect([cut.width, cut.height, cut.data[0], cut.data[20 * 3 + 4]]).toEqual([
      20,
      20,
      picture.data[5 * 40 + 10],
      picture.data[8 * 40 + 14]
    ])
  })
})

describe('light', () => {
  it('grey is weighed by what the eye sees', () => {
    expect([...grayOf(new Uint8ClampedArray([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255]), 3, 1).data]).toEqual([
      76, 150, 29
    ])
  })

  it('a picture of two tones is parted between them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 110 }), fc.integer({ min: 140, max: 255 }), (dark, bright) => {
        const at = parting(paint(20, 20, (x) => (x < 7 ? dark : bright)))
        expect(at).toBeGreaterThanOrEqual(dark)
        expect(at).toBeLessThan(bright)
      })
    )
  })

  it('print is dark on a light ground afterwards: under a shadow, and where it was light on dark', () => {
    const stroke = (x: number, y: number) => x % 20 < 4 && y % 30 > 8
    const shaded = evenLight(paint(400, 300, (x, y) => (stroke(x, y) ? 40 : 150) + x / 5))
    const reversed = evenLight(paint(400, 300, (x, y) => (stroke(x, y) ? 220 : 60)))
    for (const even of [shaded, reversed]) {
      for (const x of [102, 302])
        expect([even.data[100 * 400 + x]! < 120, even.data[100 * 400 + x + 8]! > 170]).toEqual([true, true])
    }
  })

  it('a picture is made smaller without losing its light', () => {
    const { picture, scale } = shrunk(
      paint(1000, 500, () => 97),
      300
    )
    expect([picture.width <= 300, scale, new Set(picture.data).size, picture.data[0]]).toEqual([true, 4, 1, 97])
    expect(shrunk(picture, 300).scale).toBe(1)
    expect(new Set(softened(picture).data)).toEqual(new Set([97]))
  })
})

describe('a label', () => {
  it.each([0, 4, -9, 17, -22])('turned by %d° is found by its corners', (degrees) => {
    const { picture, corners } = turnedLabel(degrees)
    const found = findLabel(picture)!
    for (const corner of corners) expect(Math.min(...found.map((point) => distance(point, corner)))).toBeLessThan(20)
    expect(Math.abs(areaOf(found) - 500 * 280) / (500 * 280)).toBeLessThan(0.08)
  })

  it('is not made out of nothing', () => {
    expect(findLabel(paint(300, 200, () => 120))).toBeNull()
    expect(findLabel(paint(300, 200, (x, y) => ((x - 150) ** 2 + (y - 100) ** 2 < 400 ? 250 : 40)))).toBeNull()
  })

  it('is brought upright: its lines run level in the print', () => {
    const { picture } = turnedLabel(11)
    const { picture: print, toPhoto } = preparePrint(picture)
    const middle = mapped(toPhoto, [print.width / 2, print.height / 2])
    expect(distance(middle, [400, 300])).toBeLessThan(25)
    const across = mapped(toPhoto, [print.width / 2 + 50, print.height / 2])
    expect((Math.atan2(across[1] - middle[1], across[0] - middle[0]) * 180) / Math.PI).toBeCloseTo(11, 0)
  })

  it.each([70, 90, 135, -120, 180])(
    'turned by %d° its lines run level in the print, one way up or the other',
    (degrees) => {
      const { picture } = turnedLabel(degrees)
      const print = preparePrint(picture)
      const angle = ({ picture: { width, height }, toPhoto }: Omit<typeof print, 'plain'>) => {
        const [from, to] = [0, 50].map((more) => mapped(toPhoto, [width / 2 + more, height / 2]))
        return (Math.atan2(to![1] - from![1], to![0] - from![0]) * 180) / Math.PI
      }
      const off = [print, turnedOver(print)].map((way) => Math.abs(((angle(way) - degrees + 540) % 360) - 180))
      expect(Math.min(...off)).toBeLessThan(1.5)
      expect(Math.max(...off)).toBeGreaterThan(178)
    }
  )

  it('turned over it is the same print from its other end, and twice over itself', () => {
    const print = preparePrint(turnedLabel(11).picture)
    const over = turnedOver(print)
    expect(turnedOver(over).picture).toEqual(print.picture)
    const { width, height } = print.picture
    expect(distance(mapped(over.toPhoto, [10, 20]), mapped(print.toPhoto, [width - 10, height - 20]))).toBeLessThan(
      0.01
    )
  })

  it('on a round base its lines are made straight, and a straight one is left as it is', () => {
    const lines = (sag: number) =>
      paint(900, 500, (x, y) => {
        const from = y - 60 - sag * ((2 * x) / 900 - 1) ** 2
        const row = Math.floor(from / 60)
        return row >= 0 && row < 6 && from % 60 < 24 && x > 40 && x < 860 && x % 22 < 12 ? 20 : 235
      })
    expect(preparePrint(lines(0)).bendPx).toBe(0)
    const { bendPx, picture } = preparePrint(lines(40))
    const scale = picture.width / 900
    expect(bendPx / scale).toBeGreaterThan(25)
    expect(bendPx / scale).toBeLessThan(55)
    expect(downAt(10, 0, 100)).toBe(10)
    expect(downAt(10, 50, 100)).toBe(0)
  })

  it('any picture, however small or blank, is prepared without a fault', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 90 }),
        fc.integer({ min: 2, max: 90 }),
        fc.integer({ min: 0, max: 1000 }),
        (width, height, seed) => {
          const { picture } = preparePrint(paint(width, height, (x, y) => (x * seed + y * 31 * seed) % 251))
          expect(picture.data.length).toBe(picture.width * picture.height)
        }
      ),
      { numRuns: 25 }
    )
  })

  it('the hull of points holds them all', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })), {
          minLength: 3,
          maxLength: 30
        }),
        (points) => {
          const hull = convexHull(points)
          for (const corner of hull) expect(points).toContainEqual([...corner])
          expect(areaOf(hull)).toBeGreaterThanOrEqual(0)
        }
      )
    )
  })
})
