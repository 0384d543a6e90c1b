import { useCallback, useEffect, useState } from 'react'
import type { Model } from '@pasado/core/catalogue/model'
import { ask, failureTitle } from '../app/api'

/** Every model in every version, as the server holds them; null while they are loading. */
export function useModels(): {
  models: Model[] | null
  /** Ids of those that are no longer offered. */ retired: ReadonlySet<string>
  problem: string | null
  reload: () => void
} {
  const [models, setModels] = useState<Model[] | null>(null)
  const [retired, setRetired] = useState<ReadonlySet<string>>(new Set())
  const [problem, setProblem] = useState<string | null>(null)
  const reload = useCallback(() => {
    ask('GET /catalogue').then(
      (found) => {
        setModels(found.models)
        setRetired(new Set(found.retired))
        setProblem(null)
      },
      (error: unknown) => setProblem(failureTitle(error, 'The catalogue could not be loaded.'))
    )
  }, [])
  useEffect(reload, [reload])
  return { models, retired, problem, reload }
}
