import type { Band } from '../values/band'
import { readListed, readTable, unguarded, writeTable, type LineProblem } from './table'
import { checkField } from '../record/facts'

/** A reading as a line of a CSV file holds it. */
export interface ReadingLine {
  room: string
  unit: string
  band: Band
  dbm: number
  x?: number
  y?: number
}

/** The columns, with their units in their names; the last two may be left out. */
export const readingColumns = ['room', 'unit', 'band_ghz', 'signal_dbm', 'x_m', 'y_m'] as const
const needed: readonly string[] = readingColumns.slice(0, 4)

/** No home gives more readings than these. */
export const MOST_LINES = 5000

/** Readings as CSV: a header, a decimal point. */
export function readingsToCsv(readings: readonly ReadingLine[]): string {
  return writeTable(
    readingColumns,
    readings.map(({ room, unit, band, dbm, x, y }) => [room, unit, band, dbm, x ?? '', y ?? ''])
  )
}

/**
 * Reads readings from CSV: columns in any order, separated by comma, semicolon or tab; decimal point or comma.
 * @param known the rooms and units that readings may name
 * @returns the lines that are right, and what is wrong with the others; a missing column leaves no line
 */
export function readingsFromCsv(
  text: string,
  known: { rooms: readonly string[]; units: readonly string[] }
): { readings: ReadingLine[]; problems: LineProblem[] } {
  const { header, rows, problems } = readTable(text, { known: readingColumns, needed })
  if (rows.length > MOST_LINES)
    return {
      readings: [],
      problems: [{ line: rows[MOST_LINES]!.line, problem: `at most ${MOST_LINES} readings in one file: split it` }]
    }
  const readings: ReadingLine[] = []
  for (const { line, at } of rows) {
    const wrong = (problem: string) => problems.push({ line, problem })
    const [room, unit] = [match(known.rooms, at('room')), match(known.units, at('unit'))]
    if (room === undefined) {
      wrong(`room: the plan has no ${at('room') || 'room without a name'}`)
      continue
    }
    if (unit === undefined) {
      wrong(`unit: no unit is called ${at('unit') || 'nothing'}`)
      continue
    }
    const band = at('band_ghz').replace(',', '.').replace(/\.0$/, '')
    if (band !== '2.4' && band !== '5' && band !== '6') {
      wrong('band_ghz: must be 2.4, 5 or 6')
      continue
    }
    const dbm = readListed(at('signal_dbm'))
    const checked =
      typeof dbm === 'number'
        ? checkField('reading', 'dbm', dbm)
        : { problem: `must be a number of dBm, such as -64; ${dbm.problem}` }
    if ('problem' in checked) {
      wrong(`signal_dbm: ${checked.problem}`)
      continue
    }
    const point = pointOf(header, at)
    if ('problem' in point) {
      wrong(point.problem)
      continue
    }
    if ((point.x === undefined) !== (point.y === undefined)) {
      wrong('x_m and y_m: give both or neither')
      continue
    }
    readings.push({ room, unit, band, dbm: dbm as number, ...point })
  }
  return { readings, problems }
}

/** The point that a line names, or what is wrong with it. */
function pointOf(
  header: readonly string[],
  at: (column: string) => string
): { x?: number; y?: number } | { problem: string } {
  const point: { x?: number; y?: number } = {}
  for (const [column, field] of [
    ['x_m', 'x'],
    ['y_m', 'y']
  ] as const) {
    if (!header.includes(column) || at(column) === '') continue
    const value = readListed(at(column))
    const found =
      typeof value === 'number'
        ? checkField('reading', field, value)
        : { problem: `must be a number of metres; ${value.problem}` }
    if ('problem' in found) return { problem: `${column}: ${found.problem}` }
    point[field] = value as number
  }
  return point
}

/** A name of those that are known, as it stands or as it was before it was kept from being taken for a formula. */
function match(names: readonly string[], name: string): string | undefined {
  const of = (wanted: string) => names.find((candidate) => candidate.toLowerCase() === wanted.toLowerCase())
  return of(name) ?? of(unguarded(name))
}
