import { editDistance } from '../values/edit-distance'
import { captions, foreignBefore, looseCaptions, type LabelField } from './fields'
import { tightened } from './forms'
import type { Reading, Taken } from './reading'

type Login = Reading & { value: string }

/** Reads captions and their values out of lines of text. */
export function readText(lines: readonly Reading[]): Taken[] {
  const taken: Taken[] = []
  let waiting: FoundCaption[] = []
  const logins: { user?: Login; password?: Login } = {}
  const put = ({ field, just }: Pick<FoundCaption, 'field' | 'just'>, raw: string, reading: Reading) => {
    // What a person pasted may begin with any sign; print has leaders, stains and rules there.
    const value =
      reading.source === 'pasted'
        ? raw.replace(/^\s*(?:[:=#>]|[–—-](?=\s)|\.{2,}|\.(?=\s))?\s*/, '').trimEnd()
        : raw.replace(/^[\s:=.#~_|–—>-]+/, '').replace(/[\s|]+$/, '')
    if (value === '') return
    if (field === 'user') logins.user = { ...reading, value }
    else if (field === 'password') logins.password = { ...reading, value }
    else taken.push({ field, raw: value, reading, named: true, just })
  }
  for (const reading of lines) {
    const found = captionsIn(reading.text)
    bareValues(
      { ...reading, text: reading.text.slice(0, found[0]?.from ?? reading.text.length) },
      found.length === 0 && waiting.length > 0 ? [] : taken
    )
    if (found.length === 0) {
      const columns = reading.text
        .trim()
        .split(waiting.length > 1 ? /\s{2,}|\t|\s(?=\S+$)/ : /\t/)
        .filter(Boolean)
      if (waiting.length && columns.length >= waiting.length)
        waiting.forEach((caption, at) => put(caption, columns[at]!, reading))
      else if (waiting.length) bareValues(reading, taken)
      if (reading.text.trim()) waiting = []
      continue
    }
    waiting = []
    found.forEach((caption, at) => {
      const end = found[at + 1]?.from ?? reading.text.length
      const value = reading.text.slice(caption.to, end)
      if (value.replace(/[\s:=.#~_|–—>-]/g, '') === '') waiting.push(caption)
      else put(caption, value, reading)
    })
  }
  const login = loginOf(logins, taken)
  return login ? [...taken, login] : taken
}

/** A page's login of its user and password, each for itself on the label; a password alone is the network's beside a network's name, the page's beside its address. */
function loginOf({ user, password }: { user?: Login; password?: Login }, taken: readonly Taken[]): Taken | null {
  const reading = password ?? user
  if (!reading) return null
  const has = (field: LabelField) => taken.some((candidate) => candidate.field === field)
  if (!user && has('ssid') && !has('key'))
    return { field: 'key', raw: password!.value, reading: password!, named: true, just: false }
  if (!user && !has('address') && !has('key')) return null
  const words = [user, password].flatMap((word) => (word ? [firstWord(word)] : []))
  return {
    field: 'login',
    raw: words.join(' / '),
    reading: { ...reading, sureness: Math.min(user?.sureness ?? 1, password?.sureness ?? 1) },
    named: true,
    just: false
  }
}

/** A user's name and a password have no blanks in print; what stands behind one is a stain or a code. */
function firstWord({ value, source }: Reading & { value: string }): string {
  return source === 'pasted' ? value.trim() : tightened(value.replace(/\s{2,}.*$/, '')).split(/\s/)[0]!
}

/** Values that tell by their form alone what they are. */
function bareValues(reading: Reading, taken: Taken[]): void {
  const mac = /(?:[0-9A-Fa-fOoIlSZ®©]{2}\s?[:-]\s?){5}[0-9A-Fa-fOoIlSZ®©]{2}/.exec(reading.text)
  if (mac) taken.push({ field: 'mac', raw: mac[0], reading, named: false, just: false })
  const page = /https?:\/\/\S+/.exec(reading.text)
  if (page) taken.push({ field: 'address', raw: page[0], reading, named: false, just: false })
}

type CaptionField = LabelField | 'user' | 'password'
interface FoundCaption {
  field: CaptionField
  from: number
  to: number
  just: boolean
}

const allCaptions = (Object.entries(captions) as [CaptionField, readonly string[]][])
  .flatMap(([field, words]) => words.map((word) => ({ field, word })))
  .sort((a, b) => b.word.length - a.word.length)

/** What may stand between a caption and its colon and leave it what it is: the band, the kind of security, another caption of the same thing. */
const qualifier =
  /^\s*(?:(?:\((?:[^()]{1,20})\)|(?:(?:2[.,]4|5|6)\s?G(?:Hz)?\s*[/&+,]?\s*)+|\/\s?(?:pin|key|passphrase|password|ssid))\s*(?=[:=])|[(\[{]\s?(?:ssid|essid|wpa\d?(?:-psk)?|psk|default|2[.,]4\s?ghz|5\s?ghz)\s?[)\]}](?=\s|$)|\/\s?(?:pin|key|passphrase|password|ssid)(?=\s|$))/i

/** Captions of a line in the order they stand, none within another. */
function captionsIn(line: string): FoundCaption[] {
  const found: (FoundCaption & { word: string })[] = []
  for (const { field, word } of allCaptions) {
    const pattern = new RegExp(
      `(^|[\\s|:;,~(._-])(${word.replace(/[/-]/g, '[/\\-]?').replace(/ /g, '[\\s._-]{0,2}')})(?!:\\/\\/)(?=$|[\\s:=.#~_|)/–—-])`,
      'gi'
    )
    for (const match of line.matchAll(pattern)) {
      const from = match.index + match[1]!.length
      const to = from + match[2]!.length
      if (found.some((other) => from < other.to && to > other.from)) continue
      if (!standsAsCaption(line, from, to)) continue
      // "User admin Password …" names a user called admin, not an admin password.
      if (field === 'password' && /^admin\b/i.test(word) && /\buser(?:[ -]?name)?[\s:=]*$/i.test(line.slice(0, from)))
        continue
      found.push({ field, from, to, just: false, word })
    }
  }
  if (found.length === 0) return nearCaption(line)
  found.sort((a, b) => a.from - b.from)
  const kept = found.filter(({ from }) => !foreignBefore.test(line.slice(0, from)))
  return kept.flatMap((caption, at): FoundCaption[] => {
    const between = line.slice(caption.to, kept[at + 1]?.from ?? line.length)
    const words = qualifier.exec(between)?.[0] ?? ''
    // More words before the colon: it names something else, as "Network mode" does.
    if (
      /^[\s._-]+[A-Za-z][A-Za-z ._-]{0,24}\s*[:=](?!\/\/)/.test(between.slice(words.length)) ||
      (words === '' && /^\/\s?[A-Za-z]/.test(between))
    )
      return []
    const before = line.slice(kept[at - 1]?.to ?? 0, caption.from)
    const stray =
      at === 0 ? /[A-Za-z]{2,}[\s._-]*$/.test(before) : /(?:^|\s{2,}|[|;,\t])\s*[A-Za-z]{2,}\s$/.test(before)
    return [
      {
        field: caption.field,
        from: caption.from,
        to: caption.to + words.length,
        just: !looseCaptions.has(caption.word) && !words.trimStart().startsWith('/') && !stray
      }
    ]
  })
}

/** A caption begins its line or follows a gap, a sign or a value that ended; it is not a word within a sentence or a value. */
function standsAsCaption(line: string, from: number, to: number): boolean {
  const before = line.slice(0, from)
  const after = line.slice(to)
  if (/^\s*[:=]/.test(after)) return true
  if (before.trim() === '' || /^[\s|.,'~\-+*=[\]()}{!r]{0,12}$/.test(before)) return true
  if (/\buser(?:[ -]?name)?[\s:=]+\S+\s+$/i.test(before)) return true
  return (
    /\s{2,}$|[|;,\t]\s*$/.test(before) ||
    (/\s$/.test(before) && to - from >= 4 && /^\s+\S/.test(after) && /\d/.test(before))
  )
}

/** A caption at the start of a line that was misread in a letter or two. */
function nearCaption(line: string): FoundCaption[] {
  const start = /^[\s|.,'~\-+*=[\]()}{!]*/.exec(line)![0].length
  for (const { field, word } of allCaptions) {
    if (word.length < 6) continue
    const piece = line.slice(start, start + word.length)
    const ends = /^[\s:=.#|]|^$/.test(line.slice(start + word.length))
    if (ends && editDistance(piece.toLowerCase(), word) <= Math.floor(word.length / 5))
      return [{ field, from: start, to: start + word.length, just: false }]
  }
  return []
}
