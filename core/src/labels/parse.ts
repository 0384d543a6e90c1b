import { editDistance } from '../values/edit-distance'
import { readCode } from './codes'
import { labelFields, type LabelField } from './fields'
import { formOf, isDoubled } from './forms'
import { otherReadings, settleByMask, wornAlike } from './look-alikes'
import { fitsMask } from '../values/mask'
import { readText } from './read-text'
import type { KnownModel, Piece, Reading, ReadingSource, Taken, Trust } from './reading'

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
export type LabelOddity =
  { code: 'two-macs'; values: string[] } | { code: 'another-model'; read: string } | { code: 'nothing-found' }

export interface ParsedLabel {
  proposals: Proposal[]
  oddities: LabelOddity[]
}

/**
 * Finds the fields of a label in what was read off it, in whatever order, wording and layout.
 * @param readings lines of text in order from top to bottom, and codes
 * @param models that the label may be of
 * @param own the unit's own model, where it is known; a label of another one is called out
 */
export function parseLabel(
  readings: readonly Reading[],
  models: readonly KnownModel[],
  own: KnownModel | null = models.length === 1 ? models[0]! : null
): ParsedLabel {
  const taken = readings.filter(({ source }) => source === 'qr' || source === 'bars').flatMap(readCode)
  taken.push(...readText(readings.filter(({ source }) => source === 'print' || source === 'pasted')))
  const model = modelOf(readings, models)
  const settled = own ?? model?.known ?? null
  const oddities: LabelOddity[] = []
  const proposals: Proposal[] = model ? [modelProposal(model)] : []
  for (const field of labelFields) {
    if (field === 'model') continue
    const proposal = weigh(
      field,
      taken.filter((candidate) => candidate.field === field),
      settled,
      oddities
    )
    if (proposal) proposals.push(proposal)
  }
  nameByAddress(proposals)
  const another = own && anotherModel(own, model, readings)
  if (another && proposals.length > 0) oddities.push({ code: 'another-model', read: another })
  if (proposals.every(({ field }) => field === 'model')) oddities.push({ code: 'nothing-found' })
  return { proposals, oddities }
}

function modelProposal({ known, exact, reading }: FoundModel): Proposal {
  return {
    field: 'model',
    value: known.id,
    trust: exact ? 'likely' : 'unsure',
    source: reading.source,
    others: [],
    ...(reading.piece ? { piece: reading.piece } : {})
  }
}

/** What a label says instead of the unit's own model; null where it may be its own. */
function anotherModel(own: KnownModel, found: FoundModel | null, readings: readonly Reading[]): string | null {
  if (found) return found.known.id !== own.id && found.exact ? `${found.known.maker} ${found.known.name}` : null
  const other = readings.find(({ text }) => /\b(model|type)\b/i.test(text))
  return other && !sounds(other.text, own.name) ? other.text.trim() : null
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
    const doubled = ssid.value.length - digits
    if (read === tail && doubled > 1 && isDoubled(ssid.value, doubled)) {
      ssid.others = [...new Set([ssid.value, ...ssid.others])]
      ssid.value = ssid.value.slice(0, doubled - 1) + tail
      return
    }
    if (ssid.value.length <= digits || read === tail || !settleByMask(read.toUpperCase(), tail.replace(/./g, '\\$&')))
      continue
    ssid.others = [...new Set([ssid.value, ...ssid.others])]
    ssid.value = ssid.value.slice(0, -digits) + (read === read.toLowerCase() ? tail.toLowerCase() : tail)
    return
  }
}

