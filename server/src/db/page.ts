import { z } from 'zod'
import { refused } from '../problem'

const parts = z.strictObject({
  /** The word that led to the page, where words did. */ word: z.string().optional(),
  /** The columns that were looked through on the pages before, for what has the words there as they are written. */
  written: z
    .array(z.enum(['customer', 'street']))
    .min(1)
    .max(2)
    .optional(),
  key: z.string(),
  id: z.string()
})

/** Where a page of a list ended: the value that it is ordered by, and the id for those that are alike. */
export type PageCursor = z.infer<typeof parts>

/**
 * Where a page ended, as a list tells it in `next` and takes it in `after`.
 * @throws DomainProblem where it is nothing that a list told
 */
export function readCursor(text: string): PageCursor {
  try {
    return parts.parse(JSON.parse(Buffer.from(text, 'base64url').toString('utf8')))
  } catch {
    throw refused([{ path: ['query', 'after'], message: 'is not where a page ended; begin with the first page' }])
  }
}

/** The text that `readCursor` reads. */
export const cursorText = (cursor: PageCursor): string =>
  Buffer.from(JSON.stringify(cursor), 'utf8').toString('base64url')

/** A page out of what was found with one more than it holds, and where the next one begins; null where this is the last. */
export function pageOf<T>(
  found: readonly T[],
  most: number,
  ends: (last: T) => PageCursor
): { here: T[]; next: string | null } {
  const here = found.slice(0, most)
  return { here, next: found.length > most ? cursorText(ends(here.at(-1)!)) : null }
}
