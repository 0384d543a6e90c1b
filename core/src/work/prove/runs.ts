import type { MeasuredRun } from '../../record/things/measurement'
import { medianOf } from '../../values/median'

/** The figures that a run may hold, with their units. */
export const runFigures = {
  downMbps: { name: 'Down', unit: 'Mbit/s' },
  upMbps: { name: 'Up', unit: 'Mbit/s' },
  idleMs: { name: 'Latency idle', unit: 'ms' },
  loadedMs: { name: 'Latency loaded', unit: 'ms' },
  lossPercent: { name: 'Loss', unit: '%' }
} as const
export type RunFigure = keyof typeof runFigures

/** Several runs of one figure: their median, how far they spread, and which stand out. */
export interface Summary {
  median: number
  least: number
  most: number
  count: number
  /** Numbers of runs, from 1, that stand apart from the others; they are counted all the same. */
  outliers: number[]
}

/** From so many deviations on a run stands apart: the modified z-score of Iglewicz and Hoaglin (1993), 0.6745·|x − median|/MAD. */
const APART = 3.5
/** Deviations are taken for at least this share of the median, so that runs which are all but equal make no outlier of a small difference. */
const LEAST_DEVIATION = 0.02

/** The runs of a measurement, figure by figure; null for a figure that none of them holds. */
export function summarise(runs: readonly MeasuredRun[], figure: RunFigure): Summary | null {
  const held = runs.flatMap((run, at) => (run[figure] === undefined ? [] : [{ at: at + 1, value: run[figure] }]))
  if (held.length === 0) return null
  const values = held.map(({ value }) => value)
  const median = medianOf(values)
  const deviation = Math.max(
    medianOf(values.map((value) => Math.abs(value - median))),
    LEAST_DEVIATION * Math.abs(median)
  )
  const outliers =
    held.length < 3 || deviation === 0
      ? []
      : held.filter(({ value }) => (0.6745 * Math.abs(value - median)) / deviation > APART).map(({ at }) => at)
  return { median, least: Math.min(...values), most: Math.max(...values), count: held.length, outliers }
}
