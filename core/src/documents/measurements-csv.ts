import { type Band, bands } from '../values/band'
import { readListed, readTable, unguarded, type LineProblem } from './table'
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
    const wrong = (problem: string) => problems.push({ line, problem })
    const name = at('room')
    const source = /^source$/i.test(name)
    const room = source ? null : (rooms(name) ?? rooms(unguarded(name)))
    if (!source && room === null) {
      wrong(`there is no room “${name.slice(0, 40)}” on the list: add it, or mend the name`)
      continue
    }
    const band = at('band_ghz').replace(',', '.').replace(/\.0$/, '')
    if (!source && !(bands as readonly string[]).includes(band)) {
      wrong('band_ghz must be 2.4, 5 or 6')
      continue
    }
    const dbm = at('signal_dbm') === '' ? null : readListed(at('signal_dbm'))
    if (dbm !== null && !(typeof dbm === 'number' && dbm >= -110 && dbm <= -10)) {
      wrong('signal_dbm must be from -110 to -10')
      continue
    }
    const given = Object.entries(figureOf).flatMap(([column, figure]) =>
      at(column) === '' ? [] : [{ column, figure, value: readListed(at(column)) }]
    )
    const unread = given.find((one) => typeof one.value !== 'number')
    if (unread && typeof unread.value !== 'number') {
      wrong(`${unread.column}: ${unread.value.problem}`)
      continue
    }
    const run = measuredRun.safeParse(Object.fromEntries(given.map(({ figure, value }) => [figure, value])))
    if (!run.success) {
      wrong(
        `${given.find(({ figure }) => figure === run.error.issues[0]!.path[0])!.column} ${run.error.issues[0]!.message}`
      )
      continue
    }
    if (given.length === 0 && dbm === null) {
      wrong('it holds no figure')
      continue
    }
    const key = `${room ?? 'source'} ${band}`
    const held = found.get(key)
    if (held) {
      if (given.length) held.runs.push(run.data)
      if (dbm !== null) held.dbm = dbm
    } else found.set(key, { room, band: source ? null : (band as '5'), dbm, runs: given.length ? [run.data] : [] })
  }
  return { measurements: [...found.values()], problems }
}
