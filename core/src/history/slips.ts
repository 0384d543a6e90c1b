import type { Author } from '../record/attribution'
import { kindOf, type Body } from '../record/entries/all'
import { isPress } from '../record/entries/slips'
import type { Draft, Placed } from '../record/entry'
import type { ToWrite } from '../record/entries/kind'
import { reduce } from '../record/reduce'
import { entriesOf, isSame, toldIn, wasPutBack, type History } from './history'

/** An entry by its id; undefined where the logbook does not hold it. */
export const entryById = (history: History, id: string): Placed | undefined =>
  entriesOf(history).find((entry) => entry.id === id)

/** Whether an entry is of a kind that can be taken back as never so: a press, or values that were set by hand. */
function isOfSlips({ kind }: Placed): boolean {
  const { by, inverse } = kindOf(kind)
  return isPress(kind) || (by === 'anybody' && inverse !== null)
}

/**
 * Why somebody cannot take an entry back as never so.
 * @returns null where they can
 */
export function whyNoSlip(history: History, undoes: string, author: Pick<Author, 'id'>): string | null {
  const entry = entryById(history, undoes)
  if (!entry) return 'the logbook holds no such entry'
  if (!isOfSlips(entry)) return 'is of a kind that is not taken back; write how it is'
  if (entry.by.id !== author.id)
    return `was written by ${entry.by.name}: only whoever wrote it knows that it was never so`
  if (history.undone.has(entry.seq)) return 'was taken back before'
  const signed = entriesOf(history).some(
    (line) => line.kind === 'signature.given' && line.body.who === 'customer' && line.seq > entry.seq
  )
  return signed ? 'was signed for by the customer; write how it is, and they sign again' : null
}

/** Whether what an entry set stands as it was set: nothing set it otherwise since. */
function standsAsSet(history: History, entry: Placed): boolean {
  return toldIn(history, entry).every(({ key }) => history.writes.get(key)?.at(-1)?.seq === entry.seq)
}

/** What is written to take a press back as never so. */
export function pressUndone({ id: undoes, kind, body, at }: Pick<Draft, 'id' | 'kind' | 'body' | 'at'>): {
  kind: 'slip.undone'
  body: Body<'slip.undone'>
} {
  const { unit, what } = body as Pick<Body<'slip.undone'>, 'unit' | 'what'>
  return { kind: 'slip.undone', body: { undoes, kind, at, unit, ...(what === undefined ? {} : { what }) } }
}

/**
 * What is written to take an entry back as never so: what stood before it, where it set values, and that it was never so.
 * @returns null where it set values that were set otherwise since: there is nothing to put back
 */
export function undoingOf(history: History, entry: Placed): ToWrite[] | null {
  const { id: undoes, kind, at } = entry
  if (isPress(kind)) return [pressUndone(entry)]
  if (!standsAsSet(history, entry)) return null
  const before = reduce(entriesOf(history).filter(({ seq }) => seq < entry.seq))
  const inverse = kindOf(kind).inverse?.(entry.body, before)
  return inverse ? [inverse, { kind: 'slip.undone', body: { undoes, kind, at } }] : null
}

/** The entries that somebody can take back as never so as the logbook stands, by their ids. */
export function takenBackBy(history: History, author: Pick<Author, 'id'>): ReadonlySet<string> {
  const entries = entriesOf(history)
  const signed = entries.findLastIndex((line) => line.kind === 'signature.given' && line.body.who === 'customer')
  const own = entries.slice(signed + 1).filter(({ by }) => by.id === author.id)
  const open = own.filter((entry) => isOfSlips(entry) && !history.undone.has(entry.seq))
  return new Set(open.filter((entry) => isPress(entry.kind) || standsAsSet(history, entry)).map(({ id }) => id))
}

/** Whether nothing that an entry set stands any more. */
const isUndoneByNow = (history: History, entry: Placed): boolean =>
  toldIn(history, entry).every(({ key }) => wasPutBack(history, key, entry.seq))

/** What stands against a draft that takes an entry back: the field, and why; null where it fits. */
export function slipProblem(
  history: History,
  draft: Draft<'slip.undone'>,
  author: Author
): { field: string[]; message: string } | null {
  const why = whyNoSlip(history, draft.body.undoes, author)
  if (why !== null) return { field: ['undoes'], message: why }
  const entry = entryById(history, draft.body.undoes)!
  const { kind, at, body } = entry
  if (!isPress(kind) && !isUndoneByNow(history, entry))
    return {
      field: ['undoes'],
      message: 'still stands as it was set; put back what stood before, then say that it was never so'
    }
  const { unit, what } = isPress(kind) ? (body as { unit?: string; what?: string }) : {}
  const differs = Object.entries({ kind, at, unit, what }).find(
    ([field, value]) => !isSame(value, draft.body[field as keyof Body<'slip.undone'>])
  )
  return differs ? { field: [differs[0]], message: 'is not that of the entry that it takes back' } : null
}
