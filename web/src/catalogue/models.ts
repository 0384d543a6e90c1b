import { useMemo } from 'react'
import type { Model } from '@pasado/core/catalogue/model'
import { useRead } from '../app/read'

/** Every model in every version, as the server holds them; null while they are loading. */
export function useModels(): {
  models: Model[] | null
  /** Ids of those that are no longer offered. */ retired: ReadonlySet<string>
  problem: string | null
  again: () => Promise<void>
} {
  const { value, problem, again } = useRead('GET /catalogue', {}, { otherwise: 'The catalogue could not be loaded.' })
  const retired = useMemo(() => new Set(value?.retired), [value])
  return { models: value?.models ?? null, retired, problem: value ? null : problem, again }
}
