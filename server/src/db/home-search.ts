import { versionKey } from '@pasado/core/values/version'
import type { ListedHome } from '@pasado/core/api/homes'
import type { Outcome } from '@pasado/core/rules/rule'
import { cursorText, pageOf, type PageCursor } from './page'
import { rows, type Connection, type Param } from './pool'
import { JUDGED_BY, STANDS_NOW, standsNow } from './stands'

/** What homes are looked for by; all that is given has to fit. */
export interface HomeQuery {
  /** Words of the name, street, town, serial or MAC address, each the beginning of one. */
  words: string[]
  model?: string
  /** A version of that model that runs there now. */
  firmware?: string
  /** A rule that came out so in the home's latest visit. */
  rule?: string
  outcome?: Outcome
}

/** A home that was found, with the terms it was found by where words were given. */
export type FoundHome = ListedHome & { foundBy?: string[] }

/** A page of homes, and where the next one begins; null where this is the last. */
export interface HomePage {
  homes: FoundHome[]
  next: string | null
}

export const HOMES_A_PAGE = 50

const LISTED = 'h.id, h.customer_id AS customerId, h.customer, h.street, h.town, h.latest_visit AS latestVisit'
const like = (word: string) => `${word.replace(/[\\%_]/g, '\\$&')}%`

interface Part {
  sql: string
  params: Param[]
}

/**
 * Homes that fit, a page at a time in the order of the index that leads to them: by rule, else by model or word, whichever is rarer, else
 * by street. Whatever else is asked for is looked up by key for each home that comes along.
 * @param after where the page before ended, as it told
 */
export async function findHomes(db: Connection, query: HomeQuery, after: PageCursor | null): Promise<HomePage> {
  if (query.rule !== undefined)
    return page(await rows(db, ...byRule(query, after)), ({ visit }) => ({ key: '', id: visit! }))
  if (query.model !== undefined && !(await wordsLead(db, query, after)))
    return page(await rows(db, ...byModel(query, after)), ({ visit }) => ({ key: '', id: visit! }))
  if (query.words.length > 0) return (await findWritten(db, query, after)) ?? findByWords(db, query, after)
  return page(await rows(db, ...byStreet(after)), ({ street, id }) => ({ key: street, id }))
}

/** Whether the words lead and not the model: they do where fewer homes have them. The next pages go on as the first did. */
async function wordsLead(db: Connection, query: HomeQuery, after: PageCursor | null): Promise<boolean> {
  if (query.words.length === 0 || after) return after?.word !== undefined
  const estimates = await Promise.all([...query.words.map((word) => haveWord(db, word)), haveModel(db, query)])
  return Math.min(...estimates.slice(0, -1)) < estimates.at(-1)!
}

/** The columns that names and streets stand in as they are written. */
const writtenIn = ['customer', 'street'] as const
type WrittenIn = (typeof writtenIn)[number]

/** The homes of so many terms are looked through at once; where the rarest word has more, those that have all words as written come first. */
const AT_ONCE = 500

/**
 * The pages of homes whose name or street begins with the words as they are typed: where there are more than a page of them, or where
 * looking for the words elsewhere takes long; then the others follow on the pages after.
 * @returns null where there are none, or all were told: the words lead
 */
async function findWritten(db: Connection, query: HomeQuery, after: PageCursor | null): Promise<HomePage | null> {
  if (query.words.length < 2 || query.model !== undefined) return null
  if (after)
    return after.word === undefined && after.key !== '' ? writtenFrom(db, query, after.written![0]!, after) : null
  const few: HomePage[] = []
  for (const column of writtenIn) {
    const found = await writtenFrom(db, query, column, null)
    if (found.homes.length === HOMES_A_PAGE) return found
    few.push(found)
  }
  const homes = new Map(few.flatMap((found) => found.homes).map((home) => [home.id, home]))
  if (homes.size === 0 || (await fewest(db, query.words)) <= AT_ONCE) return null
  return {
    homes: [...homes.values()].sort(byStreetAndNumber),
    next: cursorText({ written: [...writtenIn], key: '', id: '' })
  }
}

/** A page of homes that have the words in a column as they are written; the others follow the last of them. */
async function writtenFrom(
  db: Connection,
  { words }: HomeQuery,
  column: WrittenIn,
  after: PageCursor | null
): Promise<HomePage> {
  const found = page(await rows(db, ...byWritten(words, column, after)), (home) => ({
    written: [column],
    key: home[column],
    id: home.id
  }))
  return { ...found, next: found.next ?? cursorText({ written: [column], key: '', id: '' }) }
}

