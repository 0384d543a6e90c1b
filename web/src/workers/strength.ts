import type { Strength } from '@pasado/core/secrets/strength'

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, (strength: Strength) => void>()

/** Judges a passphrase in a worker, which is loaded when it is first needed. */
export function strengthOf(value: string, hints: string[]): Promise<Strength> {
  if (!worker) {
    worker = new Worker(new URL('./strength.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', (event: MessageEvent<{ id: number; strength: Strength }>) => {
      waiting.get(event.data.id)?.(event.data.strength)
      waiting.delete(event.data.id)
    })
  }
  const id = ++asked
  return new Promise((resolve) => {
    waiting.set(id, resolve)
    worker!.postMessage({ id, value, hints })
  })
}
