const KEY = 'pasado-country'

/** The country that was chosen last on this device, '' where none was: a company mostly works in one. */
export const lastCountry = (): string => localStorage.getItem(KEY) ?? ''

/** Keeps a country that was chosen, for the next time. */
export function keepCountry(country: string): void {
  if (country) localStorage.setItem(KEY, country)
}
