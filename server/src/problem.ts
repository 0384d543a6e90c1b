import type { Problem as FieldProblem } from '@pasado/core/values/problem'

/** What kind of problem it is, whoever asks and by whatever way. */
export type ProblemKind = 'refused' | 'forbidden' | 'not-found' | 'conflict' | 'gone' | 'busy'

/** A problem that is the caller's to know: thrown by what does the work, and told at the edge in the edge's own way. */
export class DomainProblem extends Error {
  constructor(
    readonly kind: ProblemKind,
    /** Which problem of the kind. */
    readonly type: string,
    readonly title: string,
    /** The fields that are not acceptable. */
    readonly problems: readonly FieldProblem[] = [],
    /** What else the caller may want to know. */
    readonly extra: Readonly<Record<string, unknown>> = {}
  ) {
    super(title)
  }
}

/** An input with fields that are not acceptable. */
export function refused(
  problems: readonly FieldProblem[],
  title = 'Something in what was sent is not acceptable.'
): DomainProblem {
  return new DomainProblem('refused', 'refused', title, problems)
}

export const notFound = (what: string) => new DomainProblem('not-found', 'not-found', `There is no such ${what}.`)
export const forbidden = (title: string, type = 'forbidden') => new DomainProblem('forbidden', type, title)
export const conflictingState = (type: string, title: string) => new DomainProblem('conflict', type, title)
/** What was there and is there no longer. */
export const gone = (type: string, title: string) => new DomainProblem('gone', type, title)
/** More is asked for than can be done just now; nothing was done. */
export const busy = (title: string) => new DomainProblem('busy', 'busy', title)
