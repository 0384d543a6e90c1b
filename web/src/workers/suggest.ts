import type { SuggestedPlacement, SuggestInput } from '@pasado/core/plan/suggest'

/** Searches for places in a worker of its own. */
export function askSuggestions(input: SuggestInput): Promise<SuggestedPlacement[]> {
  const worker = new Worker(new URL('./suggest.worker.ts', import.meta.url), { type: 'module' })
  return new Promise<SuggestedPlacement[]>((resolve) => {
    worker.addEventListener('message', (event: MessageEvent<SuggestedPlacement[]>) => resolve(event.data))
    worker.postMessage(input)
  }).finally(() => worker.terminate())
}
