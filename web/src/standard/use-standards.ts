import type { Standard } from '@pasado/core/policy/standard'
import { useRead } from '../app/read'

/** Every version of the standard, the newest first; null while they are loading. */
export function useStandards(): { standards: Standard[] | null; problem: string | null; again: () => Promise<void> } {
  const { value, problem, again } = useRead(
    'GET /standards',
    {},
    { otherwise: 'The standard could not be loaded; load the page again.' }
  )
  return { standards: value?.standards ?? null, problem: value ? null : problem, again }
}
