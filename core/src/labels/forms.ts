import { unitMacProblem } from '../identity/mac'
import { editDistance } from '../text/edit-distance'
import { ssidProblem } from '../wifi/qr'
import type { LabelField } from './fields'
import { lookAlikesOf, settleByMask, settleHex, type Settled } from './look-alikes'
import { fitsMask } from './mask'
import type { KnownModel, Taken } from './reading'

/** A value in the form of its field. */
export interface Formed { value: string; fits: boolean; sure: boolean }

/** Brings what was taken into the form of its field; null where it cannot be that field at all. */
export function formOf(field: LabelField, { raw, reading }: Taken, mask: string | undefined, model: KnownModel | null): Formed | null {
  const exact = reading.source !== 'print'
  switch (field) {
    case 'mac': {
      const hex = exact ? settleHex(raw) : (settleHex(raw, mask) ?? hexIn(raw, mask))
      if (!hex) return null
      const value = hex.value.match(/../g)!.join(':')
      return unitMacProblem(value) ? null : { value, fits: mask === undefined || exact || fitsMask(mask, hex.value.toUpperCase()), sure: exact || hex.sure }
    }
    case 'serial': {
      const text = exact ? raw.trim() : tightened(raw)
      const masked = mask === undefined ? null : prefixByMask(text, mask)
      if (masked) return { value: masked.value, fits: true, sure: exact || masked.sure }
      const value = (/^[A-Za-z0-9][A-Za-z0-9./-]{2,39}/.exec(text) ?? [''])[0]
      return value.length < 4 || !/\d/.test(value) ? null : { value, fits: mask === undefined || (exact && fitsMask(mask, value)), sure: exact || !/[0OoQ1lI5S8B2Z6G]/.test(value) }
    }
    case 'key':
    case 'setup-code': {
      const text = exact ? raw : tightened(raw)
      const masked = mask === undefined ? null : prefixByMask(text, mask)
      if (masked) return { value: masked.value, fits: true, sure: exact || masked.sure }
      const value = reading.source === 'pasted' ? raw.trim() : exact ? raw : (/^\S+/.exec(text) ?? [''])[0]
      const long = field === 'key' ? value.length >= 8 && value.length <= 63 : value.length >= 4 && value.length <= 64
      return long ? { value, fits: mask === undefined, sure: exact } : null
    }
    case 'ssid': return formOfSsid(exact ? raw.replace(/\s+$/, '') : raw, exact, model?.ssidPrefix ?? null)
    case 'address': {
      const address = /(?:https?:\/\/)?(?:\d{1,3}(?:[.,]\s?\d{1,3}){3}|[a-z0-9-]+(?:\.[a-z0-9-]+)+)(?:[:/]\S*)?/i.exec(raw)
      if (!address) return null
      const value = address[0].replace(/\s/g, '').replace(/,/g, '.')
      const digits = /\d+\.\d+\.\d+\.\d+/.exec(value)?.[0]
      if (digits && digits.split('.').some((part) => Number(part) > 255)) return null
      return { value, fits: true, sure: exact }
    }
    case 'login': {
      const value = raw.trim().replace(/\s*[/|]\s*/, ' / ')
      if (value.length < 3) return null
      const [user, password] = value.split(' / ')
      const masked = exact || mask === undefined || password === undefined ? null : prefixByMask(password, mask)
      return masked ? { value: `${user} / ${masked.value}`, fits: true, sure: masked.sure } : { value, fits: exact || mask === undefined, sure: exact }
    }
    default: return null
  }
}

/** Twelve hexadecimal digits within a line, in pairs, in fours or bare. */
function hexIn(line: string, mask: string | undefined): Settled | null {
  const shapes = [/(?:[0-9A-Za-z|!]{2}\s?[:.-]\s?){5}[0-9A-Za-z|!]{2}/, /(?:[0-9A-Za-z|!]{4}\s?\.\s?){2}[0-9A-Za-z|!]{4}/, /(?<![0-9A-Za-z])[0-9A-Za-z|!]{12}(?![0-9A-Za-z])/]
  const clean = line.replace(/0[®©@]|[®©@]0/g, '0').replace(/[®©@¢]/g, '0').replace(/[€£]/g, 'E')
  for (const shape of shapes) {
    const found = shape.exec(clean)
    const settled = found && settleHex(found[0], mask)
    if (settled) return { ...settled, sure: settled.sure && clean === line }
  }
  return null
}

/** Blanks that the reader of text puts round joints of a value are none of it. */
export function tightened(text: string): string {
  // A nought with a stroke through it comes out as a sign, or as a nought and a sign.
  return text.replace(/\s*([-./:_])\s*/g, '$1').replace(/0[®©@]|[®©@]0/g, '0').replace(/[®©@](?=\S|$)/g, '0').trim()
}

/** The value at the start of a text that a mask fits, whatever stands after it. */
function prefixByMask(text: string, mask: string): { value: string; sure: boolean } | null {
  const length = mask.replace(/\\(.)/g, '$1').length
  const bare = text.replace(/^\S{1,3}\s{2,}|\s{2,}.*$/g, '')
  const tokens = bare.split(/\s+/)
  for (const candidate of [bare, bare.slice(0, length), bare.replace(/\s/g, '').slice(0, length), ...tokens, ...tokens.map((one) => one.slice(0, length))]) {
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

function formOfSsid(raw: string, exact: boolean, prefix: string | null): Formed | null {
  const value = exact ? raw : (/^\S+(?: \S+){0,3}/.exec(raw.replace(/\s{2,}.*$/, '').trim()) ?? [''])[0]
  if (ssidProblem(value)) return null
  if (exact || prefix === null) return { value, fits: true, sure: exact }
  // The start of a default name is known, so that what was misread in it is put right.
  const start = value.slice(0, prefix.length)
  if (start === prefix) return { value: value.replace(/\s.*$/, ''), fits: true, sure: true }
  if (editDistance(start.toLowerCase().replace(/[\s_]/g, '_'), prefix.toLowerCase()) <= Math.ceil(prefix.length / 4)) return { value: prefix + value.slice(prefix.length).trim().replace(/\s.*$/, ''), fits: true, sure: false }
  return { value, fits: false, sure: false }
}
