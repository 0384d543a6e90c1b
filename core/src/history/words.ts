import type { Author } from '../record/attribution'
import type { Draft } from '../record/entry'
import { entryById } from './slips'
import { hasSeen, wordKey, type History, type Word } from './history'

/** The last word of each who gave one of a change and a proof. */
function lastWords(history: History, change: number, proof: number): Word[] {
  const words = history.words.get(wordKey(change, proof)) ?? []
  return [...new Map(words.map((word) => [word.by.id, word])).values()]
}

/** Who wrote one of two lines was there; nobody else was, as far as the logbook tells. */
const wasThere = ({ lines }: History, change: number, proof: number, { id }: Pick<Author, 'id'>): boolean =>
  [change, proof].some((seq) => lines.get(seq)?.entry.by.id === id)

/**
 * Which came first of a change and a proof that did not know of each other, by the word of those who wrote them.
 * @returns null where nobody said it, or those who did differ
 */
export function cameBy(history: History, change: number, proof: number): Word['came'] | null {
  if (history.words.size === 0) return null
  const all = lastWords(history, change, proof)
  const words = all.filter(({ by }) => wasThere(history, change, proof, by))
  const [first] = words
  if (!first || words.some(({ came }) => came !== first.came)) return null
  if (history.wordsNeedLead && !all.some(({ by, came }) => by.role === 'lead' && came === first.came)) return null
  return first.came
}

/** Whether a line is in the past of a proof: its author had it before them, or those who were there say that it came before. */
export const isBefore = (history: History, proof: number, seq: number): boolean =>
  hasSeen(history, proof, seq) || cameBy(history, seq, proof) === 'before'

/** Why what was said of a change and a proof does not tell which came first, to be read after that it is not known; empty where nobody said anything. */
export function whyWordFails(history: History, change: number, proof: number): string {
  const words = lastWords(history, change, proof).filter(({ by }) => wasThere(history, change, proof, by))
  const [first] = words
  if (!first) return ''
  return words.some(({ came }) => came !== first.came)
    ? ', and those who were there differ'
    : `: ${first.by.name} says ${first.came}, which a lead has to confirm`
}

/** The history without what was said of one change and one proof. */
export const withoutWord = (history: History, key: string): History => ({
  ...history,
  words: new Map([...history.words].filter(([other]) => other !== key))
})

/** Whether somebody may say which of two lines came first: whoever wrote one of them, and a lead who confirms what they said. */
export function maySayOrder(
  history: History,
  change: number,
  proof: number,
  person: Pick<Author, 'id' | 'role'>
): boolean {
  if (wasThere(history, change, proof, person)) return true
  return person.role === 'lead' && lastWords(history, change, proof).length > 0
}

/** What stands against a draft that says which of two lines came first: the field, and why; null where it fits. */
export function wordProblem(
  history: History,
  { body }: Draft<'order.said'>,
  author: Author
): { field: string[]; message: string } | null {
  const change = entryById(history, body.change)
  const proof = entryById(history, body.proof)
  if (!change) return { field: ['change'], message: 'the logbook holds no such entry' }
  if (!proof) return { field: ['proof'], message: 'the logbook holds no such entry' }
  if (hasSeen(history, change.seq, proof.seq) || hasSeen(history, proof.seq, change.seq))
    return { field: ['came'], message: 'is known: whoever wrote the one had the other before them' }
  return maySayOrder(history, change.seq, proof.seq, author)
    ? null
    : { field: ['proof'], message: 'and the change were written by others: only who was there knows which came first' }
}