async function findByWords(db: Connection, query: HomeQuery, after: PageCursor | null): Promise<HomePage> {
  // The next pages go on by the word that the first was led by, whatever is estimated by then.
  const word = query.words.find((candidate) => candidate === after?.word) ?? (await rarest(db, query.words))
  const told = after?.written === undefined ? {} : { written: after.written }
  const here = after?.word === word ? after : null
  const found = page(await rows(db, ...byWord(query, word, here, after?.written)), ({ term, id }) => ({
    ...told,
    word,
    key: term!,
    id
  }))
  // All that there is on one page is put in the order people look for a street in.
  return after === null && found.next === null ? { ...found, homes: found.homes.sort(byStreetAndNumber) } : found
}

/** By the street's name, then by the number in it. */
function byStreetAndNumber(a: ListedHome, b: ListedHome): number {
  const parts = ({ street }: ListedHome) => ({
    name: street.replace(/^\d+\w?\s+/, ''),
    number: Number.parseInt(street, 10) || 0
  })
  const [first, other] = [parts(a), parts(b)]
  return first.name.localeCompare(other.name) || first.number - other.number || (a.id < b.id ? -1 : 1)
}

type FoundRow = ListedHome & { foundBy?: string; visit?: string; term?: string }

function page(found: FoundRow[], ends: (row: FoundRow) => PageCursor): HomePage {
  const { here, next } = pageOf(found, HOMES_A_PAGE, ends)
  const homes = new Map<string, FoundHome>()
  for (const { foundBy, visit: _, term: __, ...home } of here) {
    const known = homes.get(home.id)
    const by = foundBy === undefined ? [] : foundBy.split(',')
    if (known) known.foundBy = [...new Set([...(known.foundBy ?? []), ...by])]
    else homes.set(home.id, foundBy === undefined ? home : { ...home, foundBy: by })
  }
  return { homes: [...homes.values()], next }
}

/**
 * Words and models that every home found has to have as well. A subquery of one row is looked up by key for each home; EXISTS would be
 * turned round, and every home with a common word be gathered first. They hang on the table that leads, so that a home that does not fit
 * is not even read.
 */
function alsoFits({ words, model, firmware }: Pick<HomeQuery, 'words' | 'model' | 'firmware'>, home: string): Part {
  const parts: Part[] = words.map((word) => ({
    sql: `(SELECT 1 FROM home_terms o FORCE INDEX (by_home) WHERE o.home_id = ${home} AND o.term LIKE ? LIMIT 1) = 1`,
    params: [like(word)]
  }))
  if (model !== undefined)
    parts.push({
      sql: `(SELECT 1 FROM visits wv FORCE INDEX (by_home) JOIN units w FORCE INDEX (PRIMARY) ON w.visit_id = wv.id WHERE wv.home_id = ${home} AND w.model = ?${firmware === undefined ? '' : ' AND w.firmware_key = ?'} AND ${standsNow('w', 'wv')} LIMIT 1) = 1`,
      params: firmware === undefined ? [model] : [model, versionKey(firmware)]
    })
  return { sql: parts.map(({ sql }) => `AND ${sql}`).join(' '), params: parts.flatMap(({ params }) => params) }
}

type Query = [sql: string, params: Param[]]
const MORE = HOMES_A_PAGE + 1

/** From the index of the rule and its outcome, visit by visit; a home counts by its last sealed visit, or by its latest where none is sealed. */
export function byRule({ rule, outcome = 'breaks', ...rest }: HomeQuery, after: PageCursor | null): Query {
  const also = alsoFits(rest, 'v.home_id')
  return [
    `
      SELECT
      STRAIGHT_JOIN ${LISTED}, f.visit_id AS visit
      FROM findings f
      FORCE INDEX (by_rule)
      JOIN visits v
      FORCE INDEX (PRIMARY) ON v.id = f.visit_id
      JOIN homes h
      FORCE INDEX (PRIMARY) ON h.id = v.home_id
      WHERE ${JUDGED_BY}
        AND f.rule = ?
        AND f.outcome = ? ${after ? 'AND f.visit_id > ?' : ''} ${also.sql}
      GROUP BY f.visit_id
      ORDER BY f.visit_id
      LIMIT ${MORE}
    `,
    [rule!, outcome, ...(after ? [after.id] : []), ...also.params]
  ]
}

/** From the index of the model, or of the model and the version, visit by visit. */
export function byModel({ model, firmware, words }: HomeQuery, after: PageCursor | null): Query {
  const also = alsoFits({ words }, 'u.home_id')
  const version = firmware === undefined ? '' : 'AND u.firmware_key = ?'
  return [
    `
      SELECT
      STRAIGHT_JOIN ${LISTED}, u.visit_id AS visit
      FROM units u
      FORCE INDEX (${firmware === undefined ? 'by_model_visit' : 'by_version'})
      JOIN visits v
      FORCE INDEX (PRIMARY) ON v.id = u.visit_id
      JOIN homes h
      FORCE INDEX (PRIMARY) ON h.id = u.home_id
      WHERE ${STANDS_NOW}
        AND u.model = ? ${version} ${after ? 'AND u.visit_id > ?' : ''} ${also.sql}
      GROUP BY u.visit_id
      ORDER BY u.visit_id
      LIMIT ${MORE}
    `,
    [model!, ...(firmware === undefined ? [] : [versionKey(firmware)]), ...(after ? [after.id] : []), ...also.params]
  ]
}

