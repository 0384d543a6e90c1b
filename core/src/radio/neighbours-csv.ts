import Papa from 'papaparse'
import { readNumber } from '../formats/number'
import { neighbourNetwork, type NeighbourNetwork } from '../record/facts'

/** The columns of a list of networks; the first three are needed. */
export const neighbourColumns = ['band_ghz', 'channel', 'signal_dbm', 'width_mhz', 'busy_percent', 'ssid'] as const
/** Of so many networks the strongest are taken. */
export const MOST_NEIGHBOURS = 300
/** A network of which nobody measured how busy it is takes this share of the air: most are idle most of the time. */
const USUAL_BUSY = 0.15

/**
 * Reads a list of networks that are heard from CSV: columns in any order, comma, semicolon or tab, decimal point or comma.
 * Of a long list the strongest are kept, however many there are.
 */
export function neighboursFromCsv(text: string): { networks: NeighbourNetwork[]; of: number; problems: { line: number; problem: string }[] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: true })
  const header = (data[0] ?? []).map((one) => one.trim().toLowerCase())
  const missing = neighbourColumns.slice(0, 3).filter((column) => !header.includes(column))
  if (missing.length) return { networks: [], of: 0, problems: [{ line: 1, problem: `the ${missing.length === 1 ? 'column' : 'columns'} ${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} missing: the first line must name band_ghz, channel and signal_dbm` }] }
  const networks: NeighbourNetwork[] = []
  const problems: { line: number; problem: string }[] = []
  data.slice(1).forEach((cells, index) => {
    const at = (column: string) => (cells[header.indexOf(column)] ?? '').trim()
    const number = (column: string) => readNumber(at(column))
    const busy = at('busy_percent') === '' ? USUAL_BUSY : number('busy_percent') / 100
    const ssid = at('ssid')
    const result = neighbourNetwork.safeParse({ band: at('band_ghz').replace(',', '.').replace(/\.0$/, ''), channel: number('channel'), widthMHz: at('width_mhz') === '' ? 20 : number('width_mhz'), dbm: number('signal_dbm'), busy, ...(ssid === '' ? {} : { ssid: ssid.slice(0, 32) }) })
    if (result.success) { networks.push(result.data); return }
    const field = String(result.error.issues[0]!.path[0])
    problems.push({ line: index + 2, problem: `${{ band: 'band_ghz must be 2.4, 5 or 6', channel: 'channel must be a whole number from 1 to 233', dbm: 'signal_dbm must be from -110 to -10', widthMHz: 'width_mhz must be 20, 40, 80 or 160', busy: 'busy_percent must be from 0 to 100' }[field] ?? 'is not right'}` })
  })
  return { networks: networks.sort((a, b) => b.dbm - a.dbm).slice(0, MOST_NEIGHBOURS), of: networks.length, problems }
}
