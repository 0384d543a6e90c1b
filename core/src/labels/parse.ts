import { unitMacProblem } from '../identity/mac'
import { editDistance } from '../text/edit-distance'
import { ssidProblem } from '../wifi/qr'
import { captions, labelFields, type LabelField } from './fields'
import { fitsMask } from './mask'
import { lookAlikesOf, otherReadings, settleByMask, settleHex, type Settled } from './look-alikes'
import { readCode } from './codes'

/** Where a reading comes from: a code of the label, its print, or text that a person pasted. */
export type ReadingSource = 'qr' | 'bars' | 'print' | 'pasted'

/** A rectangle on the picture that something was read from, in its pixels. */
export interface Piece {
  x: number
  y: number
  width: number
  height: number
}

/** One thing read off a label: the content of a code, or a line of text. */
export interface Reading {
  source: ReadingSource
  text: string
  /** How sure the reader of text is, from 0 to 1; codes prove themselves. */
  sureness: number
  piece?: Piece
}

/** How far a proposed value can be trusted. `certain`: a code that proves itself, or pasted text in the form of its field. */
export type Trust = 'certain' | 'likely' | 'unsure'

/** A value proposed for a field of the unit. */
export interface Proposal {
  field: LabelField
  value: string
  trust: Trust
  source: ReadingSource
  piece?: Piece
  /** Other values that were read or that it may be, the nearest first. */
  others: string[]
}

/** What is odd about a label as a whole. */
export type LabelOddity = { code: 'two-macs'; values: string[] } | { code: 'another-model'; read: string } | { code: 'nothing-found' }

/** What is known of the models that a label may be of. */
export interface KnownModel {
  id: string
  maker: string
  name: string
  masks?: { serial?: string | undefined; mac?: string | undefined; key?: string | undefined; setupCode?: string | undefined; password?: string | undefined } | undefined
  ssidPrefix?: string | null
}

export interface ParsedLabel {
  proposals: Proposal[]
  oddities: LabelOddity[]
}

/** A value taken for a field, before it is weighed against others. */
export interface Taken {
  field: LabelField
  raw: string
  reading: Reading
  /** True where a caption or a key of the code names the field. */
  named: boolean
}

/**
 * Finds the fields of a label in what was read off it, in whatever order, wording and layout.
 * @param readings lines of text in order from top to bottom, and codes
 * @param models that the label may be of
 * @param own the unit's own model, where it is known; a label of another one is called out
 */
export function parseLabel(readings: readonly Reading[], models: readonly KnownModel[], own: KnownModel | null = models.length === 1 ? models[0]! : null): ParsedLabel {
  const taken = readings.filter(({ source }) => source === 'qr' || source === 'bars').flatMap(readCode)
  taken.push(...readText(readings.filter(({ source }) => source === 'print' || source === 'pasted')))
  const model = modelOf(readings, models)
  const settled = own ?? model?.known ?? null
  const oddities: LabelOddity[] = []
  const proposals: Proposal[] = []
  if (model) proposals.push({ field: 'model', value: model.known.id, trust: model.exact ? 'likely' : 'unsure', source: model.reading.source, others: [], ...(model.reading.piece ? { piece: model.reading.piece } : {}) })
  for (const field of labelFields) {
    if (field === 'model') continue
    const proposal = weigh(field, taken.filter((one) => one.field === field), settled, oddities)
    if (proposal) proposals.push(proposal)
  }
  nameByAddress(proposals)
  if (own && model && model.known.id !== own.id && model.exact) oddities.push({ code: 'another-model', read: `${model.known.maker} ${model.known.name}` })
  else if (own && !model) {
    const other = readings.find(({ text }) => /\b(model|type)\b/i.test(text))
    if (other && proposals.length > 0 && !sounds(other.text, own.name)) oddities.push({ code: 'another-model', read: other.text.trim() })
  }
  if (proposals.every(({ field }) => field === 'model')) oddities.push({ code: 'nothing-found' })
  return { proposals, oddities }
}

/**
 * A default network name mostly ends in the last digits of the MAC address: where what was read looks like them, they
 * decide between look-alikes.
 */
function nameByAddress(proposals: Proposal[]): void {
  const mac = proposals.find(({ field }) => field === 'mac')
  const ssid = proposals.find(({ field }) => field === 'ssid')
  if (!mac || ssid?.source !== 'print') return
  for (const digits of [6, 4]) {
    const tail = mac.value.replaceAll(':', '').slice(-digits).toUpperCase()
    const read = ssid.value.slice(-digits)
    if (ssid.value.length <= digits || read === tail || !settleByMask(read.toUpperCase(), tail.replace(/./g, '\\$&'))) continue
    ssid.others = [...new Set([ssid.value, ...ssid.others])]
    ssid.value = ssid.value.slice(0, -digits) + (read === read.toLowerCase() ? tail.toLowerCase() : tail)
    return
  }
}

interface FoundModel { known: KnownModel; exact: boolean; reading: Reading }

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]+/g, ' ').trim()

