import { isWellFormed, utf8Length } from './unicode'

/** What is wrong with a network name, in words; null where nothing is. A name is 1–32 octets of UTF-8, taken as it is. */
export function ssidProblem(ssid: string): string | null {
  if (!isWellFormed(ssid)) return 'is not well-formed text; type it again'
  const octets = utf8Length(ssid)
  if (octets < 1) return 'must not be empty'
  if (octets > 32) return `takes ${octets} octets; a network name has at most 32: shorten it`
  return null
}
