import type { Band } from '../values/band'

/** What the rules of a country permit indoors without a licence, in 20 MHz channels, and where that is written. */
export interface Permission {
  /** Two capital letters, and what the country is called. */
  countries: Readonly<Record<string, string>>
  channels: Record<Band, readonly number[]>
  /** Channels on which a radio has to listen for radar for a minute first, and leave when it hears one. */
  radar: ReadonlySet<number>
  /** Of those the channels of weather radar, on which it listens for ten. */
  weather: ReadonlySet<number>
  /** The rules it is taken from. */
  source: string
  /** Of which year or edition they are. */
  edition: string
}

const run = (first: number, last: number) => Array.from({ length: (last - first) / 4 + 1 }, (_, at) => first + at * 4)
const upTo = (last: number) => Array.from({ length: last }, (_, at) => at + 1)

const low = run(36, 64)
const lowRadar = run(52, 64)
const weather = new Set(run(120, 128))
const lower6 = run(1, 93)

const europe = {
  channels: { '2.4': upTo(13), '5': [...low, ...run(100, 140)], '6': lower6 },
  radar: new Set([...lowRadar, ...run(100, 140)]),
  weather
}

/**
 * The countries of which it is known what they permit. Only what the rules named permit beyond doubt stands here; a country that is not here is told as
 * not known, and the authority of each has the last word.
 */
export const permissions: readonly Permission[] = [
  {
    ...europe,
    countries: { XS: 'Skerrow Isles' },
    source: 'schedule of radio without a licence',
    edition: '2025'
  },
  {
    ...europe,
    countries: {
      AT: 'Austria',
      BE: 'Belgium',
      BG: 'Bulgaria',
      CH: 'Switzerland',
      CY: 'Cyprus',
      CZ: 'Czechia',
      DE: 'Germany',
      DK: 'Denmark',
      EE: 'Estonia',
      ES: 'Spain',
      FI: 'Finland',
      FR: 'France',
      GR: 'Greece',
      HR: 'Croatia',
      HU: 'Hungary',
      IE: 'Ireland',
      IS: 'Iceland',
      IT: 'Italy',
      LI: 'Liechtenstein',
      LT: 'Lithuania',
      LU: 'Luxembourg',
      LV: 'Latvia',
      MT: 'Malta',
      NL: 'Netherlands',
      NO: 'Norway',
      PL: 'Poland',
      PT: 'Portugal',
      RO: 'Romania',
      SE: 'Sweden',
      SI: 'Slovenia',
      SK: 'Slovakia'
    },
    source: 'EN 300 328, EN 301 893, ECC decisions (04)08 and (20)01',
    edition: 'V2.2.2, V2.1.1, 2020'
  },
  {
    countries: { GB: 'United Kingdom' },
    channels: { '2.4': upTo(13), '5': [...low, ...run(100, 140), ...run(149, 165)], '6': lower6 },
    radar: new Set([...lowRadar, ...run(100, 140)]),
    weather,
    source: 'interface requirement IR 2030',
    edition: '2021'
  },
  {
    countries: { US: 'United States' },
    channels: {
      '2.4': upTo(11),
      '5': [...low, ...run(100, 144), ...run(149, 165)],
      '6': run(1, 233)
    },
    radar: new Set([...lowRadar, ...run(100, 144)]),
    weather: new Set(),
    source: '47 CFR 15.247 and 15.407',
    edition: '2020'
  },
  {
    // Between 5600 and 5650 MHz nothing of the kind may send there.
    countries: { CA: 'Canada' },
    channels: {
      '2.4': upTo(11),
      '5': [...low, ...run(100, 116), ...run(132, 144), ...run(149, 165)],
      '6': run(1, 233)
    },
    radar: new Set([...lowRadar, ...run(100, 116), ...run(132, 144)]),
    weather: new Set(),
    source: 'RSS-247 and RSS-248',
    edition: 'issue 2, issue 1'
  },
  {
    countries: { AU: 'Australia' },
    channels: {
      '2.4': upTo(13),
      '5': [...low, ...run(100, 116), ...run(132, 140), ...run(149, 165)],
      '6': lower6
    },
    radar: new Set([...lowRadar, ...run(100, 116), ...run(132, 140)]),
    weather: new Set(),
    source: 'class licence for low interference potential devices',
    edition: '2015, as varied in 2022'
  },
  {
    countries: { JP: 'Japan' },
    channels: { '2.4': upTo(13), '5': [...low, ...run(100, 144)], '6': lower6 },
    radar: new Set([...lowRadar, ...run(100, 144)]),
    weather: new Set(),
    source: 'ordinance regulating radio equipment, article 49.20',
    edition: '2022'
  }
]

const byCountry = new Map(permissions.flatMap((of) => Object.keys(of.countries).map((code) => [code, of] as const)))

/** What a country permits; null where that is not known, or no country is named. */
export const permissionOf = (country: string | undefined): Permission | null =>
  country === undefined ? null : (byCountry.get(country) ?? null)

/** The countries of which it is known, by their names. */
const knownCountries: readonly { code: string; name: string }[] = permissions
  .flatMap(({ countries }) => Object.entries(countries).map(([code, name]) => ({ code, name })))
  .sort((a, b) => a.name.localeCompare(b.name, 'en'))

/** A country of which it is not known what it permits, where nobody says which one (user-assigned in ISO 3166). */
const ELSEWHERE = 'ZZ'

/** The countries to choose from: those of which it is known, what is recorded, and another. */
export function countryChoices(recorded?: string): { value: string; label: string }[] {
  const known = knownCountries.map(({ code, name }) => ({ value: code, label: name }))
  const own = recorded === undefined || recorded === ELSEWHERE || permissionOf(recorded) ? [] : [recorded]
  return [...known, ...own.map((value) => ({ value, label: value })), { value: ELSEWHERE, label: 'another country' }]
}

/** A country in words. */
export const countryName = (country: string): string => {
  if (country === ELSEWHERE) return 'the country recorded'
  return permissionOf(country)?.countries[country] ?? country
}