function sounds(text: string, name: string): boolean {
  const words = plain(text).split(' ')
  const wanted = plain(name).split(' ')
  return wanted.every((word) => words.some((one) => editDistance(one, word) <= Math.floor(word.length / 5)))
}

/** The model whose name stands on the label; that of the longest name where several do. */
function modelOf(readings: readonly Reading[], models: readonly KnownModel[]): FoundModel | null {
  const text = readings.filter(({ source }) => source === 'print' || source === 'pasted')
  const whole = plain(text.map((one) => one.text).join(' '))
  let best: FoundModel | null = null
  for (const known of [...models].sort((a, b) => b.name.length - a.name.length)) {
    const exact = new RegExp(`(?:^| )${plain(known.name)}(?: |$)`).test(whole)
    const hint = whole.includes(plain(known.maker))
    const reading = text.find((one) => sounds(one.text, known.name))
    if (reading && (exact || hint) && (!best || (exact && hint && !best.exact))) best = { known, exact: exact && hint, reading }
    if (best?.exact) break
  }
  return best
}

/** Reads captions and their values out of lines of text. */
function readText(lines: readonly Reading[]): Taken[] {
  const taken: Taken[] = []
  let waiting: { field: CaptionField; reading: Reading }[] = []
  const logins: { user?: Reading & { value: string }; password?: Reading & { value: string } } = {}
  const put = (field: CaptionField, raw: string, reading: Reading) => {
    const value = raw.replace(/^[\s:=.#~_|–—>-]+/, '').replace(/[\s|]+$/, '')
    if (value === '') return
    if (field === 'user') logins.user = { ...reading, value }
    else if (field === 'password') logins.password = { ...reading, value }
    else taken.push({ field, raw: value, reading, named: true })
  }
  for (const reading of lines) {
    const found = captionsIn(reading.text)
    if (found.length === 0) {
      const columns = reading.text.trim().split(waiting.length > 1 ? /\s{2,}|\t|\s(?=\S+$)/ : /\t/).filter(Boolean)
      if (waiting.length && columns.length >= waiting.length) waiting.forEach(({ field }, at) => put(field, columns[at]!, reading))
      else bareValues(reading, taken)
      if (reading.text.trim()) waiting = []
      continue
    }
    waiting = []
    found.forEach((caption, at) => {
      const end = found[at + 1]?.from ?? reading.text.length
      const value = reading.text.slice(caption.to, end)
      if (value.replace(/[\s:=.#~_|–—>-]/g, '') === '') waiting.push({ field: caption.field, reading })
      else put(caption.field, value, reading)
    })
  }
  const { user, password } = logins
  if (user || password) {
    const reading = password ?? user!
    // A password without a user beside a network name is the network's; a page's login has both.
    if (!user && !taken.some(({ field }) => field === 'key')) taken.push({ field: 'key', raw: password!.value, reading, named: true })
    else taken.push({ field: 'login', raw: [user, password].flatMap((one) => (one ? [firstWord(one)] : [])).join(' / '), reading: { ...reading, sureness: Math.min(user?.sureness ?? 1, password?.sureness ?? 1) }, named: true })
  }
  return taken
}

/** A user's name and a password have no blanks in print; what stands behind one is a stain or a code. */
function firstWord({ value, source }: Reading & { value: string }): string {
  return source === 'pasted' ? value.trim() : tightened(value.replace(/\s{2,}.*$/, '')).split(/\s/)[0]!
}

/** Values that tell by their form alone what they are. */
function bareValues(reading: Reading, taken: Taken[]): void {
  const mac = /(?:[0-9A-Fa-fOoIlSZ®©]{2}\s?[:-]\s?){5}[0-9A-Fa-fOoIlSZ®©]{2}/.exec(reading.text)
  if (mac) taken.push({ field: 'mac', raw: mac[0], reading, named: false })
  const page = /https?:\/\/\S+/.exec(reading.text)
  if (page) taken.push({ field: 'address', raw: page[0], reading, named: false })
}

type CaptionField = LabelField | 'user' | 'password'
interface FoundCaption { field: CaptionField; from: number; to: number }

const allCaptions = (Object.entries(captions) as [CaptionField, readonly string[]][])
  .flatMap(([field, words]) => words.map((word) => ({ field, word })))
  .sort((a, b) => b.word.length - a.word.length)

/** Captions of a line in the order they stand, none within another. */
function captionsIn(line: string): FoundCaption[] {
  const found: FoundCaption[] = []
  for (const { field, word } of allCaptions) {
    const pattern = new RegExp(`(^|[\\s|:;,~(._-])(${word.replace(/[/-]/g, '[/\\-]?').replace(/ /g, '[\\s._-]{0,2}')})(?=$|[\\s:=.#~_|)–—-])`, 'gi')
    for (const match of line.matchAll(pattern)) {
      const from = match.index + match[1]!.length
      const to = from + match[2]!.length
      if (found.some((other) => from < other.to && to > other.from)) continue
      if (!standsAsCaption(line, from, to)) continue
      // "User admin Password …" names a user called admin, not an admin password.
      if (field === 'password' && /^admin\b/i.test(word) && /\buser(?:[ -]?name)?[\s:=]*$/i.test(line.slice(0, from))) continue
      found.push({ field, from, to })
    }
  }
  found.sort((a, b) => a.from - b.from)
  return found.length ? found : nearCaption(line)
}

/** A caption begins its line or follows a gap, a sign or a value that ended; it is not a word within a sentence or a value. */
function standsAsCaption(line: string, from: number, to: number): boolean {
  const before = line.slice(0, from)
  const after = line.slice(to)
  if (/^\s*[:=]/.test(after)) return true
  if (before.trim() === '' || /^[\s|.,'~\-+*=[\]()}{!r]{0,12}$/.test(before)) return true
  if (/\buser(?:[ -]?name)?[\s:=]+\S+\s+$/i.test(before)) return true
  return /\s{2,}$|[|;,\t]\s*$/.test(before) || (/\s$/.test(before) && to - from >= 4 && /^\s+\S/.test(after) && /\d/.test(before))
}

/** A caption at the start of a line that was misread in a letter or two. */
function nearCaption(line: string): FoundCaption[] {
  const start = /^[\s|.,'~\-+*=[\]()}{!]*/.exec(line)![0].length
  for (const { field, word } of allCaptions) {
    if (word.length < 6) continue
    const piece = line.slice(start, start + word.length)
    const ends = /^[\s:=.#|]|^$/.test(line.slice(start + word.length))
    if (ends && editDistance(piece.toLowerCase(), word) <= Math.floor(word.length / 5)) return [{ field, from: start, to: start + word.length }]
  }
  return []
}

/** Picks the best of what was taken for a field and tells how far it can be trusted. */
function weigh(field: LabelField, all: readonly Taken[], model: KnownModel | null, oddities: LabelOddity[]): Proposal | null {
  const masks = model?.masks
  const mask = masks?.[({ serial: 'serial', mac: 'mac', key: 'key', 'setup-code': 'setupCode', login: 'password' } as const)[field as 'serial']]
  const formed = all.flatMap((taken) => { const value = formOf(field, taken, mask, model); return value ? [{ taken, ...value }] : [] })
  if (formed.length === 0) return null
  const votes = (value: string) => formed.filter((one) => one.value === value).length
  const rank = (one: (typeof formed)[number]) => (isCode(one.taken) ? (one.taken.named ? 4 : 3) : 0) + (one.fits ? 1.5 : 0) + (one.taken.named ? 0.5 : 0) + one.taken.reading.sureness + votes(one.value) * 0.35 - (isCode(one.taken) || ![...one.value].some((_, at) => isDoubled(one.value, at)) ? 0 : 0.25)
  formed.sort((a, b) => rank(b) - rank(a))
  const [best] = formed
  const { taken, value, fits, sure } = best!
  const rivals = [...new Set(formed.map((one) => one.value).filter((one) => one !== value))]
  const agreeing = formed.some((one) => one !== best && one.value === value && one.taken.reading.source !== taken.reading.source)
  // Two that are named in one kind of reading are two addresses; a code and its print that differ are one, misread.
  const second = field === 'mac' && formed.find((one) => one.taken.named && one.value !== value && taken.named && twoOfOne(one.taken.reading, taken.reading))
  if (second) oddities.push({ code: 'two-macs', values: [value, second.value] })
  const others = [...rivals, ...(isCode(taken) ? [] : otherReadings(value, mask))].filter((one) => one !== value)
  return { field, value, trust: trustOf(), source: taken.reading.source, others: [...new Set(others)].slice(0, 6), ...(taken.reading.piece ? { piece: taken.reading.piece } : {}) }

  function trustOf(): Trust {
    const { source, sureness } = taken.reading
    if (!fits || second) return 'unsure'
    const codeRival = formed.some((one) => one !== best && isCode(one.taken) && one.taken.named && one.value !== value)
    if (source === 'qr' || source === 'bars') return codeRival ? 'unsure' : taken.named || agreeing ? 'certain' : 'likely'
    if (source === 'pasted') return rivals.length ? 'unsure' : 'certain'
    if (rivals.length && !agreeing && votes(value) < 2) return 'unsure'
    return sureness >= 0.6 && (sure || sureness >= 0.75) ? 'likely' : 'unsure'
  }
}

/** Whether two readings are of one kind and of two places: the same place read twice is one thing, read two ways. */
function twoOfOne(a: Reading, b: Reading): boolean {
  if (a.source !== b.source) return false
  return !a.piece || !b.piece || Math.abs(a.piece.y + a.piece.height / 2 - b.piece.y - b.piece.height / 2) > Math.max(a.piece.height, b.piece.height) / 2
}

const isCode = ({ reading: { source } }: Taken) => source === 'qr' || source === 'bars'

interface Formed { value: string; fits: boolean; sure: boolean }

/** Brings what was taken into the form of its field; null where it cannot be that field at all. */
function formOf(field: LabelField, { raw, reading }: Taken, mask: string | undefined, model: KnownModel | null): Formed | null {
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
function tightened(text: string): string {
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
function isDoubled(text: string, at: number): boolean {
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