/**
 * From the words, term by term and home by home, as their key is ordered; the other words are joined by the home, which costs less than a
 * subquery for each.
 * @param notIn homes that have the words as they are written in one of these columns are left out
 */
export function byWord(
  { words, model, firmware }: Pick<HomeQuery, 'words' | 'model' | 'firmware'>,
  first: string,
  after: PageCursor | null,
  notIn: readonly WrittenIn[] = []
): Query {
  const others = words.filter((word) => word !== first)
  const joined = others.map(
    (_, at) => `JOIN home_terms o${at} FORCE INDEX (by_home) ON o${at}.home_id = t.home_id AND o${at}.term LIKE ?`
  )
  const also = alsoFits({ words: [], ...(model === undefined ? {} : { model, firmware }) }, 't.home_id')
  // The page is found among the terms alone; only its homes are read.
  return [
    `
      SELECT
      STRAIGHT_JOIN ${LISTED}, f.foundBy, f.term
      FROM (
        SELECT
        STRAIGHT_JOIN t.term, t.home_id, GROUP_CONCAT(DISTINCT t.what) AS foundBy
        FROM home_terms t
        FORCE INDEX (PRIMARY) ${joined.join(' ')}
        WHERE t.term LIKE ? ${after ? 'AND (t.term > ? OR (t.term = ? AND t.home_id > ?))' : ''} ${also.sql}
          ${notIn.map((column) => `AND (SELECT w.${column} FROM homes w WHERE w.id = t.home_id) NOT LIKE ?`).join(' ')}
        GROUP BY t.term, t.home_id
        ORDER BY t.term, t.home_id
        LIMIT ${MORE}
      ) f
      JOIN homes h
      FORCE INDEX (PRIMARY) ON h.id = f.home_id
      ORDER BY f.term, f.home_id
    `,
    [
      ...others.map(like),
      like(first),
      ...(after ? [after.key, after.key, after.id] : []),
      ...also.params,
      ...notIn.map(() => like(words.join(' ')))
    ]
  ]
}

/** From the key of the names, or of the streets: those that begin with the words. */
export function byWritten(words: readonly string[], column: WrittenIn, after: PageCursor | null): Query {
  return [
    `
      SELECT ${LISTED}, '${column}' AS foundBy
      FROM homes h
      FORCE INDEX (by_${column})
      WHERE h.${column} LIKE ? ${after ? `AND (h.${column} > ? OR (h.${column} = ? AND h.id > ?))` : ''}
      ORDER BY h.${column}, h.id
      LIMIT ${MORE}
    `,
    [like(words.join(' ')), ...(after ? [after.key, after.key, after.id] : [])]
  ]
}

/** Every home, street by street. */
export function byStreet(after: PageCursor | null): Query {
  return [
    `
      SELECT ${LISTED}
      FROM homes h
      FORCE INDEX (by_street) ${after ? 'WHERE h.street > ? OR (h.street = ? AND h.id > ?)' : ''}
      ORDER BY h.street, h.id
      LIMIT ${MORE}
    `,
    after ? [after.key, after.key, after.id] : []
  ]
}

type Explained = { rows: string | number }

/** How many terms begin with a word, as the database estimates by a dive into the index. */
async function haveWord(db: Connection, word: string): Promise<number> {
  const sql = 'EXPLAIN SELECT 1 FROM home_terms FORCE INDEX (PRIMARY) WHERE term LIKE ?'
  return Number((await rows<Explained>(db, sql, [like(word)]))[0]?.rows ?? 0)
}

/** How many units are of a model, or run that version of it, estimated like the words. */
async function haveModel(db: Connection, { model, firmware }: HomeQuery): Promise<number> {
  const sql =
    firmware === undefined
      ? 'EXPLAIN SELECT 1 FROM units FORCE INDEX (by_model_visit) WHERE model = ?'
      : 'EXPLAIN SELECT 1 FROM units FORCE INDEX (by_version) WHERE model = ? AND firmware_key = ?'
  return Number(
    (await rows<Explained>(db, sql, [model!, ...(firmware === undefined ? [] : [versionKey(firmware)])]))[0]?.rows ?? 0
  )
}

/** How many terms begin with the rarest of some words. */
const fewest = async (db: Connection, words: readonly string[]): Promise<number> =>
  Math.min(...(await Promise.all(words.map((word) => haveWord(db, word)))))

/** The word that the fewest terms begin with: the others are looked up for its homes only. */
async function rarest(db: Connection, words: string[]): Promise<string> {
  if (words.length === 1) return words[0]!
  const counts = await Promise.all(words.map((word) => haveWord(db, word)))
  return words[counts.indexOf(Math.min(...counts))]!
}
