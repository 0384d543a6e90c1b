import Papa from 'papaparse'
import { readNumber } from '../values/number'

/** What is wrong with a line of a list, by its number in the file as an editor counts it, the first being 1. */
export interface LineProblem {
  line: number
  problem: string
}

/** A line of a list that is not blank: what stands under each column, trimmed; empty where nothing does. */
export interface TableRow {
  line: number
  at: (column: string) => string
}

export interface Table {
  /** The columns that the header names, in small letters. */
  header: string[]
  rows: TableRow[]
  problems: LineProblem[]
}

const separators = [',', ';', '\t'] as const

/**
 * Reads a list: a header that names its columns in any order, parted by comma, semicolon or tab as the header is, with a
 * byte-order mark or a first line `sep=;` where there is one. A line that has more or, parted by commas, other than as many
 * values as the header is told and not read: a decimal comma makes two of one.
 * @param columns those that are known, and which of them are needed
 * @returns no rows where a needed column is missing
 */
export function readTable(text: string, columns: { known: readonly string[]; needed: readonly string[] }): Table {
  const bare = text.replace(/^\uFEFF/, '')
  const told = /^"?sep=(.)"?[ \t]*\r?\n/i.exec(bare)
  const body = told ? bare.slice(told[0].length) : bare
  const skipped = (told ? 1 : 0) + (/^(?:[ \t]*\r?\n)*/.exec(body)![0].match(/\n/g)?.length ?? 0)
  const start = body.replace(/^(?:[ \t]*\r?\n)*/, '')
  const delimiter =
    told && (separators as readonly string[]).includes(told[1]!) ? told[1]! : separatorOf(start, columns.known)
  const cells = linesOf(start, delimiter, skipped + 1)
  const header = (cells[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase())
  const missing = columns.needed.filter((column) => !header.includes(column))
  if (missing.length)
    return { header, rows: [], problems: [{ line: skipped + 1, problem: missingWords(missing, columns) }] }
  const rows: TableRow[] = []
  const problems: LineProblem[] = []
  for (const { line, cells: values } of cells.slice(1)) {
    if (values.every((cell) => cell.trim() === '')) continue
    while (values.length > header.length && values.at(-1)!.trim() === '') values.pop()
    if (values.length > header.length || (delimiter === ',' && values.length < header.length)) {
      problems.push({ line, problem: miscountWords(values.length, header.length) })
      continue
    }
    rows.push({
      line,
      at: (column) => {
        const place = header.indexOf(column)
        return place < 0 ? '' : (values[place] ?? '').trim()
      }
    })
  }
  return { header, rows, problems }
}

/** That columns are missing, and what the first line must name. */
function missingWords(missing: readonly string[], columns: { known: readonly string[]; needed: readonly string[] }) {
  const [what, is] = missing.length === 1 ? ['column', 'is'] : ['columns', 'are']
  const others = columns.known.filter((candidate) => !columns.needed.includes(candidate)).join(', ')
  return `the ${what} ${missing.join(', ')} ${is} missing: the first line must name ${columns.needed.join(', ')}${others ? ` and any of ${others}` : ''}`
}

/** That a line has more or fewer values than there are columns, and what may be the cause. */
function miscountWords(values: number, columns: number): string {
  const empty = values < columns ? '; else leave an empty place for what is not known' : ''
  return `has ${values} ${values === 1 ? 'value' : 'values'} under ${columns} columns: is there a decimal comma? Then part the columns by semicolons, or write a point${empty}`
}

/** The separator by which the header names the most columns that are known. */
function separatorOf(text: string, known: readonly string[]): string {
  const named = (delimiter: string) =>
    (Papa.parse<string[]>(text.split(/\r?\n/, 1)[0] ?? '', { delimiter }).data[0] ?? []).filter((cell) =>
      known.includes(cell.trim().toLowerCase())
    ).length
  return [...separators].sort((a, b) => named(b) - named(a))[0]!
}

/** The lines with their numbers: a value may hold line ends of its own. */
function linesOf(text: string, delimiter: string, first: number): { line: number; cells: string[] }[] {
  const lines: { line: number; cells: string[] }[] = []
  let [line, at] = [first, 0]
  Papa.parse<string[]>(text, {
    delimiter,
    skipEmptyLines: false,
    step: ({ data, meta }) => {
      lines.push({ line, cells: data })
      line += text.slice(at, meta.cursor).match(/\r\n|\r|\n/g)?.length ?? 0
      at = meta.cursor
    }
  })
  return lines
}

/** A number of a list, or what is wrong with it: a comma before just three digits may part thousands or be a decimal one. */
export function readListed(text: string): number | { problem: string } {
  if (/^[-+−]?[1-9]\d{0,2},\d{3}$/.test(text.trim()))
    return {
      problem: `${text.trim()} may be ${text.trim().replace(',', '')} or ${text.trim().replace(',', '.')}: write it with a point, or without the comma`
    }
  const value = readNumber(text.trim().replace(/^'(?=[-+=@])/, ''))
  return Number.isNaN(value) ? { problem: `${text.trim().slice(0, 20)} is no number` } : value
}

/** A text as it was before it was kept from being taken for a formula, as lists that we write do it. */
export const unguarded = (text: string): string => text.replace(/^'(?=[=+\-@\t\r])/, '')

/** Writes a list: a header, commas, a decimal point; what a spreadsheet would take for a formula is kept from it. */
export function writeTable(fields: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  return `${Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { newline: '\n', escapeFormulae: true })}\n`
}
