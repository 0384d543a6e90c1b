import { useEffect, useMemo, useState } from 'react'
import { agendaOf, type Agenda } from '@pasado/core/agenda/planned'
import type { Work } from '@pasado/core/agenda/work'
import type { VisitRecord } from '@pasado/core/record/record'
import { durationKeys } from '@pasado/core/work/run/duration-keys'
import { leftOf } from '@pasado/core/work/run/span'
import { askRunPlan } from '../../workers/run-plan'
import { useRead } from '../../app/read'
import { recompute } from '../session/record-now'
import { useVisit } from '../session/visit-state'

const AGAIN_MS = 30_000

/** The work that is left of the open visit as it is planned, and when that was planned; null as long as it is not, or where it is sealed. */
export function useAgenda(): { agenda: Agenda; at: number } | null {
  const works = useVisit((state) => state.works)
  const planned = useVisit((state) => state.planned)
  const isSealed = useVisit((state) => state.record.seal !== null)
  return useMemo(
    () => (planned && !isSealed ? { agenda: agendaOf(works, planned.plan), at: planned.at } : null),
    [works, planned, isSealed]
  )
}

const unplanned: Readonly<Record<string, number>> = {}

/** When each work begins in the plan, minutes; of what is not planned yet nothing. */
export const useStarts = (): Readonly<Record<string, number>> =>
  useVisit((state) => state.planned?.plan.start ?? unplanned)

/** Keeps the plan of the open visit: made anew as its work changes and as time goes by. Used once, where the visit is shown. */
export function useKeepPlanned(): void {
  const works = useVisit((state) => state.works)
  const waits = useVisit((state) => state.record.waits)
  const isSealed = useVisit((state) => state.record.seal !== null)
  const [now, setNow] = useState(() => Date.now())
  usePastDurations()
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), AGAIN_MS)
    return () => clearInterval(timer)
  }, [])
  useEffect(() => {
    if (isSealed || works.length === 0) return
    const tasks = works.map(({ id, handsOn, wait, after, running }) => ({
      id,
      handsOn,
      wait: running ? leftOfWork(id, waits, now) : wait,
      after
    }))
    askRunPlan(tasks, (plan) => useVisit.setState({ planned: { plan, at: now } }))
  }, [works, waits, isSealed, now])
}

/** What is left of the wait that a running work is. */
function leftOfWork(id: string, waits: VisitRecord['waits'], nowMs: number): Work['wait'] {
  const wait = Object.values(waits).find((running) => running.task === id || `wait:${running.id}` === id)
  return wait ? leftOf(wait, nowMs) : null
}

/** Asks what past visits took for the waits that this one may have; nothing is known while the server is away. */
function usePastDurations(): void {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const keys = useMemo(() => durationKeys({ units: record.units }, catalogue).join('\n'), [record.units, catalogue])
  const { value } = useRead('GET /durations', { query: { of: keys.split('\n') } }, { when: keys !== '' })
  useEffect(() => {
    if (!value?.durations.length) return
    useVisit.setState({ durations: new Map(value.durations.map(({ of, ...rest }) => [of, rest])) })
    void recompute()
  }, [value])
}
