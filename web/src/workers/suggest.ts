import type { SuggestInput, Suggestion } from '@pasado/core/work/plan/suggest'
import { asking } from './asking'

/** Searches for places in a worker. @throws WorkFailed */
export const { ask: askSuggestions } = asking<SuggestInput, Suggestion>(
  'Where units would do most',
  () => new Worker(new URL('./suggest.worker.ts', import.meta.url), { type: 'module' })
)
