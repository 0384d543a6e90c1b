import { parentPort } from 'node:worker_threads'
import { judgeStrength } from '@pasado/core/secrets/strength'

/** Judges one passphrase after another. */
parentPort!.on('message', ({ id, value, hints }: { id: number; value: string; hints: string[] }) => {
  parentPort!.postMessage({ id, strength: judgeStrength(value, hints) })
})
