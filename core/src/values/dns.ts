import { parseIpv4 } from './ipv4'

const FEWEST = 1
const MOST = 4

/** Reads name servers as they are typed: one to four IPv4 addresses with commas or blanks between. */
export function readDnsServers(text: string): { servers: string[] } | { problem: string } {
  const parts = text.split(/[\s,;]+/).filter(Boolean)
  if (parts.length < FEWEST || parts.length > MOST)
    return { problem: `must be ${FEWEST} to ${MOST} addresses with commas between` }
  const wrong = parts.find((part) => parseIpv4(part) === null)
  if (wrong !== undefined)
    return { problem: `holds “${wrong}”, which is no IPv4 address: four numbers 0–255 joined by dots` }
  const twice = parts.find((part, at) => parts.indexOf(part) !== at)
  return twice === undefined
    ? { servers: parts }
    : { problem: `holds ${twice} twice: a second server helps only where it is another one` }
}
