import type { LabelField } from './fields'
import type { Reading, Taken } from './reading'

/** What makers call a field inside a code, without case; `just` where it can mean nothing else. A NAME may be the product's, a PIN the pairing button's, a URL the maker's help. */
const keys: Record<string, { field: LabelField; just: boolean }> = {
  sn: { field: 'serial', just: true },
  's/n': { field: 'serial', just: true },
  serial: { field: 'serial', just: true },
  serialno: { field: 'serial', just: true },
  serialnumber: { field: 'serial', just: true },
  mac: { field: 'mac', just: true },
  macaddress: { field: 'mac', just: true },
  hw: { field: 'mac', just: false },
  ssid: { field: 'ssid', just: true },
  key: { field: 'key', just: false },
  passphrase: { field: 'key', just: true },
  psk: { field: 'key', just: true },
  wpakey: { field: 'key', just: true },
  setup: { field: 'setup-code', just: true },
  setupcode: { field: 'setup-code', just: true },
  code: { field: 'setup-code', just: false },
  ip: { field: 'address', just: true }
}
const users = new Set(['user', 'username', 'login'])
const passwords = new Set(['pass', 'password', 'pw', 'pwd'])
/** Keys of a carton's code, not of a unit's: its serial is the carton's. */
const cartonKeys = new Set(['qty', 'quantity', 'carton', 'pallet', 'order', 'po'])

const plainKey = (key: string) => key.toLowerCase().replace(/[\s_]/g, '')

/**
 * The fields in the content of a QR or bar code, as they stand in it: a network's join code, keyed pairs, an address of a page, or a value alone.
 * @param reading of source `qr` or `bars`
 */
export function readCode(reading: Reading): Taken[] {
  const text = reading.text.trim()
  if (/^(?:BEGIN:VCARD|MECARD:|MATMSG:|SMSTO:|mailto:|tel:)/i.test(text)) return []
  const join = /^WIFI:/i.test(text) ? joinCode(text) : null
  if (join) {
    const [name, pass] = [unquoted(join.ssid), unquoted(join.passphrase)]
    return [
      ...(name.value ? [{ field: 'ssid' as const, raw: name.value, reading, named: true, just: !name.quoted }] : []),
      ...(pass.value ? [{ field: 'key' as const, raw: pass.value, reading, named: true, just: !pass.quoted }] : [])
    ]
  }
  const pairs = /^DPP:/i.test(text) ? dppPairs(text) : (jsonPairs(text) ?? keyedPairs(text))
  const keyed = fieldsOf(pairs, reading)
  if (keyed.length || pairs.length > 1) return keyed
  if (/^https?:\/\//i.test(text)) return [{ field: 'address', raw: text, reading, named: false, just: false }]
  if (/^[0-9A-Fa-f]{12}$/.test(text) || /^(?:[0-9A-Fa-f]{2}[:-]){5}[0-9A-Fa-f]{2}$/.test(text))
    return [{ field: 'mac', raw: text, reading, named: false, just: false }]
  return /^[A-Za-z0-9][A-Za-z0-9./-]{3,39}$/.test(text)
    ? [{ field: 'serial', raw: text, reading, named: false, just: false }]
    : []
}

function fieldsOf(pairs: readonly [string, string][], reading: Reading): Taken[] {
  const ofCarton = pairs.some(([key]) => cartonKeys.has(plainKey(key)))
  const taken = pairs.flatMap(([key, raw]): Taken[] => {
    const known = Object.hasOwn(keys, plainKey(key)) ? keys[plainKey(key)] : undefined
    return known ? [{ field: known.field, raw, reading, named: !ofCarton, just: known.just && !ofCarton }] : []
  })
  const user = pairs.find(([key]) => users.has(plainKey(key)))?.[1]
  const password = pairs.find(([key]) => passwords.has(plainKey(key)))?.[1]
  // A password beside a user is the page's login; beside a network's name it is most likely the network's.
  if (user !== undefined && password !== undefined)
    taken.push({ field: 'login', raw: `${user} / ${password}`, reading, named: true, just: false })
  else if (password !== undefined && taken.some(({ field }) => field === 'ssid'))
    taken.push({ field: 'key', raw: password, reading, named: true, just: false })
  return taken
}

/** Some makers put quotes round a name or passphrase that looks like hexadecimal digits; they are none of it, as far as can be told. */
function unquoted(text: string): { value: string; quoted: boolean } {
  const match = /^"((?:[0-9A-Fa-f]{2})+)"$/.exec(text)
  return match ? { value: match[1]!, quoted: true } : { value: text, quoted: /^".*"$/.test(text) }
}

/** Name and passphrase of a join code; a backslash takes the next character as it is. */
export function joinCode(text: string): { ssid: string; passphrase: string } | null {
  const found: Record<string, string> = {}
  let [key, value, inValue] = ['', '', false]
  for (let at = 'WIFI:'.length; at < text.length; at++) {
    const character = text[at]!
    if (!inValue) {
      if (character === ':') inValue = true
      else if (character !== ';') key += character
      continue
    }
    if (character === '\\') value += text[++at] ?? ''
    else if (character === ';') {
      found[key.toUpperCase()] = value
      ;[key, value, inValue] = ['', '', false]
    } else value += character
  }
  return found.S ? { ssid: found.S, passphrase: found.P ?? '' } : null
}

function keyedPairs(text: string): [string, string][] {
  return text
    .replace(/^[A-Z]{3,20}:(?=[A-Za-z/ ]{1,12}=)/, '')
    .split(/[;,&\n]/)
    .flatMap((part): [string, string][] => {
      const match = /^\s*([A-Za-z][A-Za-z/_ ]{0,14})\s*[=:]\s*(.+?)\s*$/.exec(part)
      return match ? [[match[1]!.trim(), match[2]!]] : []
    })
}

/** The pairs of a code that is a flat JSON object; null where it is none. */
function jsonPairs(text: string): [string, string][] | null {
  if (!text.startsWith('{')) return null
  try {
    const parsed: unknown = JSON.parse(text)
    return typeof parsed === 'object' && parsed !== null
      ? Object.entries(parsed).flatMap(([key, value]): [string, string][] =>
          typeof value === 'string' ? [[key, value]] : []
        )
      : null
  } catch {
    return null
  }
}

/** The address and what the maker says of the unit in a code for joining by the device provisioning protocol (Wi-Fi Alliance, Easy Connect): `M` and `I`; its `K` is a public key, no passphrase. */
function dppPairs(text: string): [string, string][] {
  return text
    .slice('DPP:'.length)
    .split(';')
    .flatMap((part): [string, string][] => {
      const mac = /^M:([0-9A-Fa-f]{12})$/.exec(part)
      const info = /^I:(.+)$/.exec(part)
      if (mac) return [['mac', mac[1]!]]
      return info ? keyedPairs(info[1]!) : []
    })
}
