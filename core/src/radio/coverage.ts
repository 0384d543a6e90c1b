import { crossesWall, distanceLoss, floorLoss, type PathLossInput } from './path-loss'

type Wall = NonNullable<PathLossInput['walls']>[number]
type Floor = NonNullable<PathLossInput['floors']>[number]

/** Points at equal distances at one height: the cells of a storey, their middles. Metres. */
export interface Grid {
  x: number
  y: number
  columns: number
  rows: number
  cellM: number
  /** Height of the devices people hold, above the ground floor's floor. */
  z: number
}

/** Where a signal starts. */
export interface Sender {
  x: number
  y: number
  z: number
  frequencyMHz: number
  /** What is sent, antenna included. */
  powerDbm: number
}

/** A cell nearer to the rim of a wall's shadow than this is judged by the plain function. */
const RIM_M = 1e-6

/**
 * The signal of a sender in every cell, in dBm, row by row: the same as `pathLoss` for each cell, many times faster. A wall
 * throws a shadow; a shadow is convex, so that it covers one stretch of each row, found at once and summed up in one go.
 */
export function coverage(
  sender: Sender,
  grid: Grid,
  walls: readonly Wall[],
  floors: readonly Floor[],
  exponent = 2
): Float32Array {
  const { columns, rows, cellM } = grid
  const losses = new Float64Array(columns * rows)
  const steps = new Float64Array(columns + 1)
  const shadows = walls.map((wall) => shadowOf(wall, sender, grid.z))
  const rim = RIM_M / cellM
  const between = floorLoss(
    floors.filter(({ z }) => sender.z - z > 1e-9 !== grid.z - z > 1e-9).map(({ lossDb }) => lossDb)
  )
  for (let row = 0; row < rows; row++) {
    const y = grid.y + row * cellM
    steps.fill(0)
    for (let at = 0; at < shadows.length; at++) {
      const shadow = shadows[at]
      if (!shadow) continue
      const wall = walls[at]!
      if (shadow === 'each') {
        for (let column = 0; column < columns; column++)
          if (crossesWall(wall, sender, { x: grid.x + column * cellM, y, z: grid.z }))
            add(steps, column, column, wall.lossDb)
        continue
      }
      stretchOf(shadow, y)
      if (stretch[0]! > stretch[1]! + 2 * RIM_M) continue
      const first = (stretch[0]! - grid.x) / cellM
      const last = (stretch[1]! - grid.x) / cellM
      // Cells surely inside; those on the rim are asked one by one.
      const inFrom = Math.max(0, Math.ceil(first + rim))
      const inTo = Math.min(columns - 1, Math.floor(last - rim))
      if (inTo >= inFrom) add(steps, inFrom, inTo, wall.lossDb)
      const isAsked = (column: number) =>
        column >= 0 &&
        column < columns &&
        (column < inFrom || column > inTo) &&
        (Math.abs(column - first) <= rim || Math.abs(column - last) <= rim)
      const atFirst = Math.round(first)
      const atLast = Math.round(last)
      for (let column = atFirst; ; column = atLast) {
        if (isAsked(column) && crossesWall(wall, sender, { x: grid.x + column * cellM, y, z: grid.z }))
          add(steps, column, column, wall.lossDb)
        if (column === atLast) break
      }
    }
    let wallsDb = 0
    for (let column = 0; column < columns; column++) {
      wallsDb += steps[column]!
      losses[row * columns + column] = wallsDb
    }
  }
  const signal = new Float32Array(columns * rows)
  // What is the same for every cell is reckoned once; half the logarithm of the square saves the root.
  const atOneMetre = sender.powerDbm - distanceLoss(sender.frequencyMHz, 1, exponent) - between
  const fall = (5 * exponent) / Math.LN10
  const rise = (grid.z - sender.z) ** 2
  for (let row = 0; row < rows; row++) {
    const dy = grid.y + row * cellM - sender.y
    for (let column = 0; column < columns; column++) {
      const dx = grid.x + column * cellM - sender.x
      const square = dx * dx + dy * dy + rise
      signal[row * columns + column] =
        atOneMetre - losses[row * columns + column]! - (square > 1 ? fall * Math.log(square) : 0)
    }
  }
  return signal
}

/** Where the stretch of a row begins and ends that a shadow covers, metres: one place for all rows, as none is kept. */
const stretch = new Float64Array(2)

/** Finds the stretch of a row that a shadow covers; it ends before it begins where there is none. */
function stretchOf(shadow: Shadow, y: number): void {
  let [from, to] = [-Infinity, Infinity]
  for (let plane = 0; plane < shadow.length; plane += 3) {
    const across = shadow[plane]!
    const rest = shadow[plane + 2]! - shadow[plane + 1]! * y
    if (across > 1e-12) from = Math.max(from, rest / across)
    else if (across < -1e-12) to = Math.min(to, rest / across)
    else if (rest > 1e-9) to = -Infinity
  }
  stretch[0] = from
  stretch[1] = to
}

function add(steps: Float64Array, from: number, to: number, lossDb: number): void {
  steps[from]! += lossDb
  steps[to + 1]! -= lossDb
}

/** Half-planes a·x + b·y ≥ c whose common part is the shadow: a, b and c of each, one after another. */
type Shadow = Float64Array

/** The shadow of a wall at the height of the grid; null where it throws none, `each` where the sender stands in its line. */
function shadowOf(wall: Wall, sender: Sender, z: number): Shadow | 'each' | null {
  const { zFrom = 0, zTo = 2.6 } = wall
  // The part of the way on which the line is at the wall's height.
  const rise = z - sender.z
  let [least, most] = [0, 1]
  if (Math.abs(rise) < 1e-12) {
    if (sender.z < zFrom - 1e-9 || sender.z > zTo + 1e-9) return null
  } else {
    const ends = [(zFrom - sender.z) / rise, (zTo - sender.z) / rise].sort((a, b) => a - b)
    ;[least, most] = [Math.max(0, ends[0]!), Math.min(1, ends[1]!)]
    if (least > most + 1e-12) return null
  }
  const [ax, ay, bx, by] = [wall.from.x - sender.x, wall.from.y - sender.y, wall.to.x - sender.x, wall.to.y - sender.y]
  const length = Math.hypot(bx - ax, by - ay)
  if (length <= 1e-9) return null
  const turn = ax * by - ay * bx
  // How far the sender stands from the wall's line. Where the height limits the way, its rim moves with each cell: those are asked.
  const off = turn / length
  // In its very line, and not on the wall itself, no way leads through it: all ways leave the line where they start.
  const [toA, toB] = [Math.hypot(ax, ay), Math.hypot(bx, by)]
  if (Math.abs(off) < 1e-12 && Math.abs(toA - toB) >= length - 1e-12 && Math.min(toA, toB) > 1e-6) return null
  if (Math.abs(off) < 1e-6 || (Math.abs(rise) >= 1e-12 && (least > 0 || most < 1) && most - least < 1e-9)) return 'each'
  const sign = Math.sign(turn)
  const planes: number[] = []
  const plane = (a: number, b: number, c: number) => planes.push(a, b, c + a * sender.x + b * sender.y)
  plane(-sign * ay, sign * ax, 0)
  plane(sign * by, -sign * bx, 0)
  // Along the wall's normal: 1 on the wall itself, more behind it.
  const [nx, ny] = [(by - ay) / turn, -(bx - ax) / turn]
  plane(nx, ny, 1 / Math.max(most, 1e-12))
  if (least > 1e-12) plane(-nx, -ny, -1 / least)
  return Float64Array.from(planes)
}
