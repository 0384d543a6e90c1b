import { readMac, unitMacProblem } from '../values/mac'
import { editDistance } from '../values/edit-distance'
import { ssidProblem } from '../values/ssid'
import type { LabelField } from './fields'
import { lookAlikesOf, settleByMask, settleHex, type Settled } from './look-alikes'
import { fitsMask } from '../values/mask'
import type { KnownModel, Taken } from './reading'

/** A value in the form of its field. */
export interface Formed {
  value: string
  fits: boolean
  sure: boolean
}

/** Brings what was taken into the form of its field; null where it cannot be that field at all. */
export function formOf(
  field: LabelField,
  taken: Taken,
  mask: string | undefined,
  model: KnownModel | null
): Formed | null {
  return taken.reading.source === 'print'
    ? misreadable(field, taken, mask, model)
    : asItStands(field, taken, mask, model)
}

/** What a unit is to have on its label, as a person or a code gives it: never changed. Where it does not look as it is to, `fits` is false. */
function asItStands(
  field: LabelField,
  { raw, reading, just }: Taken,
  mask: string | undefined,
  model: KnownModel | null
): Formed | null {
  // A join code's passphrase may begin or end with a blank; pasted text has them round its values.
  const whole = reading.source === 'pasted' ? raw.trim() : raw
  // What stands behind a wide gap is another column; that there was one leaves a doubt.
  const value = reading.source === 'pasted' ? whole.replace(/(?:\s{2,}|\t).*$/, '') : whole
  const sure = just && value === whole && (reading.source !== 'pasted' || field === 'ssid' || !/\s/.test(value))
  switch (field) {
    case 'mac':
      return givenMac(value, mask, just)
    case 'serial': {
      if (!/^[A-Za-z0-9][A-Za-z0-9./ -]{1,39}$/.test(value) || !/\d/.test(value)) return null
      const isMasked = mask !== undefined && fitsMask(mask, value)
      return { value, fits: isMasked || mask === undefined, sure: sure || (just && isMasked) }
    }
    case 'key':
    case 'setup-code': {
      if (!isLongEnough(field, value)) return null
      return { value, fits: fitsAny(mask, value), sure: sure && !/^[(["]/.test(value) }
    }
    case 'ssid':
      return givenSsid(value, model?.ssidPrefix ?? null, sure)
    case 'address':
      return givenAddress(value, sure)
    case 'login':
      return value.length < 3 ? null : { value, fits: true, sure }
    default:
      return null
  }
}

const fitsAny = (mask: string | undefined, value: string): boolean => mask === undefined || fitsMask(mask, value)

/** Whether a Wi-Fi key or a code to set a unit up can be of a length, in characters. */
function isLongEnough(field: 'key' | 'setup-code', { length }: string): boolean {
  return field === 'key' ? length >= 8 && length <= 63 : length >= 4 && length <= 64
}

function givenMac(value: string, mask: string | undefined, sure: boolean): Formed | null {
  if (unitMacProblem(value)) return null
  const { mac } = readMac({ text: value })
  return { value: mac, fits: fitsAny(mask, mac.replaceAll(':', '').toUpperCase()), sure }
}

function givenSsid(value: string, prefix: string | null, sure: boolean): Formed | null {
  if (ssidProblem(value)) return null
  return { value, fits: prefix === null || value.startsWith(prefix), sure: sure && !/^[(["]|[:=]\s/.test(value) }
}

function givenAddress(value: string, sure: boolean): Formed | null {
  const address = /(?:https?:\/\/)?(?:\d{1,3}(?:\.\d{1,3}){3}|[a-z0-9-]+(?:\.[a-z0-9-]+)*\.[a-z]{2,})(?:[:/]\S*)?/i
    .exec(value)?.[0]
    .replace(/[.,;)]+$/, '')
  if (address === undefined || !isAddress(address)) return null
  return { value: address, fits: true, sure: sure && address === value }
}

/** Whether none of an address's four numbers is too large. */
function isAddress(text: string): boolean {
  const digits = /\d+\.\d+\.\d+\.\d+/.exec(text)?.[0]
  return !digits?.split('.').some((part) => Number(part) > 255)
}

/** What print was read as: look-alikes that the form of the field allows are put right. */
function misreadable(
  field: LabelField,
  { raw }: Taken,
  mask: string | undefined,
  model: KnownModel | null
): Formed | null {
  switch (field) {
    case 'mac':
      return printedMac(raw, mask)
    case 'serial': {
      const text = tightened(raw)
      const masked = maskedStart(text, mask)
      if (masked) return masked
      const value = (/^[A-Za-z0-9][A-Za-z0-9./-]{2,39}/.exec(text) ?? [''])[0]
      if (value.length < 4 || !/\d/.test(value)) return null
      return { value, fits: mask === undefined, sure: !/[0OoQ1lI5S8B2Z6G]/.test(value) }
    }
    case 'key':
    case 'setup-code': {
      const text = tightened(raw)
      const masked = maskedStart(text, mask)
      if (masked) return masked
      const value = (/^\S+/.exec(text) ?? [''])[0]
      return isLongEnough(field, value) ? { value, fits: mask === undefined, sure: false } : null
    }
    case 'ssid':
      return printedSsid(raw, model?.ssidPrefix ?? null)
    case 'address':
      return printedAddress(raw)
    case 'login': {
      const value = raw.trim().replace(/\s*[/|]\s*/, ' / ')
      if (value.length < 3) return null
      const [user, password] = value.split(' / ')
      const masked = maskedStart(password, mask)
      return masked
        ? { ...masked, value: `${user} / ${masked.value}` }
        : { value, fits: mask === undefined, sure: false }
    }
    default:
      return null
  }
}

function printedMac(raw: string, mask: string | undefined): Formed | null {
  const hex = settleHex(raw, mask) ?? hexIn(raw, mask)
  if (!hex) return null
  const value = hex.value.match(/../g)!.join(':')
  return unitMacProblem(value) ? null : { value, fits: fitsAny(mask, hex.value.toUpperCase()), sure: hex.sure }
}

function printedAddress(raw: string): Formed | null {
  const shape = /(?:https?:\/\/)?(?:\d{1,3}(?:[.,]\s?\d{1,3}){3}|[a-z0-9-]+(?:\.[a-z0-9-]+)*\.[a-z]{2,})(?:[:/]\S*)?/i
  const value = shape.exec(raw)?.[0].replace(/\s/g, '').replace(/,/g, '.')
  return value === undefined || !isAddress(value) ? null : { value, fits: true, sure: false }
}

/** What a text begins with by its mask; null without one, or where nothing fits it. */
function maskedStart(text: string | undefined, mask: string | undefined): Formed | null {
  const masked = mask === undefined || text === undefined ? null : prefixByMask(text, mask)
  return masked && { value: masked.value, fits: true, sure: masked.sure }
}

/** Twelve hexadecimal digits within a line, in pairs, in fours or bare. */
function hexIn(line: string, mask: string | undefined): Settled | null {
  const shapes = [
    /(?:[0-9A-Za-z|!]{2}\s?[:.-]\s?){5}[0-9A-Za-z|!]{2}/,
    /(?:[0-9A-Za-z|!]{4}\s?\.\s?){2}[0-9A-Za-z|!]{4}/,
    /(?<![0-9A-Za-z])[0-9A-Za-z|!]{12}(?![0-9A-Za-z])/
  ]
  // A nought with a stroke through it is read as a sign beside the nought, or as a sign for it.
  const noughts = line.replace(/[®©@¢]/g, '0').replace(/[€£]/g, 'E')
  for (const clean of [
    line
      .replace(/0[®©@]|[®©@]0/g, '0')
      .replace(/[®©@¢]/g, '0')
      .replace(/[€£]/g, 'E'),
    noughts
  ]) {
    for (const shape of shapes) {
      const found = shape.exec(clean)
      const settled = found && settleHex(found[0], mask)
      if (settled) return { ...settled, sure: settled.sure && clean === line }
    }
  }
  return null
}

/** Blanks that the reader of text puts round joints of a value are none of it. */
export function tightened(text: string): string {
  // A nought with a stroke through it comes out as a sign, or as a nought and a sign.
  return text
    .replace(/\s*([-./:_])\s*/g, '$1')
    .replace(/0[®©@]|[®©@]0/g, '0')
    .replace(/[®©@](?=\S|$)/g, '0')
    .trim()
}

/** The value at the start of a text that a mask fits, whatever stands after it. */
function prefixByMask(text: string, mask: string): { value: string; sure: boolean } | null {
  const length = mask.replace(/\\(.)/g, '$1').length
  const bare = text.replace(/^\S{1,3}\s{2,}|\s{2,}.*$/g, '')
  const tokens = bare.split(/\s+/)
  for (const candidate of [
    bare,
    bare.slice(0, length),
    bare.replace(/\s/g, '').slice(0, length),
    ...tokens,
    ...tokens.map((token) => token.slice(0, length))
  ]) {
    const settled = settleByMask(candidate, mask)
    if (settled) return settled
  }
  // One sign too many: a stain, or one letter read as two.
  const token = bare.split(/\s/)[0]!
  if (token.length !== length + 1) return null
  const places = [...token].map((_, at) => at).sort((a, b) => Number(isDoubled(token, b)) - Number(isDoubled(token, a)))
  for (const at of places) {
    const settled = settleByMask(token.slice(0, at) + token.slice(at + 1), mask)
    if (settled) return { value: settled.value, sure: false }
  }
  return null
}

/** Whether a sign and the one before it look alike: one letter that was read as two. */
export function isDoubled(text: string, at: number): boolean {
  return at > 0 && text[at] !== text[at - 1] && lookAlikesOf(text[at]!).includes(text[at - 1]!)
}

function printedSsid(raw: string, prefix: string | null): Formed | null {
  // Default names are written with a joint, round which the reader of text sees blanks.
  const joined = raw.trim().replace(/\s?([-_])\s?(?=[0-9A-Za-z])/g, '$1')
  const value = (/^\S+(?: \S+){0,3}/.exec(joined.replace(/\s{2,}.*$/, '').trim()) ?? [''])[0]
  if (ssidProblem(value)) return null
  if (prefix === null) return { value, fits: true, sure: false }
  // The start of a default name is known, so that what was misread in it is put right.
  const start = value.slice(0, prefix.length)
  if (start === prefix) return { value: value.replace(/\s.*$/, ''), fits: true, sure: true }
  if (editDistance(start.toLowerCase().replace(/[\s_]/g, '_'), prefix.toLowerCase()) <= Math.ceil(prefix.length / 4))
    return { value: prefix + value.slice(prefix.length).trim().replace(/\s.*$/, ''), fits: true, sure: false }
  return { value, fits: false, sure: false }
}
