import type { Model } from '@pasado/core/catalogue/model'
import type { Placed } from '@pasado/core/record/entry'
import type { Finding } from '@pasado/core/rules/finding'
import type { Standard } from '@pasado/core/policy/standard'
import { askingThread } from '../threads/asking-thread'

/** What is asked: which lines of a logbook its findings rest on. */
export interface BecauseAsk {
  entries: readonly Placed[]
  findings: readonly Finding[]
  models: readonly [string, Model][]
  standard: Standard
  /** ISO; what waivers until a day were held against. */
  now: string
  /** After this long, ms, the rest is left out: whoever prints waits for it. */
  forMs: number
}

/** The lines of each finding, in their order; null where there was no time for it, or the logbook does not say so. */
export type BecauseLines = readonly (readonly number[] | null)[]

/** What was worked out, and whether there was time for all of it. */
export interface BecauseAnswer {
  lines: BecauseLines
  isWhole: boolean
}

/** What was worked out last, of logbooks that do not change any more. */
const MOST_KEPT = 40
const kept = new Map<string, BecauseLines>()

const thread = askingThread<BecauseAsk, BecauseAnswer>(new URL('./worker.mjs', import.meta.url))

/** Works out beside the thread that serves which lines findings rest on, as far as there is time. */
export const workedOut = (ask: BecauseAsk): Promise<BecauseAnswer> => thread.ask(ask)

/**
 * The same, of a sealed visit once.
 * @param sealed the digest of the seal, where there is one: what it was worked out to be stays so
 */
export async function linesOf(ask: BecauseAsk, sealed: string | null): Promise<BecauseLines> {
  const known = sealed === null ? undefined : kept.get(sealed)
  if (known) return known
  const { lines, isWhole } = await workedOut(ask)
  // What there was no time for is worked out at the next asking.
  if (sealed !== null && isWhole) {
    kept.set(sealed, lines)
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  }
  return lines
}
