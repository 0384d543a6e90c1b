import Papa from 'papaparse'
import type { Band } from './home-plan'
import { readNumber } from '../formats/number'
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

/** What is wrong with a line, by its number in the file, the header being 1. */
export interface LineProblem {
  line: number
  problem: string
}

/** No home gives more readings than these. */
export const MOST_LINES = 5000

/** Readings as CSV: a header, a decimal point. */
export function readingsToCsv(readings: readonly ReadingLine[]): string {
  return `${Papa.unparse({ fields: [...readingColumns], data: readings.map(({ room, unit, band, dbm, x, y }) => [room, unit, band, dbm, x ?? '', y ?? '']) }, { newline: '\n', escapeFormulae: true })}\n`
}

/**
 * Reads readings from CSV: columns in any order, separated by comma, semicolon or tab; decimal point or comma.
 * @param known the rooms and units that readings may name
 * @returns the lines that are right, and what is wrong with the others; a missing column leaves no line
 */
export function readingsFromCsv(text: string, known: { rooms: readonly string[]; units: readonly string[] }): { readings: ReadingLine[]; problems: LineProblem[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  const header = (data[0] ?? []).map((one) => one.trim().toLowerCase())
  const missing = needed.filter((column) => !header.includes(column))
  if (missing.length) return { readings: [], problems: [{ line: 1, problem: `the ${missing.length === 1 ? 'column' : 'columns'} ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing: the first line must name ${needed.join(', ')}` }] }
  if (data.length - 1 > MOST_LINES) return { readings: [], problems: [{ line: MOST_LINES + 2, problem: `at most ${MOST_LINES} readings in one file: split it` }] }
  const readings: ReadingLine[] = []
  const problems: LineProblem[] = []
  data.slice(1).forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return
    const line = index + 2
    const at = (column: string) => (cells[header.indexOf(column)] ?? '').trim()
    const wrong = (problem: string) => problems.push({ line, problem })
    // A decimal comma in a file whose columns are parted by commas gives a cell too many.
    if (cells.length > header.length) { wrong(`has ${cells.length} values under ${header.length} columns: with a decimal comma, part the columns by semicolons`); return }
    const [room, unit] = [match(known.rooms, at('room')), match(known.units, at('unit'))]
    if (room === undefined) { wrong(`room: the plan has no ${at('room') || 'room without a name'}`); return }
    if (unit === undefined) { wrong(`unit: no unit is called ${at('unit') || 'nothing'}`); return }
    const band = at('band_ghz').replace(',', '.').replace(/\.0$/, '')
    if (band !== '2.4' && band !== '5' && band !== '6') { wrong('band_ghz: must be 2.4, 5 or 6'); return }
    const dbm = readNumber(at('signal_dbm'))
    const checked = Number.isNaN(dbm) ? { problem: 'must be a number of dBm, such as -64' } : checkField('reading', 'dbm', dbm)
    if ('problem' in checked) { wrong(`signal_dbm: ${checked.problem}`); return }
    const point: { x?: number; y?: number } = {}
    for (const [column, field] of [['x_m', 'x'], ['y_m', 'y']] as const) {
      if (!header.includes(column) || at(column) === '') continue
      const value = readNumber(at(column))
      const found = Number.isNaN(value) ? { problem: 'must be a number of metres' } : checkField('reading', field, value)
      if ('problem' in found) { wrong(`${column}: ${found.problem}`); return }
      point[field] = value
    }
    if ((point.x === undefined) !== (point.y === undefined)) { wrong('x_m and y_m: give both or neither'); return }
    readings.push({ room, unit, band, dbm, ...point })
  })
  return { readings, problems }
}

const match = (names: readonly string[], name: string) => names.find((one) => one.toLowerCase() === name.toLowerCase())
