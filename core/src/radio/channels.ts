import { type Band, bands } from '../values/band'
import { z } from 'zod'
import { refuse, type Problem } from '../values/problem'

export type WidthMHz = 20 | 40 | 80 | 160

const channelAt = z.strictObject({
  channel: z.int(),
  widthMHz: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)], 'must be 20, 40, 80 or 160')
})

/** Input of `channel-overlap`. */
export const channelOverlapInput = z.strictObject({ band: z.enum(bands), a: channelAt, b: channelAt })
export type ChannelOverlapInput = z.infer<typeof channelOverlapInput>

export const channelOverlapOutput = z.strictObject({ overlapMHz: z.number(), shareOfA: z.number() })

/** A stretch of spectrum, in MHz. */
export interface Spectrum {
  fromMHz: number
  toMHz: number
}

const run = (first: number, last: number, step: number) =>
  Array.from({ length: (last - first) / step + 1 }, (_, at) => first + at * step)

/** Unbroken runs of 20 MHz channels; wider blocks are cut from the start of each run, and what is left over has none. */
const RUNS: Record<Exclude<Band, '2.4'>, number[][]> = {
  5: [run(36, 64, 4), run(100, 144, 4), run(149, 177, 4)],
  6: [run(1, 233, 4)]
}
const BASE_MHZ = { 5: 5000, 6: 5950 } as const

/**
 * The spectrum that a channel occupies at a width: the standard block that holds its primary 20 MHz channel.
 * At 2.4 GHz a 40 MHz channel extends upward for channels 1 to 7 and downward above.
 * @returns null where there is no such channel at that width
 */
export function spectrumOf(band: Band, primary: number, widthMHz: WidthMHz): Spectrum | null {
  if (band === '2.4') return narrowBand(primary, widthMHz)
  for (const channels of RUNS[band]) {
    const at = channels.indexOf(primary)
    if (at < 0) continue
    const many = widthMHz / 20
    const first = at - (at % many)
    if (first + many > channels.length) return null
    const fromMHz = BASE_MHZ[band] + 5 * channels[first]! - 10
    return { fromMHz, toMHz: fromMHz + widthMHz }
  }
  return null
}

function narrowBand(channel: number, widthMHz: WidthMHz): Spectrum | null {
  if (!Number.isInteger(channel) || channel < 1 || channel > 14 || widthMHz > 40 || (channel === 14 && widthMHz !== 20))
    return null
  const centre = channel === 14 ? 2484 : 2407 + 5 * channel
  const fromMHz = widthMHz === 40 && channel > 7 ? centre - 30 : centre - 10
  return { fromMHz, toMHz: fromMHz + widthMHz }
}

/**
 * How much of one channel's spectrum another one takes.
 * @returns the overlap in MHz, and its share of the first channel's width
 * @throws Refusal where a channel does not exist at its width
 */
export function channelOverlap({ band, a, b }: ChannelOverlapInput): { overlapMHz: number; shareOfA: number } {
  const problems: Problem[] = []
  const [first, other] = (['a', 'b'] as const).map((name) => {
    const { channel, widthMHz } = { a, b }[name]
    const spectrum = spectrumOf(band, channel, widthMHz)
    if (!spectrum)
      problems.push({
        path: [name, 'channel'],
        message: `${channel} does not exist at ${band} GHz and ${widthMHz} MHz`
      })
    return spectrum
  })
  if (problems.length) refuse(problems)
  const overlapMHz = Math.max(0, Math.min(first!.toMHz, other!.toMHz) - Math.max(first!.fromMHz, other!.fromMHz))
  return { overlapMHz, shareOfA: overlapMHz / a.widthMHz }
}
