import { readMac } from '../values/mac'
import { parseIpv4 } from '../values/ipv4'

/** A device as a router's list of clients names it. */
export interface ListedClient {
  name: string | null
  address: string
  mac: string | null
}

/** So many lines are read; no home has more devices. */
const MOST_LINES = 2000

/**
 * Reads what is pasted from a router's list of clients, whatever its columns: of each line the address, the MAC address and what
 * is left as the name. Lines without an address are left out.
 */
export function readClientList(text: string): { clients: ListedClient[]; skipped: number } {
  const clients = new Map<string, ListedClient>()
  let skipped = 0
  for (const line of text.split(/\r?\n/).slice(0, MOST_LINES)) {
    if (line.trim() === '') continue
    const address = line
      .match(/(?<![\d.])\d{1,3}(?:\.\d{1,3}){3}(?![\d.])/g)
      ?.find((candidate) => parseIpv4(candidate) !== null)
    if (address === undefined) {
      skipped++
      continue
    }
    const mac = line.match(
      /(?<![0-9a-f:-])(?:[0-9a-f]{2}[:-]){5}[0-9a-f]{2}(?![0-9a-f:-])|(?<![0-9a-f.])[0-9a-f]{4}\.[0-9a-f]{4}\.[0-9a-f]{4}(?![0-9a-f.])/i
    )?.[0]
    const rest = line.replace(address, ' ').replace(mac ?? '\u0000', ' ')
    const name =
      rest
        .split(/[\t;,|]|\s{2,}/)
        .map((cell) =>
          cell
            .trim()
            .replace(/^["']|["']$/g, '')
            .trim()
        )
        .find(
          (cell) =>
            /[A-Za-z]/.test(cell) &&
            !/^(?:ip|mac|dhcp|static|dynamic|reserved|wired|wireless|wifi|wi-fi|ethernet|lan|online|offline|active|yes|no|ipv4|hostname|name|address|expired?|\d+ ?(?:h|m|s|d|days?|hours?|minutes?))$/i.test(
              cell
            ) &&
            !/^\d+[dhms:\s]/.test(cell)
        ) ?? null
    if (!clients.has(address))
      clients.set(address, {
        name: name?.slice(0, 60) ?? null,
        address,
        mac: mac === undefined ? null : readMac({ text: mac }).mac
      })
  }
  return { clients: [...clients.values()], skipped }
}
