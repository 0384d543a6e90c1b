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

/** Every term under which a record's home is found. */
export function termsOf(record: VisitRecord): Term[] {
  const { customerName = '', street = '', town = '' } = record.brief.facts
  const terms: Term[] = [
    ...wordsOf(customerName).map((term) => ({ term, what: 'customer' as const })),
    ...wordsOf(street).map((term) => ({ term, what: 'street' as const })),
    ...wordsOf(town).map((term) => ({ term, what: 'town' as const }))
  ]
  for (const { facts } of standing(record.units)) {
    if (facts.serial) terms.push({ term: bare(facts.serial), what: 'serial' })
    if (facts.mac) terms.push({ term: bare(facts.mac), what: 'mac' })
  }
  const seen = new Set<string>()
  return terms.filter(({ term, what }) => term && !seen.has(`${what} ${term}`) && seen.add(`${what} ${term}`))
}
