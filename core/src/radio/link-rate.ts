import { z } from 'zod'

/** Input of `link-rate`. */
export const linkRateInput = z.strictObject({
  rssiDbm: z.number(),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)], 'must be 20, 40, 80 or 160'),
  streams: z.int().min(1).max(8).optional(),
  guardIntervalUs: z.union([z.literal(0.8), z.literal(1.6), z.literal(3.2)], 'must be 0.8, 1.6 or 3.2').optional()
})
export type LinkRateInput = z.infer<typeof linkRateInput>

export const linkRateOutput = z.strictObject({ mcs: z.number().nullable(), phyMbps: z.number() })

/** Least signal for MCS 0 to 11 at 20 MHz, in dBm (IEEE 802.11ax). */
const LEAST_DBM = [-82, -79, -77, -74, -70, -66, -65, -64, -59, -57, -54, -52]
/** Bits a tone times coding, for MCS 0 to 11. */
const BITS = [1 / 2, 1, 3 / 2, 2, 3, 4, 9 / 2, 5, 6, 20 / 3, 15 / 2, 25 / 3]
const DATA_TONES = { 20: 234, 40: 468, 80: 980, 160: 1960 } as const
/** Each doubling of the width asks this much more signal. */
const DB_A_DOUBLING = 3
const SYMBOL_US = 12.8

/**
 * The rate that a signal holds, by IEEE 802.11ax: the highest scheme whose least signal is reached.
 * @returns the scheme and the rate on the air in Mbit/s; null and 0 where no rate holds
 */
export function linkRate({ rssiDbm, widthMHz, streams = 2, guardIntervalUs = 0.8 }: LinkRateInput): {
  mcs: number | null
  phyMbps: number
} {
  const more = DB_A_DOUBLING * Math.log2(widthMHz / 20)
  const mcs = LEAST_DBM.findLastIndex((least) => rssiDbm >= least + more)
  if (mcs < 0) return { mcs: null, phyMbps: 0 }
  return { mcs, phyMbps: (DATA_TONES[widthMHz] * BITS[mcs]! * streams) / (SYMBOL_US + guardIntervalUs) }
}
