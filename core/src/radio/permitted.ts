import { spectrumOf, type WidthMHz } from './channels'
import type { Band } from '../values/band'

/** What a country permits indoors, in 20 MHz channels. */
interface Domain {
  name: string
  channels: Record<Band, readonly number[]>
  /** Channels on which a radio has to listen for radar first, and leave when it hears one. */
  radar: ReadonlySet<number>
}

const run = (first: number, last: number, step: number) =>
  Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, at) => first + at * step)

/** Domains by their rules for unlicensed use indoors; when in doubt the country's authority has the last word. */
const domains: Record<'etsi' | 'fcc' | 'japan', Domain> = {
  etsi: {
    name: 'as in most of Europe',
    channels: { '2.4': run(1, 13, 1), '5': [...run(36, 64, 4), ...run(100, 140, 4)], '6': run(1, 93, 4) },
    radar: new Set([...run(52, 64, 4), ...run(100, 140, 4)])
  },
  fcc: {
    name: 'as in North America',
    channels: {
      '2.4': run(1, 11, 1),
      '5': [...run(36, 64, 4), ...run(100, 144, 4), ...run(149, 165, 4)],
      '6': run(1, 233, 4)
    },
    radar: new Set([...run(52, 64, 4), ...run(100, 144, 4)])
  },
  japan: {
    name: 'as in Japan',
    channels: { '2.4': run(1, 14, 1), '5': [...run(36, 64, 4), ...run(100, 144, 4)], '6': run(1, 93, 4) },
    radar: new Set([...run(52, 64, 4), ...run(100, 144, 4)])
  }
}
const fcc = new Set(['US', 'CA', 'MX', 'CO', 'PE', 'EC', 'PA', 'CR', 'DO', 'PR', 'TW'])

/** The domain of a country, by its two letters; the made-up isles and everywhere else are taken to be like most of Europe. */
export function domainOf(country: string | undefined): Domain {
  if (country === 'JP') return domains.japan
  return country !== undefined && fcc.has(country) ? domains.fcc : domains.etsi
}

/** The 20 MHz channels that a channel takes at a width; empty where it does not exist. */
export function partsOf(band: Band, channel: number, widthMHz: WidthMHz): number[] {
  const spectrum = spectrumOf(band, channel, widthMHz)
  if (!spectrum) return []
  if (band === '2.4') return [channel]
  const base = band === '5' ? 5000 : 5950
  return Array.from({ length: widthMHz / 20 }, (_, at) => (spectrum.fromMHz + 10 + at * 20 - base) / 5)
}

/** What is wrong with a channel in a country, in words with the mend; null where it is permitted. */
export function channelProblem(
  country: string | undefined,
  band: Band,
  channel: number,
  widthMHz: WidthMHz
): string | null {
  const { channels, name } = domainOf(country)
  const parts = partsOf(band, channel, widthMHz)
  if (parts.length === 0) return `there is no channel ${channel} at ${band} GHz that is ${widthMHz} MHz wide`
  const first = parts.find((part) => !channels[band].includes(part))
  return first === undefined
    ? null
    : `channel ${first} is not permitted here (${name}): take one of ${channels[band].length > 12 ? `${channels[band][0]} to ${channels[band].at(-1)}` : channels[band].join(', ')}`
}

/** Whether a radio on this channel has to listen for radar. */
export function needsRadarWatch(country: string | undefined, band: Band, channel: number, widthMHz: WidthMHz): boolean {
  return band === '5' && partsOf(band, channel, widthMHz).some((value) => domainOf(country).radar.has(value))
}
