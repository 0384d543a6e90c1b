import { editDistance } from '../text/edit-distance'
import { captions, type LabelField } from './fields'
import { tightened } from './forms'
import type { Reading, Taken } from './reading'

/** Reads captions and their values out of lines of text. */
export function readText(lines: readonly Reading[]): Taken[] {
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
