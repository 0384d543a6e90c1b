import { parentPort } from 'node:worker_threads'
import { judgeStrength } from '@pasado/core/secrets/strength'
import type { StrengthAsk } from './judge'

/** Judges one passphrase after another. */
parentPort!.on('message', ({ id, what }: { id: number; what: StrengthAsk }) => {
  parentPort!.postMessage({ id, answer: judgeStrength(what.value, what.hints) })
})
