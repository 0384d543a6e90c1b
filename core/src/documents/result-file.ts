import { readDotted } from './dotted'
import { measuredRun, type MeasuredRun } from '../record/things/measurement'

/** Under which dotted names a result file tells each figure, and what its number is multiplied by to come to ours. Names are compared without case, `_` and `-`. */
export const resultNames: { figure: keyof MeasuredRun; times: number; names: readonly string[] }[] = [
  {
    figure: 'downMbps',
    times: 1,
    names: ['down.mbps', 'download.mbps', 'downmbps', 'downloadmbps', 'download.mbitpersecond']
  },
  { figure: 'downMbps', times: 1e-6, names: ['down.bps', 'download.bps', 'download.bitspersecond'] },
  { figure: 'downMbps', times: 8e-6, names: ['down.bytespersecond', 'download.bytespersecond'] },
  { figure: 'upMbps', times: 1, names: ['up.mbps', 'upload.mbps', 'upmbps', 'uploadmbps', 'upload.mbitpersecond'] },
  { figure: 'upMbps', times: 1e-6, names: ['up.bps', 'upload.bps', 'upload.bitspersecond'] },
  { figure: 'upMbps', times: 8e-6, names: ['up.bytespersecond', 'upload.bytespersecond'] },
  { figure: 'idleMs', times: 1, names: ['latency.idlems', 'latency.ms', 'ping.ms', 'idlems', 'pingms', 'latencyms'] },
  { figure: 'loadedMs', times: 1, names: ['latency.loadedms', 'loadedms'] },
  { figure: 'lossPercent', times: 1, names: ['loss.percent', 'losspercent', 'packetloss.percent', 'packetlosspercent'] }
]

const plain = (name: string) => name.toLowerCase().replace(/[_\-\s]/g, '')

/** Reads one result of a throughput tool: JSON whose names are among those above, whatever else it holds. */
export function readResultFile(text: string): { run: MeasuredRun } | { problem: string } {
  if (text.length > 2_000_000) return { problem: 'is larger than a result is (2 MB)' }
  const { values, problems } = readDotted(text)
  if (Object.keys(values).length === 0)
    return { problem: problems[0] ? `cannot be read: ${problems[0]}` : 'holds nothing' }
  const named = new Map(Object.entries(values).map(([name, value]) => [plain(name), value]))
  const run: Record<string, number> = {}
  for (const { figure, times, names } of resultNames) {
    const name = names.find((candidate) => named.has(candidate))
    if (name === undefined || run[figure] !== undefined) continue
    const number = Number(named.get(name))
    if (!Number.isFinite(number))
      return { problem: `${name} is “${named.get(name)!.slice(0, 20)}”, which is no number` }
    run[figure] = Math.round(number * times * 1000) / 1000
  }
  if (Object.keys(run).length === 0)
    return {
      problem: `holds none of the names that are known: such as ${resultNames
        .slice(0, 2)
        .map(({ names }) => names[0])
        .join(' or ')}`
    }
  const checked = measuredRun.safeParse(run)
  return checked.success
    ? { run: checked.data }
    : { problem: `${String(checked.error.issues[0]!.path[0])} ${checked.error.issues[0]!.message}` }
}
