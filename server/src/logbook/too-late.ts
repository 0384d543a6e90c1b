import type { Author } from '@pasado/core/record/attribution'
import type { Draft } from '@pasado/core/record/entry'
import { keepAfterSeal } from '../db/lines-after-seal'
import { conflictingState, type DomainProblem } from '../problem'
import { mustNotLeak } from './guards'
import type { OpenVisit } from './open-visit'
import type { VisitStates } from './states'
import { mayWrite } from './who-may'

/** The part of the logbook that is asked. */
interface Asked {
  readonly states: VisitStates
  write: (visit: string, now: Date, work: (open: OpenVisit) => Promise<void>) => Promise<void>
  mustBeOwn: (open: OpenVisit, outbox: string, author: Author) => Promise<void>
  secretsOf: (open: OpenVisit) => Promise<string[]>
}

/**
 * Keeps lines of a visit that was sealed before they came, beside the seal: the record refuses them, and they are not lost.
 * @param sealed what is told of a visit that is sealed
 * @returns what is to be told of them
 * @throws DomainProblem where they could not have been written before either
 */
export async function keepTooLate(
  logbook: Asked,
  visit: string,
  lines: readonly Draft[],
  author: Author,
  now: Date,
  sealed: DomainProblem
): Promise<DomainProblem> {
  await logbook.write(visit, now, async (open) => {
    for (const from of new Set(lines.map((line) => line.from))) await logbook.mustBeOwn(open, from, author)
    await mayWrite(logbook.states, open, author, lines, now).catch(() => {
      throw sealed
    })
    mustNotLeak(lines, await logbook.secretsOf(open))
    await keepAfterSeal(open.connection, visit, lines, author, now)
  })
  return conflictingState(
    'sealed',
    'This visit is sealed. What was written is kept beside it and shown to leads; it is no part of the record. Open a new visit that starts from it.'
  )
}
