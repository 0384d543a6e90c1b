import { busy } from '../problem'
import { Worker } from 'node:worker_threads'
import type { Strength } from '@pasado/core/secrets/strength'

interface Asked {
  value: string
  hints: readonly string[]
  done: (strength: Strength) => void
  failed: (error: unknown) => void
}

/** So many may wait; further ones are told to come again. */
const MOST_WAITING = 200

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, Asked>()

/**
 * Judges a passphrase beside the thread that serves: the library takes tenths of a second for some.
 * @throws DomainProblem where too many are being judged already
 */
export function strengthOf(value: string, hints: readonly string[]): Promise<Strength> {
  if (waiting.size >= MOST_WAITING)
    return Promise.reject(busy('Too many passwords are being judged just now; send it again.'))
  return new Promise((done, failed) => {
    const id = ++asked
    waiting.set(id, { value, hints, done, failed })
    const judge = running()
    judge.ref()
    judge.postMessage({ id, value, hints })
  })
}

/** One worker for the process; while nobody waits for it, it does not keep the process from ending. */
function running(): Worker {
  if (worker) return worker
  const made = new Worker(new URL('./worker.mjs', import.meta.url))
  made.on('message', ({ id, strength }: { id: number; strength: Strength }) => {
    waiting.get(id)?.done(strength)
    waiting.delete(id)
    if (waiting.size === 0) made.unref()
  })
  made.on('error', (error) => {
    worker = null
    for (const call of waiting.values()) call.failed(error)
    waiting.clear()
  })
  worker = made
  return made
}