interface FoundModel {
  known: KnownModel
  exact: boolean
  reading: Reading
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()

function sounds(text: string, name: string): boolean {
  const words = plain(text).split(' ')
  const wanted = plain(name).split(' ')
  return wanted.every((word) => words.some((candidate) => editDistance(candidate, word) <= Math.floor(word.length / 5)))
}

/** The model whose name stands on the label; that of the longest name where several do. */
function modelOf(readings: readonly Reading[], models: readonly KnownModel[]): FoundModel | null {
  const text = readings.filter(({ source }) => source === 'print' || source === 'pasted')
  const whole = plain(text.map((reading) => reading.text).join(' '))
  let best: FoundModel | null = null
  for (const known of [...models].sort((a, b) => b.name.length - a.name.length)) {
    const exact = new RegExp(`(?:^| )${plain(known.name)}(?: |$)`).test(whole)
    const hint = whole.includes(plain(known.maker))
    const reading = text.find((candidate) => sounds(candidate.text, known.name))
    if (reading && (exact || hint) && (!best || (exact && hint && !best.exact)))
      best = { known, exact: exact && hint, reading }
    if (best?.exact) break
  }
  return best
}

/** Picks the best of what was taken for a field and tells how far it can be trusted. */
function weigh(
  field: LabelField,
  all: readonly Taken[],
  model: KnownModel | null,
  oddities: LabelOddity[]
): Proposal | null {
  const masks = model?.masks
  const mask =
    masks?.[
      ({ serial: 'serial', mac: 'mac', key: 'key', 'setup-code': 'setupCode', login: 'password' } as const)[
        field as 'serial'
      ]
    ]
  const formed = all.flatMap((taken) => {
    const value = formOf(field, taken, mask, model)
    return value ? [{ taken, ...value }] : []
  })
  if (formed.length === 0) return null
  const votes = (value: string) => formed.filter((candidate) => candidate.value === value).length
  // A bare address in a code is mostly the maker's help.
  const bareRank = field === 'address' ? 0 : 3
  const codeRank = ({ named }: Taken) => (named ? 4 : bareRank)
  const rank = (known: (typeof formed)[number]) =>
    (isCode(known.taken) ? codeRank(known.taken) : 0) +
    (known.fits ? 1.5 : 0) +
    (known.taken.named ? 0.5 : 0) +
    known.taken.reading.sureness +
    votes(known.value) * 0.35 -
    (isCode(known.taken) || ![...known.value].some((_, at) => isDoubled(known.value, at)) ? 0 : 0.25)
  // Of several that are named, and of which none is a code nor has a place, the first is the label's; ranks part only readings of one place.
  const named = formed.filter(({ taken }) => taken.named)
  const plainFirst =
    named.length > 0 && formed.every(({ taken }) => !isCode(taken) && !taken.reading.piece) ? named[0]! : null
  formed.sort((a, b) => rank(b) - rank(a))
  const best = plainFirst ?? formed[0]!
  const { taken, value, fits, sure } = best
  const rivals = [...new Set(formed.map((reading) => reading.value).filter((candidate) => candidate !== value))]
  // Two that are named in one kind of reading are two addresses; a code and its print that differ are one, misread.
  const second =
    field === 'mac' &&
    formed.find(
      (candidate) =>
        candidate.taken.named &&
        candidate.value !== value &&
        taken.named &&
        twoOfOne(candidate.taken.reading, taken.reading)
    )
  if (second) oddities.push({ code: 'two-macs', values: [value, second.value] })
  const contradicted = formed.some(
    (candidate) => candidate !== best && candidate.value !== value && contradicts(candidate)
  )
  const others = [
    ...rivals,
    ...(taken.reading.source !== 'print' || field === 'address' ? [] : otherReadings(value, mask))
  ].filter((candidate) => candidate !== value)
  return {
    field,
    value,
    trust: trustOf(),
    source: taken.reading.source,
    others: [...new Set(others)].slice(0, 6),
    ...(taken.reading.piece ? { piece: taken.reading.piece } : {})
  }

  /** Whether another reading says something else: not where it is print that reads as the code does, by look-alikes that the form allows, nor one place of the picture read twice. */
  function contradicts(other: (typeof formed)[number]): boolean {
    const bare = field === 'mac' ? other.value.replaceAll(':', '').toUpperCase() : other.value
    if (
      isCode(taken) &&
      other.taken.reading.source === 'print' &&
      mask !== undefined &&
      readsAs(bare, field === 'mac' ? value.replaceAll(':', '').toUpperCase() : value, mask)
    )
      return false
    return (
      other.taken.reading.source !== 'print' ||
      taken.reading.source !== 'print' ||
      twoOfOne(other.taken.reading, taken.reading)
    )
  }

  function trustOf(): Trust {
    const { source, sureness } = taken.reading
    if (!fits || second || contradicted) return 'unsure'
    if (source === 'bars') return 'likely'
    if (source === 'qr' || source === 'pasted') return taken.named && taken.just && sure ? 'certain' : 'likely'
    const agreeing = formed.some(
      (candidate) => candidate !== best && candidate.value === value && candidate.taken.reading.source !== source
    )
    if (rivals.length && !agreeing && votes(value) < 2) return 'unsure'
    return printTrust(sureness)
  }

  function printTrust(sureness: number): Trust {
    // A nought or O, a one or l that the form leaves open is for a person to decide, however sure the reader of text is.
    const open = !sure && (field === 'serial' || field === 'key' || field === 'setup-code') && /[0OQ1lI|]/.test(value)
    return sureness >= 0.6 && !open && (sure || sureness >= 0.75) ? 'likely' : 'unsure'
  }
}

/** Whether a misreading is of a value: where they differ, characters that print makes alike, all of them allowed by the form. */
function readsAs(read: string, value: string, mask: string): boolean {
  return (
    read.length === value.length &&
    fitsMask(mask, value) &&
    [...read].every((character, at) => character === value[at] || wornAlike(character, value[at]!))
  )
}

/** Whether two readings are of one kind and of two places: the same place read twice is one thing, read two ways. */
function twoOfOne(a: Reading, b: Reading): boolean {
  if (a.source !== b.source) return false
  return (
    !a.piece ||
    !b.piece ||
    Math.abs(a.piece.y + a.piece.height / 2 - b.piece.y - b.piece.height / 2) >
      Math.max(a.piece.height, b.piece.height) / 2
  )
}

const isCode = ({ reading: { source } }: Taken) => source === 'qr' || source === 'bars'
