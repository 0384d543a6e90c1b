import { useCallback, useEffect, useState } from 'react'
import type { Standard } from '@pasado/core/policy/standard'
import { ask, failureTitle } from '../app/api'

/** Every version of the standard, the newest first; null while they are loading. */
export function useStandards(): { standards: Standard[] | null; problem: string | null; reload: () => void } {
  const [standards, setStandards] = useState<Standard[] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const reload = useCallback(() => {
    ask('GET /standards').then(
      (found) => {
        setStandards(found.standards)
        setProblem(null)
      },
      (error: unknown) => setProblem(failureTitle(error, 'The standard could not be loaded; load the page again.'))
    )
  }, [])
  useEffect(reload, [reload])
  return { standards, problem, reload }
}
