import { useEffect, useMemo, useState } from 'react'
import { durationKeys } from '@pasado/core/work/run/duration-keys'
import { visitTasks, type Durations } from '@pasado/core/work/run/visit-tasks'
import type { VisitPlan } from '@pasado/core/work/run/visit-plan'
import { askRunPlan } from '../../workers/run-plan'
import { useVisit } from '../session/visit-state'
import { useRead } from '../../app/read'

const AGAIN_MS = 30_000

/** The plan of what is left of the visit that is open, made anew as things happen and as time goes by; when it was made beside. */
export function useRunPlan(): { plan: VisitPlan; at: number } | null {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const [now, setNow] = useState(() => Date.now())
  const [found, setFound] = useState<{ plan: VisitPlan; at: number } | null>(null)
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), AGAIN_MS)
    return () => clearInterval(timer)
  }, [])
  const durations = usePastDurations()
  const tasks = useMemo(() => visitTasks(record, catalogue, now, durations), [record, catalogue, now, durations])
  useEffect(() => {
    if (record.seal) return
    askRunPlan(tasks, (plan) => setFound({ plan, at: now }))
  }, [tasks, record.seal, now])
  return record.seal ? null : found
}

/** What past visits took for the waits that this one may have; none while the server is away. */
function usePastDurations(): Durations {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const keys = useMemo(() => durationKeys({ units: record.units }, catalogue).join('\n'), [record.units, catalogue])
  const { value } = useRead('GET /durations', { query: { of: keys.split('\n') } }, { when: keys !== '' })
  return useMemo(() => new Map(value?.durations.map(({ of, ...rest }) => [of, rest])), [value])
}
