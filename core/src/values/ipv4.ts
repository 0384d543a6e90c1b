/** An IPv4 address as a whole number from 0 to 2^32 − 1. */
export type Ipv4 = number

/** A network: its own address, its prefix length and the last address it holds. */
export interface Range4 {
  first: Ipv4
  last: Ipv4
  prefix: number
}

const GROUP = /^(?:0|[1-9]\d{0,2})$/

/** Reads four decimal numbers 0–255 without leading zeros, joined by dots; null where the text is anything else. */
export function parseIpv4(text: string): Ipv4 | null {
  const groups = text.split('.')
  if (groups.length !== 4) return null
  let value = 0
  for (const group of groups) {
    if (!GROUP.test(group)) return null
    const number = Number(group)
    if (number > 255) return null
    value = value * 256 + number
  }
  return value
}

/** Prints an address as four decimal numbers. */
export function formatIpv4(address: Ipv4): string {
  return [24, 16, 8, 0].map((shift) => Math.floor(address / 2 ** shift) % 256).join('.')
}

/**
 * Reads `192.168.1.0/24`. The address must be the network's own: bits behind the prefix are a problem,
 * told in words, with the network that was probably meant.
 */
export function parseCidr(text: string): Range4 | { problem: string } {
  const match = /^([^/]*)\/(0|[1-9]\d?)$/.exec(text)
  const first = match ? parseIpv4(match[1]!) : null
  const prefix = match ? Number(match[2]) : 33
  if (first === null || prefix > 32) {
    return { problem: 'must be a network such as 192.168.1.0/24: four numbers 0–255, a slash and a prefix 0–32' }
  }
  const size = 2 ** (32 - prefix)
  const own = Math.floor(first / size) * size
  if (own !== first) {
    return { problem: `has bits set behind the prefix; the network itself is ${formatIpv4(own)}/${prefix}` }
  }
  return { first, last: first + size - 1, prefix }
}

const PRIVATE: readonly Range4[] = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16'].map(
  (cidr) => parseCidr(cidr) as Range4
)

/** The private blocks of RFC 1918, in ascending order. */
export const privateBlocks = PRIVATE

/** True where the whole stretch from first to last lies in one private block of RFC 1918. */
export function isPrivate(first: Ipv4, last: Ipv4 = first): boolean {
  return PRIVATE.some((block) => first >= block.first && last <= block.last)
}

/** True where the network has an address of its own and a broadcast address, which a /31 and a /32 have not. */
export function hasEnds(range: Range4): boolean {
  return range.prefix <= 30
}
