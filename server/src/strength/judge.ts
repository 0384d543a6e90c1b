import type { Strength } from '@pasado/core/secrets/strength'
import { busy } from '../problem'
import { askingThread } from '../threads/asking-thread'

/** What is asked: how strong a passphrase is, where these words are near at hand. */
export interface StrengthAsk {
  value: string
  hints: readonly string[]
}

/** So many may wait; further ones are told to come again. */
const MOST_WAITING = 200

const thread = askingThread<StrengthAsk, Strength>(new URL('./worker.mjs', import.meta.url))

/**
 * Judges a passphrase beside the thread that serves: the library takes tenths of a second for some.
 * @throws DomainProblem where too many are being judged already
 */
export function strengthOf(value: string, hints: readonly string[]): Promise<Strength> {
  if (thread.waiting() >= MOST_WAITING)
    return Promise.reject(busy('Too many passwords are being judged just now; send it again.'))
  return thread.ask({ value, hints })
}
