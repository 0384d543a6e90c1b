import { textOf } from '../values/plain'

/** What a unit told of itself: dotted names and values. */
export interface DottedValues {
  values: Record<string, string>
  /** What is wrong, with the line or the name. */
  problems: string[]
}

/** Names that hold what is secret: their values are not taken in. */
const SECRET = /(?:pass(?:word|phrase)?|secret|psk|pre-?shared|(?:^|\.)key(?:$|\.)|pin$|credential)/i
const MOST_VALUES = 5000
const MOST_LETTERS = 200

/**
 * Reads a dump in dotted parameters: lines `name=value`, or JSON, nested or flat. Names are kept as they are, values as text;
 * what is secret by its name is left out. A name that comes twice keeps its first value, and is told.
 */
export function readDotted(text: string): DottedValues {
  const values: Record<string, string> = Object.create(null) as Record<string, string>
  const problems: string[] = []
  const take = (name: string, value: string, where: string) => {
    if (SECRET.test(name)) return
    if (Object.keys(values).length >= MOST_VALUES) {
      if (problems.at(-1) !== TOO_MANY) problems.push(TOO_MANY)
      return
    }
    if (name in values) {
      problems.push(`${where}: ${name} comes twice; the first is kept`)
      return
    }
    values[name] = value.slice(0, MOST_LETTERS)
  }
  const trimmed = text.trim()
  if (trimmed.startsWith('{') || trimmed.startsWith('[')) {
    let parsed: unknown
    try {
      parsed = JSON.parse(trimmed)
    } catch {
      return { values: {}, problems: ['this begins as JSON and is none: take the whole dump, from bracket to bracket'] }
    }
    // JSON drops all but the last of names that come twice, without a word: they are looked for in the text.
    for (const name of twiceIn(trimmed)) problems.push(`${name} comes twice in one place; the last is kept`)
    flatten(parsed, '', (name, part) => take(name, part, 'the dump'))
  } else {
    trimmed.split(/\r?\n/).forEach((line, index) => {
      if (line.trim() === '' || line.trimStart().startsWith('#')) return
      const at = line.indexOf('=')
      const name = at > 0 ? line.slice(0, at).trim() : ''
      if (!/^[A-Za-z0-9_.[\]{}-]{1,200}$/.test(name)) {
        problems.push(`line ${index + 1} is no name=value`)
        return
      }
      take(
        name,
        line
          .slice(at + 1)
          .trim()
          .replace(/^"(.*)"$/, '$1'),
        `line ${index + 1}`
      )
    })
  }
  return { values: { ...values }, problems }
}

/** Our names of what the open device data models call otherwise, by a pattern of theirs; instances are numbered from 1. */
const known: readonly [pattern: RegExp, name: string][] = [
  [/^Device\.DeviceInfo\.SerialNumber$/, 'device.serial'],
  [/^Device\.DeviceInfo\.(?:SoftwareVersion|FirmwareVersion)$/, 'device.firmware'],
  [/^Device\.DeviceInfo\.ModelName$/, 'device.model'],
  [/^Device\.DeviceInfo\.Manufacturer$/, 'device.maker'],
  [/^Device\.(?:Ethernet\.Interface|Ethernet\.Link)\.1\.MACAddress$/, 'device.mac'],
  [/^Device\.IP\.Interface\.1\.IPv4Address\.1\.IPAddress$/, 'lan.address'],
  [/^Device\.DHCPv4\.Server\.Enable$/, 'dhcp.server'],
  [/^Device\.DHCPv4\.Relay\.Enable$/, 'dhcp.relay'],
  [/^Device\.DHCPv4\.Server\.Pool\.1\.MinAddress$/, 'dhcp.from'],
  [/^Device\.DHCPv4\.Server\.Pool\.1\.MaxAddress$/, 'dhcp.to'],
  [/^Device\.WiFi\.SSID\.1\.SSID$/, 'wifi.ssid'],
  [/^Device\.WiFi\.Radio\.1\.Enable$/, 'wifi.radio'],
  [/^Device\.WiFi\.Radio\.1\.Channel$/, 'wifi.channel']
]
const switches = new Set(['dhcp.server', 'dhcp.relay', 'wifi.radio'])

/** A dump under our names where a name of it is known; the rest stays as it is. Switches read on or off. */
export function underOurNames(values: Readonly<Record<string, string>>): Record<string, string> {
  const ours: Record<string, string> = {}
  for (const [name, value] of Object.entries(values)) {
    const own = known.find(([pattern]) => pattern.test(name))?.[1] ?? name
    if (own in ours) continue
    ours[own] = switches.has(own) ? switched(value) : value
  }
  return ours
}

/** A switch as it is told, as on or off; as it is where it is neither. */
function switched(value: string): string {
  if (/^(?:1|true|on|enabled|yes)$/i.test(value)) return 'on'
  return /^(?:0|false|off|disabled|no)$/i.test(value) ? 'off' : value
}

const TOO_MANY = `only the first ${MOST_VALUES} values are taken`

function flatten(value: unknown, path: string, take: (name: string, value: string) => void): void {
  if (Array.isArray(value))
    value.forEach((part, index) => flatten(part, path ? `${path}.${index + 1}` : String(index + 1), take))
  else if (value !== null && typeof value === 'object')
    for (const [name, part] of Object.entries(value)) flatten(part, path ? `${path}.${name}` : name, take)
  else if (path) take(path, textOf(value))
}

/** Names that stand twice in one object of a JSON text. */
function twiceIn(text: string): string[] {
  const found: string[] = []
  const open: Set<string>[] = []
  const tokens = /"(?:[^"\\]|\\.)*"\s*:?|[{}[\]]/g
  for (let token = tokens.exec(text); token; token = tokens.exec(text)) {
    const [sign] = token
    if (sign === '{' || sign === '[') open.push(new Set())
    else if (sign === '}' || sign === ']') open.pop()
    else if (sign.endsWith(':')) {
      const name = sign.slice(1, sign.lastIndexOf('"'))
      const here = open.at(-1)
      if (here?.has(name)) found.push(name)
      here?.add(name)
    }
  }
  return [...new Set(found)]
}
