import { spectrumOf, type WidthMHz } from './channels'
import { countryName, permissionOf } from './permissions'
import type { Band } from '../values/band'

/** The 20 MHz channels that a channel takes at a width; empty where it does not exist. */
export function partsOf(band: Band, channel: number, widthMHz: WidthMHz): number[] {
  const spectrum = spectrumOf(band, channel, widthMHz)
  if (!spectrum) return []
  if (band === '2.4') return [channel]
  const base = band === '5' ? 5000 : 5950
  return Array.from({ length: widthMHz / 20 }, (_, at) => (spectrum.fromMHz + 10 + at * 20 - base) / 5)
}

/** Why it cannot be said which channels are permitted, in words with the mend; null where it can. */
export function unknownCountry(country: string | undefined): { what: string; mend: string } | null {
  if (country === undefined)
    return {
      what: 'In which country the home stands is not recorded, so nobody knows which channels are permitted.',
      mend: 'Record the country.'
    }
  return permissionOf(country)
    ? null
    : {
        what: `Which channels ${countryName(country)} permits is not known here.`,
        mend: 'Ask its authority which are permitted, or mend the country where it is another.'
      }
}

/** What is wrong with a channel where the country permits it not or there is none such, in words with the mend; null where it is permitted, or that is not known. */
export function channelProblem(
  country: string | undefined,
  band: Band,
  channel: number,
  widthMHz: WidthMHz
): string | null {
  const parts = partsOf(band, channel, widthMHz)
  if (parts.length === 0) return `there is no channel ${channel} at ${band} GHz that is ${widthMHz} MHz wide`
  const known = permissionOf(country)
  if (!known) return null
  const channels = known.channels[band]
  const first = parts.find((part) => !channels.includes(part))
  return first === undefined
    ? null
    : `channel ${first} is not permitted in ${countryName(country!)} (${known.source}; ${known.edition}): take one of ${inRuns(channels)}`
}

/** Channels as a list of runs without a gap: "36 to 64, 100 to 140". */
function inRuns(channels: readonly number[]): string {
  const step = Math.min(4, (channels[1] ?? 0) - channels[0]!)
  const firsts = channels.filter((channel) => !channels.includes(channel - step))
  const lasts = channels.filter((channel) => !channels.includes(channel + step))
  return firsts.map((first, at) => (first === lasts[at] ? `${first}` : `${first} to ${lasts[at]}`)).join(', ')
}

/** How long a radio has to listen for radar before it sends on this channel, minutes: none, one, or ten where weather radar is. */
export function radarMinutes(country: string | undefined, band: Band, channel: number, widthMHz: WidthMHz): 0 | 1 | 10 {
  const known = permissionOf(country)
  if (!known || band !== '5') return 0
  const parts = partsOf(band, channel, widthMHz)
  if (parts.some((part) => known.weather.has(part))) return 10
  return parts.some((part) => known.radar.has(part)) ? 1 : 0
}

/** Where it is written what a country permits, in a line; null where that is not known. */
export function permittedBy(country: string | undefined): string | null {
  const known = permissionOf(country)
  return known && `${countryName(country!)}: ${known.source} (${known.edition})`
}

/** The 20 MHz channels that a radio may be found on: the permitted ones, or all that there are where it is not known what is permitted. */
export function foundOn(country: string | undefined, band: Band): number[] {
  const known = permissionOf(country)
  if (known) return [...known.channels[band]]
  const most = { '2.4': 14, '5': 177, '6': 233 }[band]
  return Array.from({ length: most }, (_, at) => at + 1).filter((channel) => partsOf(band, channel, 20).length > 0)
}
