import type { Grid } from '../../radio/coverage'
import { contoursOf, signalSteps, stepOf } from '../../radio/contours'
import type { HomePlan } from './home-plan'
import { cornersOf, drawnWallM } from './walls'

/** What is drawn of a storey beside its rooms and walls. */
export interface PlanPictureParts {
  storey: string
  /** Over the picture: the home, or the storey. */
  title: string
  units: readonly { name: string; storey: string; x: number; y: number }[]
  outlets?: readonly { storey: string; x: number; y: number; kind: 'mains' | 'line' | 'network' }[]
  coverage?: { grid: Grid; signal: Float32Array; band: string }
}

const INK = '#1D1822'
const PAPER = '#FBF8F1'
const MARGIN_M = 0.8
const PIXELS_A_METRE = 48
/** The size of a unit's name, and how wide its letters are at most on average, as a share of it. */
const [UNIT_TYPE_M, LETTER_WIDTH] = [0.34, 0.62]

const text = (value: string) => value.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`)
const at = (value: number) => String(Math.round(value * 100) / 100)

/**
 * One storey as an SVG document of its own, one unit a metre: rooms, walls, stairs, units, and the signal in grey with its
 * lines. Ink on paper, so that it prints well.
 */
export function planSvg(plan: HomePlan, { storey, title, units, outlets = [], coverage }: PlanPictureParts): string {
  const rooms = plan.rooms.filter((room) => room.storey === storey)
  const [left, top] = [
    Math.min(0, ...rooms.map(({ x }) => x)) - MARGIN_M,
    Math.min(0, ...rooms.map(({ y }) => y)) - MARGIN_M - 0.6
  ]
  const [right, bottom] = [
    Math.max(1, ...rooms.map(({ x, widthM }) => x + widthM)) + MARGIN_M,
    Math.max(1, ...rooms.map(({ y, depthM }) => y + depthM)) + MARGIN_M + (coverage ? 0.8 : 0)
  ]
  const parts: string[] = [
    `<rect x="${at(left)}" y="${at(top)}" width="${at(right - left)}" height="${at(bottom - top)}" fill="${PAPER}"/>`
  ]
  parts.push(
    `<text x="${at(left + 0.3)}" y="${at(top + 0.7)}" font-size="0.5" font-weight="bold">${text(title)}</text>`
  )
  if (coverage) parts.push(...signalParts(coverage))
  for (const { x1, y1, x2, y2 } of plan.stairs.filter((stair) => stair.storey === storey)) {
    const steps = Array.from({ length: 7 }, (_, step) => `M${at(x1 + ((x2 - x1) * step) / 6)} ${at(y1)}V${at(y2)}`)
    parts.push(`<path d="${steps.join('')}" stroke="${INK}" stroke-width="0.03" fill="none"/>`)
  }
  for (const wall of plan.walls.filter((candidate) => candidate.storey === storey)) {
    parts.push(
      `<path d="M${at(wall.x1)} ${at(wall.y1)}L${at(wall.x2)} ${at(wall.y2)}" stroke="${INK}" stroke-width="${at(drawnWallM(wall))}"${wall.opening ? ' stroke-dasharray="0.15 0.12"' : ''}/>`
    )
  }
  for (const { x, y, widthM } of cornersOf(plan.walls.filter((wall) => wall.storey === storey)))
    parts.push(
      `<rect x="${at(x - widthM / 2)}" y="${at(y - widthM / 2)}" width="${at(widthM)}" height="${at(widthM)}"/>`
    )
  for (const { x, y, name, complained } of rooms)
    parts.push(label(x + 0.3, y + 0.65, `${name}${complained ? ' ✗' : ''}`, 0.38))
  for (const { x, y } of outlets.filter((outlet) => outlet.storey === storey))
    parts.push(
      `<rect x="${at(x - 0.12)}" y="${at(y - 0.12)}" width="0.24" height="0.24" fill="${PAPER}" stroke="${INK}" stroke-width="0.05"/>`
    )
  for (const { x, y, name } of units.filter((unit) => unit.storey === storey))
    parts.push(
      `<circle cx="${at(x)}" cy="${at(y)}" r="0.28" fill="${INK}" stroke="${PAPER}" stroke-width="0.08"/>`,
      label(inside(x, name, left, right), y + 0.68, name, UNIT_TYPE_M, 'middle')
    )
  if (coverage) parts.push(legend(left + 0.3, bottom - 0.75, coverage.band))
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${at(left)} ${at(top)} ${at(right - left)} ${at(bottom - top)}" width="${Math.round((right - left) * PIXELS_A_METRE)}" height="${Math.round((bottom - top) * PIXELS_A_METRE)}" font-family="'Atkinson Hyperlegible Next', sans-serif" fill="${INK}">${parts.join('')}</svg>\n`
}

/** Where the middle of a unit's name stands, so that none of it lies beyond the picture. */
function inside(x: number, name: string, left: number, right: number): number {
  const half = Math.min((right - left) / 2, (name.length * UNIT_TYPE_M * LETTER_WIDTH) / 2)
  return Math.min(right - half, Math.max(left + half, x))
}

function label(x: number, y: number, name: string, size: number, anchor = 'start'): string {
  // Its halo first, then the letters: not everything that draws SVG knows an order of painting.
  const place = `x="${at(x)}" y="${at(y)}" font-size="${size}" font-weight="bold" text-anchor="${anchor}"`
  return `<text ${place} stroke="${PAPER}" stroke-width="0.1" aria-hidden="true">${text(name)}</text><text ${place}>${text(name)}</text>`
}

/** Cells of one step that lie beside each other in a row are one rectangle. */
function signalParts({ grid, signal }: NonNullable<PlanPictureParts['coverage']>): string[] {
  const { columns, rows, cellM } = grid
  const paths = signalSteps.map((): string[] => [])
  for (let row = 0; row < rows; row++) {
    for (let column = 0, from = 0; column < columns; column++) {
      const step = stepOf(signal[row * columns + column]!)
      if (column + 1 < columns && stepOf(signal[row * columns + column + 1]!) === step) continue
      paths[step]!.push(
        `M${at(grid.x + (from - 0.5) * cellM)} ${at(grid.y + (row - 0.5) * cellM)}h${at((column - from + 1) * cellM)}v${at(cellM)}h${at(-(column - from + 1) * cellM)}z`
      )
      from = column + 1
    }
  }
  return [
    ...signalSteps.flatMap(({ dark }, step) =>
      dark > 0 && paths[step]!.length ? [`<path d="${paths[step]!.join('')}" fill-opacity="${dark}"/>`] : []
    ),
    ...contoursOf(grid, signal).flatMap(({ d, dashes }) =>
      d
        ? [
            `<path d="${d}" fill="none" stroke="${INK}" stroke-width="0.04"${dashes ? ` stroke-dasharray="${dashes}"` : ''}/>`
          ]
        : []
    )
  ]
}

function legend(x: number, y: number, band: string): string {
  const boxes = signalSteps.map(
    ({ fromDbm, dark }, step) =>
      `<rect x="${at(x + step * 1.9)}" y="${at(y)}" width="0.5" height="0.35" fill-opacity="${dark}" stroke="${INK}" stroke-width="0.02"/><text x="${at(x + step * 1.9 + 0.58)}" y="${at(y + 0.29)}" font-size="0.28">${fromDbm === -Infinity ? 'weaker' : fromDbm}</text>`
  )
  return `${boxes.join('')}<text x="${at(x)}" y="${at(y - 0.12)}" font-size="0.28">Calculated signal, ${text(band)} GHz, dBm</text>`
}
