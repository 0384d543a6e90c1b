import { contours } from 'd3-contour'
import type { Grid } from './coverage'

/** Steps of signal, weakest last, each with how dark it is drawn: told apart in grey, and never by a lamp's colour. */
export const signalSteps = [
  { fromDbm: -50, dark: 0 },
  { fromDbm: -60, dark: 0.07 },
  { fromDbm: -67, dark: 0.15 },
  { fromDbm: -75, dark: 0.34 },
  { fromDbm: -85, dark: 0.52 },
  { fromDbm: -Infinity, dark: 0.7 }
] as const

/** The step that a signal falls into, by its place among the steps. */
export const stepOf = (dbm: number): number => signalSteps.findIndex(({ fromDbm }) => dbm >= fromDbm)

/** The lines of equal signal that are drawn, each with its own dashes in metres; the floor of a room is the one without. */
export const contourLines = [
  { dbm: -50, dashes: '0.05 0.15' },
  { dbm: -60, dashes: '0.25 0.15' },
  { dbm: -67, dashes: '' },
  { dbm: -75, dashes: '0.5 0.15 0.05 0.15' },
  { dbm: -85, dashes: '0.15 0.3' }
] as const

/** A line of equal signal as an SVG path in metres of the plan; `d` is empty where no cell reaches it. */
export interface Contour {
  dbm: number
  dashes: string
  d: string
}

/** The lines of equal signal over the cells of a storey, linear between the cells' middles. */
export function contoursOf(grid: Grid, signal: Float32Array): Contour[] {
  const { columns, rows, cellM } = grid
  const find = contours().size([columns, rows])
  const values = Array.from(signal, (value) => Math.max(value, -200))
  // The library's coordinates run from the corner of the first cell; ours are those of its middle.
  const metres = ([x, y]: number[]) => `${round(grid.x + (x! - 0.5) * cellM)} ${round(grid.y + (y! - 0.5) * cellM)}`
  return contourLines.map(({ dbm, dashes }) => ({
    dbm,
    dashes,
    d: find
      .contour(values, dbm)
      .coordinates.flatMap((polygon) => polygon.map((ring) => `M${ring.slice(0, -1).map(metres).join('L')}Z`))
      .join('')
  }))
}

const round = (value: number) => Math.round(value * 100) / 100
