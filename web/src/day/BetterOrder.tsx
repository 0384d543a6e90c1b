import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { atWallMinute, clock } from '@pasado/core/work/day/day-plan'
import { ask, failureWords } from '../app/api'
import { localTime } from '../app/local-time'
import { useSession } from '../app/session'
import { useOutbox } from '../outbox/outbox'
import { type DayPlanned } from './use-day-plan'
import type { ListedVisit } from '@pasado/core/api/day'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Notice } from '../ui/Notice'

/** How a proposed time compares with the time the visit is planned at. */
function comparedWith(beforeMin: number | null, proposedMin: number): string {
  if (beforeMin === null) return ', without a time so far'
  return beforeMin === proposedMin ? ', as it is' : `, instead of ${clock(beforeMin)}`
}

/** Another order of the day that gets back sooner, or in which every home can be reached; taken over by one press. */
export function Suggestion({
  planned,
  of,
  day,
  mayMove,
  onMoved
}: {
  planned: DayPlanned
  of: Map<string, ListedVisit>
  day: Date
  mayMove: boolean
  onMoved: () => void
}) {
  const me = useSession((state) => state.me)
  const [asking, setAsking] = useState(false)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const { order, plan, savesMin } = planned.suggestion!
  const beforeOf = (id: string) => planned.stops.find((stop) => stop.id === id)?.plannedMin ?? null
  const moved = order.filter((stop) => stop.plannedMin !== beforeOf(stop.id))
  const others = [
    ...new Set(
      moved
        .map(({ id }) => of.get(id)!)
        .filter(({ technician }) => technician !== me?.id)
        .map(({ technicianName }) => technicianName)
    )
  ]
  const take = async () => {
    setBusy(true)
    setProblem(null)
    try {
      for (const stop of moved) await setTime(of.get(stop.id)!, atWallMinute(day, stop.plannedMin!))
      keepForUndo(moved.map(({ id }) => ({ visit: of.get(id)!, plannedAt: of.get(id)!.plannedAt })))
      onMoved()
    } catch (error) {
      setProblem(failureWords(error, 'Not every time could be set; look at the visits.'))
    } finally {
      setBusy(false)
      setAsking(false)
    }
  }
  return (
    <Notice aria-label="A better order" as="section" edge="plum" className="mt-4">
      <h3>
        {savesMin >= 10
          ? `Another order gets back ${spanWords(savesMin)} sooner, at ${clock(plan.endMin)}`
          : 'In this order every home can be reached'}
      </h3>
      <ol className="mt-1">
        {order.map((stop) => {
          const before = beforeOf(stop.id)
          return (
            <li key={stop.id}>
              <b className="exact">{clock(stop.plannedMin!)}</b> {of.get(stop.id)!.street}{' '}
              <span className="text-soft">
                {of.get(stop.id)!.town}
                {comparedWith(before, stop.plannedMin!)}
              </span>
            </li>
          )
        })}
      </ol>
      <p className="fine mt-1">
        Based on likely times; what was to begin by now stays as it is. Ask the customers before you set it.
      </p>
      {mayMove && !asking && (
        <Button className="mt-2" disabled={busy} onClick={() => setAsking(true)}>
          Set these times
        </Button>
      )}
      {asking && (
        <div role="group" aria-label="Move these visits?" className="mt-2 border-2 border-ink p-3">
          <p>
            <b>
              {moved.length === 1 ? 'One visit moves' : `${moved.length} visits move`}
              {others.length ? ` of ${others.join(', ')}` : ''}.
            </b>{' '}
            Have {moved.length === 1 ? 'this customer' : 'these customers'} said yes to the new{' '}
            {moved.length === 1 ? 'time' : 'times'}?
          </p>
          <p className="mt-2 flex flex-wrap gap-2">
            <Button kind="main" disabled={busy} onClick={() => void take()}>
              {busy ? 'Setting …' : 'Yes: move them'}
            </Button>
            <Button disabled={busy} onClick={() => setAsking(false)}>
              Leave them as they are
            </Button>
          </p>
        </div>
      )}
      <Problem message={problem} className="mt-2" />
    </Notice>
  )
}

/** Writes a visit's time, or that it has none, as the last that is known of it was. */
async function setTime(visit: ListedVisit, plannedAt: Date | null): Promise<void> {
  const draft = {
    id: uuidv7(),
    visit: visit.id,
    at: localTime(new Date()),
    from: useOutbox.getState().id,
    base: visit.seq,
    kind: 'brief.set',
    body: { set: { plannedAt: plannedAt === null ? null : localTime(plannedAt) }, origin: 'calculated' }
  }
  await ask('POST /visits/:id/entries', { params: { id: visit.id }, body: { entries: [draft] } })
}

/** What was moved last, to put it back: kept while the page is open. */
let movedLast: { visit: ListedVisit; plannedAt: string | null }[] = []
const keepForUndo = (moved: typeof movedLast) => {
  movedLast = moved
}

/** Puts the times back that were set last, as long as nobody set them again. */
export function PutBack({ visits, onMoved }: { visits: readonly ListedVisit[]; onMoved: () => void }) {
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  if (movedLast.length === 0) return null
  const back = async () => {
    setBusy(true)
    try {
      for (const { visit, plannedAt } of movedLast) {
        const now = visits.find(({ id }) => id === visit.id)
        if (now) await setTime(now, plannedAt === null ? null : new Date(plannedAt))
      }
      movedLast = []
      onMoved()
    } catch (error) {
      setProblem(failureWords(error, 'Not every time could be put back; look at the visits.'))
    } finally {
      setBusy(false)
    }
  }
  return (
    <Notice role="status" edge="plum" className="mt-3 flex flex-wrap items-center gap-3">
      <p className="grow">
        {movedLast.length === 1 ? 'One visit was moved' : `${movedLast.length} visits were moved`}; each stands in its
        logbook, and marked in the day of whoever has it.
      </p>
      <Button disabled={busy} onClick={() => void back()}>
        Put the times back
      </Button>
      {problem && (
        <p role="alert" className="basis-full font-bold">
          {problem}
        </p>
      )}
    </Notice>
  )
}

/** A stretch of minutes as people say it. */
const spanWords = (minutes: number) =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 30) / 2} h`
