import type { MeasuredRun } from '../../record/things/measurement'

/** A figure that looks wrong, what to ask about it, and what it would be if it is a slip; null where only a person can tell. */
export interface Doubt {
  figure: keyof MeasuredRun
  asks: string
  instead: number | null
}

/** What a figure is held against: the speed paid for, and the fastest that the port or the air could have carried. */
export interface Expected {
  paidDownMbps?: number | undefined
  paidUpMbps?: number | undefined
  /** What the port of the source or the unit can do at most, Mbit/s. */
  mostMbps?: number | undefined
  /** What the way there carries as far as it is known, Mbit/s: what it could not carry is no slip of units. */
  carriesMbps?: number | undefined
}

const OCTET_BITS = 8
/** A speed counts as given in megabytes where eight times it is so near to what is paid for. */
const [NEAR_LOW, NEAR_HIGH] = [0.75, 1.15]

/**
 * What to ask about a run before it is believed: a speed above what the port can do, megabytes for megabits, seconds for milliseconds,
 * a loaded latency below the idle one. A figure that is impossible altogether is refused by the record itself.
 */
export function doubtsOf(run: MeasuredRun, expected: Expected): Doubt[] {
  const doubts: Doubt[] = []
  for (const [figure, paid, way] of [
    ['downMbps', expected.paidDownMbps, 'down'],
    ['upMbps', expected.paidUpMbps, 'up']
  ] as const) {
    const value = run[figure]
    if (value === undefined) continue
    if (expected.mostMbps !== undefined && value > expected.mostMbps)
      doubts.push({
        figure,
        asks: `${value} Mbit/s ${way} is more than the ${expected.mostMbps} Mbit/s that the port can carry. A digit too many?`,
        instead: value / 10 <= expected.mostMbps ? value / 10 : null
      })
    else if (
      paid !== undefined &&
      value > 0 &&
      value * OCTET_BITS <= (expected.carriesMbps ?? Infinity) &&
      value * OCTET_BITS >= paid * NEAR_LOW &&
      value * OCTET_BITS <= paid * NEAR_HIGH
    )
      doubts.push({
        figure,
        asks: `${value} ${way} is about an eighth of the ${paid} Mbit/s paid for. Are these MB/s? Then it is ${Math.round(value * OCTET_BITS * 10) / 10} Mbit/s.`,
        instead: Math.round(value * OCTET_BITS * 10) / 10
      })
  }
  for (const figure of ['idleMs', 'loadedMs'] as const) {
    const value = run[figure]
    if (value !== undefined && value > 0 && value < 0.5)
      doubts.push({
        figure,
        asks: `A latency of ${value} ms is less than any home has. Seconds? Then it is ${Math.round(value * 1000)} ms.`,
        instead: Math.round(value * 1000)
      })
  }
  if (run.idleMs !== undefined && run.loadedMs !== undefined && run.loadedMs < run.idleMs * 0.5)
    doubts.push({
      figure: 'loadedMs',
      asks: `Loaded ${run.loadedMs} ms is far below idle ${run.idleMs} ms. Are the two exchanged?`,
      instead: null
    })
  return doubts
}
