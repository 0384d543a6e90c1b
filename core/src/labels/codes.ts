import type { LabelField } from './fields'
import type { Reading, Taken } from './reading'

/** What makers call a field inside a code, without case. */
const keys: Record<string, LabelField> = {
  sn: 'serial', 's/n': 'serial', serial: 'serial', serialno: 'serial', mac: 'mac', macaddress: 'mac', hw: 'mac', ssid: 'ssid', name: 'ssid', key: 'key', pass: 'key', passphrase: 'key', psk: 'key',
  code: 'setup-code', setup: 'setup-code', pin: 'setup-code', ip: 'address', url: 'address'
}

/**
 * The fields in the content of a QR or bar code: a network's join code, keyed pairs, an address of a page, or a value alone.
 * @param reading of source `qr` or `bars`
 */
export function readCode(reading: Reading): Taken[] {
  const text = reading.text.trim()
  const join = /^WIFI:/i.test(text) ? joinCode(text) : null
  if (join) {
    return [
      ...(join.ssid ? [{ field: 'ssid' as const, raw: join.ssid, reading, named: true }] : []),
      ...(join.passphrase ? [{ field: 'key' as const, raw: join.passphrase, reading, named: true }] : [])
    ]
  }
  const keyed = keyedPairs(text).flatMap(([key, raw]): Taken[] => {
    const field = keys[key.toLowerCase().replace(/[\s_]/g, '')]
    return field ? [{ field, raw, reading, named: true }] : []
  })
  if (keyed.length) return keyed
  if (/^https?:\/\//i.test(text)) return [{ field: 'address', raw: text, reading, named: false }]
  if (/^[0-9A-Fa-f]{12}$/.test(text) || /^(?:[0-9A-Fa-f]{2}[:-]){5}[0-9A-Fa-f]{2}$/.test(text)) return [{ field: 'mac', raw: text, reading, named: false }]
  return /^[A-Za-z0-9][A-Za-z0-9./-]{3,39}$/.test(text) ? [{ field: 'serial', raw: text, reading, named: false }] : []
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
  return text.replace(/^[A-Z]{3,20}:(?=[A-Za-z/ ]{1,12}=)/, '').split(/[;,&\n]/).flatMap((part): [string, string][] => {
    const match = /^\s*([A-Za-z][A-Za-z/_ ]{0,14})\s*[=:]\s*(.+?)\s*$/.exec(part)
    return match ? [[match[1]!.trim(), match[2]!]] : []
  })
}
