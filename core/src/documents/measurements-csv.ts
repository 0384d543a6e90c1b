import { type Band, bands } from '../values/band'
import { readListed, readTable, unguarded, type LineProblem, type TableRow } from './table'
import { measuredRun, type MeasuredRun } from '../record/things/measurement'

/** Columns of a list of measurements; `room` alone is needed, and `source` in it means the source by cable. */
export const measurementColumns = [
  'room',
  'band_ghz',
  'signal_dbm',
  'down_mbps',
  'up_mbps',
  'idle_ms',
  'loaded_ms',
  'loss_percent'
] as const
const figureOf = {
  down_mbps: 'downMbps',
  up_mbps: 'upMbps',
  idle_ms: 'idleMs',
  loaded_ms: 'loadedMs',
  loss_percent: 'lossPercent'
} as const
const MOST_LINES = 2000

/** One place of a list, with all the runs that stand there. */
export interface ListedMeasurement {
  /** Null for the source. */
  room: string | null
  band: Band | null
  dbm: number | null
  runs: MeasuredRun[]
}

/**
 * Reads a list of measurements from CSV: columns in any order, comma, semicolon or tab, decimal point or comma. Lines of one room and
 * band are runs of one measurement.
 * @param rooms gives the id of a room by its name as it is written
 */
export function measurementsFromCsv(
  text: string,
  rooms: (name: string) => string | null
): { measurements: ListedMeasurement[]; problems: LineProblem[] } {
  const { rows, problems } = readTable(text, { known: measurementColumns, needed: ['room'] })
  const found = new Map<string, ListedMeasurement>()
  if (rows.length >= MOST_LINES)
    problems.push({ line: rows[MOST_LINES - 1]!.line, problem: `only the first ${MOST_LINES} lines are read` })
  for (const { line, at } of rows.slice(0, MOST_LINES - 1)) {
    const read = measuredAt(at, rooms)
    if (typeof read === 'string') {
      problems.push({ line, problem: read })
      continue
    }
    const key = `${read.room ?? 'source'} ${read.band}`
    const held = found.get(key)
    if (!held) found.set(key, read)
    else {
      held.runs.push(...read.runs)
      held.dbm = read.dbm ?? held.dbm
    }
  }
  return { measurements: [...found.values()], problems }
}

/** What one line tells, or what is wrong with it. */
function measuredAt(at: TableRow['at'], rooms: (name: string) => string | null): ListedMeasurement | string {
  const name = at('room')
  const source = /^source$/i.test(name)
  const room = source ? null : (rooms(name) ?? rooms(unguarded(name)))
  if (!source && room === null) return `there is no room “${name.slice(0, 40)}” on the list: add it, or mend the name`
  const said = at('band_ghz').replace(',', '.').replace(/\.0$/, '')
  const band = bands.find((candidate) => candidate === said) ?? null
  if (!source && band === null) return 'band_ghz must be 2.4, 5 or 6'
  const dbm = at('signal_dbm') === '' ? null : readListed(at('signal_dbm'))
  if (dbm !== null && !(typeof dbm === 'number' && dbm >= -110 && dbm <= -10))
    return 'signal_dbm must be from -110 to -10'
  const run = runAt(at)
  if (typeof run === 'string') return run
  if (run === null && dbm === null) return 'it holds no figure'
  return { room, band: source ? null : band, dbm, runs: run ? [run] : [] }
}

/** The figures of one line; null where it holds none, in words what is wrong with one. */
function runAt(at: TableRow['at']): MeasuredRun | string | null {
  const figures: Record<string, number> = {}
  for (const [column, figure] of Object.entries(figureOf)) {
    if (at(column) === '') continue
    const value = readListed(at(column))
    if (typeof value !== 'number') return `${column}: ${value.problem}`
    figures[figure] = value
  }
  if (Object.keys(figures).length === 0) return null
  const run = measuredRun.safeParse(figures)
  if (run.success) return run.data
  const [issue] = run.error.issues
  const column = Object.entries(figureOf).find(([, figure]) => figure === issue!.path[0])![0]
  return `${column} ${issue!.message}`
}
