import { useCallback, useEffect, useState } from 'react'
import type { Model } from '@pasado/core/catalogue/model'
import { ApiProblem, ask } from '../app/api'

/** Every model in every version, as the server holds them; null while they are loading. */
export function useModels(): { models: Model[] | null; problem: string | null; reload: () => void } {
  const [models, setModels] = useState<Model[] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const reload = useCallback(() => {
    ask<{ models: Model[] }>('GET', '/catalogue').then((found) => { setModels(found.models); setProblem(null) }, (error: unknown) => setProblem(error instanceof ApiProblem ? error.document.title : 'The catalogue could not be loaded.'))
  }, [])
  useEffect(reload, [reload])
  return { models, problem, reload }
}
