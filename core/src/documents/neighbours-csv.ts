import { readListed, readTable, unguarded, type LineProblem } from './table'
import { neighbourNetwork, type NeighbourNetwork } from '../record/neighbour-network'

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
export function neighboursFromCsv(text: string): { networks: NeighbourNetwork[]; of: number; problems: LineProblem[] } {
  const { rows, problems } = readTable(text, { known: neighbourColumns, needed: neighbourColumns.slice(0, 3) })
  const networks: NeighbourNetwork[] = []
  for (const { line, at } of rows) {
    const figures = {
      channel: readListed(at('channel')),
      widthMHz: at('width_mhz') === '' ? 20 : readListed(at('width_mhz')),
      dbm: readListed(at('signal_dbm')),
      busy: at('busy_percent') === '' ? USUAL_BUSY * 100 : readListed(at('busy_percent'))
    }
    const ssid = unguarded(at('ssid'))
    const busy = typeof figures.busy === 'number' ? figures.busy / 100 : figures.busy
    const result = neighbourNetwork.safeParse({
      band: at('band_ghz').replace(',', '.').replace(/\.0$/, ''),
      ...figures,
      busy,
      ...(ssid === '' ? {} : { ssid: ssid.slice(0, 32) })
    })
    if (result.success) {
      networks.push(result.data)
      continue
    }
    const field = String(result.error.issues[0]!.path[0])
    problems.push({
      line,
      problem: `${{ band: 'band_ghz must be 2.4, 5 or 6', channel: 'channel must be a whole number from 1 to 233', dbm: 'signal_dbm must be from -110 to -10', widthMHz: 'width_mhz must be 20, 40, 80 or 160', busy: 'busy_percent must be from 0 to 100' }[field] ?? 'is not right'}`
    })
  }
  return { networks: networks.sort((a, b) => b.dbm - a.dbm).slice(0, MOST_NEIGHBOURS), of: networks.length, problems }
}
