import { refused } from '../problem'
import type { Problem } from '@pasado/core/values/problem'
import type { Author } from '@pasado/core/record/attribution'
import type { Draft } from '@pasado/core/record/entry'
import { draftProblems } from '@pasado/core/record/guard'
import { ruleOf } from '@pasado/core/rules/all'
import { leaksIn } from '@pasado/core/secrets/leaks'
import type { Folded } from '@pasado/core/history/fold'
import { remember, type History } from '@pasado/core/history/history'
import { slipProblem } from '@pasado/core/history/slips'
import { wordProblem } from '@pasado/core/history/words'

/**
 * Checks entries against the record they go on: things they speak of must be there.
 * @throws DomainProblem naming each entry and field
 */
export function mustFit(
  drafts: readonly Draft[],
  { record, history }: Folded,
  author: Author,
  knowsModel: (key: string) => boolean
): void {
  const knowsRule = (id: string) => ruleOf(id) !== undefined || id.startsWith('own-')
  const problems = draftProblems(drafts, { record, outboxes: history.outboxes }, author, {
    model: knowsModel,
    rule: knowsRule
  })
  problems.push(...backwardProblems(drafts, record.lastSeq, history, author))
  if (problems.length) throw refused(problems)
}

/** What stands against drafts that speak of other entries: that one was never so, or came first; those of the same request count as well. */
function backwardProblems(drafts: readonly Draft[], lastSeq: number, before: History, author: Author): Problem[] {
  if (!drafts.some(({ kind }) => kind === 'slip.undone' || kind === 'order.said')) return []
  let history = before
  return drafts.flatMap((draft, index) => {
    const problem = backwardProblem(history, draft, author)
    history = remember(history, [{ ...draft, by: author, seq: lastSeq + 1 + index, received: draft.at }])
    return problem ? [{ path: ['entries', index, 'body', ...problem.field], message: problem.message }] : []
  })
}

function backwardProblem(history: History, draft: Draft, author: Author) {
  if (draft.kind === 'slip.undone') return slipProblem(history, draft, author)
  return draft.kind === 'order.said' ? wordProblem(history, draft, author) : null
}

/**
 * Looks for secrets in what is to be written.
 * @throws DomainProblem naming the entry and field that holds one, never its value
 */
export function mustNotLeak(drafts: readonly Draft[], secrets: readonly string[]): void {
  const problems = drafts.flatMap((draft, index): Problem[] =>
    leaksIn(draft.body, secrets).map((path) => ({
      path: ['entries', index, 'body', ...path],
      message: 'holds a secret of this visit; take it out: secrets belong in the vault only'
    }))
  )
  if (problems.length) throw refused(problems)
}
