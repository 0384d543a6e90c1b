import type { CoverageAnswer, CoverageAsk } from './coverage.worker'

let worker: Worker | null = null
let asked = 0
let heard: ((answer: CoverageAnswer) => void) | null = null

/** Asks for coverage in a worker. Only the newest question is answered: a drag does not wait for the ones before. */
export function askCoverage(what: Omit<CoverageAsk, 'id'>, onAnswer: (answer: CoverageAnswer) => void): void {
  if (!worker) {
    worker = new Worker(new URL('./coverage.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', (event: MessageEvent<CoverageAnswer>) => {
      if (event.data.id === asked) heard?.(event.data)
    })
  }
  heard = onAnswer
  worker.postMessage({ id: ++asked, ...what } satisfies CoverageAsk)
}
