import type { SuggestInput, Suggestion } from '@pasado/core/work/plan/suggest'

/** Searches for places in a worker of its own. */
export function askSuggestions(input: SuggestInput): Promise<Suggestion> {
  const worker = new Worker(new URL('./suggest.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<Suggestion>((resolve) => {
    worker.addEventListener('message', (event: MessageEvent<Suggestion>) => resolve(event.data))
    worker.postMessage(input)
  }).finally(() => worker.terminate())
}
