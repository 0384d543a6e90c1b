import Papa from 'papaparse'
import { readNumber } from '../formats/number'
import { measuredRun, type MeasuredRun } from '../record/facts'

/** Columns of a list of measurements; `room` alone is needed, and `source` in it means the source by cable. */
export const measurementColumns = ['room', 'band_ghz', 'signal_dbm', 'down_mbps', 'up_mbps', 'idle_ms', 'loaded_ms', 'loss_percent'] as const
const figureOf = { down_mbps: 'downMbps', up_mbps: 'upMbps', idle_ms: 'idleMs', loaded_ms: 'loadedMs', loss_percent: 'lossPercent' } as const
const MOST_LINES = 2000

/** One place of a list, with all the runs that stand there. */
export interface ListedMeasurement {
  /** Null for the source. */
  room: string | null
  band: '2.4' | '5' | '6' | null
  dbm: number | null
  runs: MeasuredRun[]
}

/**
 * Reads a list of measurements from CSV: columns in any order, comma, semicolon or tab, decimal point or comma. Lines of one room and
 * band are runs of one measurement.
 * @param rooms gives the id of a room by its name as it is written
 */
export function measurementsFromCsv(text: string, rooms: (name: string) => string | null): { measurements: ListedMeasurement[]; problems: { line: number; problem: string }[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: true })
  const header = (data[0] ?? []).map((one) => one.trim().toLowerCase())
  if (!header.includes('room')) return { measurements: [], problems: [{ line: 1, problem: `the column room is missing: the first line must name room and any of ${measurementColumns.slice(1).join(', ')}` }] }
  const found = new Map<string, ListedMeasurement>()
  const problems: { line: number; problem: string }[] = []
  if (data.length > MOST_LINES) problems.push({ line: MOST_LINES, problem: `only the first ${MOST_LINES} lines are read` })
  data.slice(1, MOST_LINES).forEach((cells, index) => {
    const line = index + 2
    const at = (column: string) => (header.includes(column) ? (cells[header.indexOf(column)] ?? '').trim() : '')
    const name = at('room')
    const source = /^source$/i.test(name)
    const room = source ? null : rooms(name)
    if (!source && room === null) { problems.push({ line, problem: `there is no room “${name.slice(0, 40)}” on the list: add it, or mend the name` }); return }
    const band = at('band_ghz').replace(',', '.').replace(/\.0$/, '')
    if (!source && !['2.4', '5', '6'].includes(band)) { problems.push({ line, problem: 'band_ghz must be 2.4, 5 or 6' }); return }
    const dbm = at('signal_dbm') === '' ? null : readNumber(at('signal_dbm'))
    if (dbm !== null && !(dbm >= -110 && dbm <= -10)) { problems.push({ line, problem: 'signal_dbm must be from -110 to -10' }); return }
    const given = Object.entries(figureOf).flatMap(([column, figure]) => (at(column) === '' ? [] : [[column, figure, readNumber(at(column))] as const]))
    const run = measuredRun.safeParse(Object.fromEntries(given.map(([, figure, value]) => [figure, value])))
    if (!run.success) {
      const figure = run.error.issues[0]!.path[0]
      const [column] = given.find(([, one]) => one === figure)!
      problems.push({ line, problem: `${column} ${Number.isNaN(readNumber(at(column))) ? 'is no number' : run.error.issues[0]!.message}` })
      return
    }
    if (given.length === 0 && dbm === null) { problems.push({ line, problem: 'it holds no figure' }); return }
    const key = `${room ?? 'source'} ${band}`
    const held = found.get(key)
    if (held) { if (given.length) held.runs.push(run.data); if (dbm !== null) held.dbm = dbm } else found.set(key, { room, band: source ? null : (band as '5'), dbm, runs: given.length ? [run.data] : [] })
  })
  return { measurements: [...found.values()], problems }
}
