import { standing, type VisitRecord } from '@pasado/core/record/record'

/** A word by which a home can be found. */
export interface Term {
  term: string
  what: 'customer' | 'street' | 'town' | 'serial' | 'mac'
}

const MOST = 60

/** Words as they are searched: lower case, without accents, split where people put blanks or signs. */
export function wordsOf(text: string): string[] {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((word) => word.slice(0, MOST))
}

/** A serial or MAC address without its separators, as it is searched. */
export function bare(text: string): string {
  return text
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '')
    .slice(0, MOST)
}

/**
 * The words of a search: a serial or MAC address typed with separators is one word.
 * MAC addresses are recognised whole or from their first two pairs on.
 */
export function searchWords(query: string): string[] {
  return query
    .trim()
    .split(/\s+/)
    .flatMap((piece) => {
      if (/^(?:[0-9a-f]{2}[:-]){2,5}[0-9a-f]{0,2}$/i.test(piece)) return [bare(piece)]
      if (/\d/.test(piece) && /[-/.]/.test(piece)) return [bare(piece)]
      return wordsOf(piece)
    })
    .filter(Boolean)
    .slice(0, 6)
}

/**
 * Words one after another as a term of their own, so that a name or a street is found as it is written although each of its words is common.
 * It begins with a blank, as no word does: none of them is met twice.
 * @returns null where there are not two
 */
export const asWritten = (words: readonly string[]): string | null =>
  words.length > 1 ? ` ${words.join(' ')}`.slice(0, MOST) : null

const termsOfText = (text: string, what: Term['what']): Term[] => {
  const words = wordsOf(text)
  const written = asWritten(words)
  return [...words, ...(written === null ? [] : [written])].map((term) => ({ term, what }))
}

/** Every term under which a record's home is found. */
export function termsOf(record: VisitRecord): Term[] {
  const { customerName = '', street = '', town = '' } = record.brief.facts
  const terms: Term[] = [
    ...termsOfText(customerName, 'customer'),
    ...termsOfText(street, 'street'),
    ...termsOfText(town, 'town')
  ]
  for (const { facts } of standing(record.units)) {
    if (facts.serial) terms.push({ term: bare(facts.serial), what: 'serial' })
    if (facts.mac) terms.push({ term: bare(facts.mac), what: 'mac' })
  }
  const seen = new Set<string>()
  return terms.filter(({ term, what }) => term && !seen.has(`${what} ${term}`) && seen.add(`${what} ${term}`))
}
