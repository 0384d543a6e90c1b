import { useState } from 'react'
import { Link } from 'react-router'
import { clock, type PlannedStop, type Stop, type Window } from '@pasado/core/work/day/day-plan'
import { CallNext } from './CallNext'
import { MinutesField } from './MinutesField'
import { useDayPlan, type DayPlanned } from './use-day-plan'
import type { ListedVisit } from '@pasado/core/api/day'
import { Problem } from '../ui/Problem'
import { PutBack, Suggestion } from './BetterOrder'
import { Field, Input } from '../ui/Field'
import { List } from '../ui/List'

const LEAVE = 'pasado-leave'
const minutesOf = (time: string) => {
  const [hours = '0', minutes = '0'] = time.split(':')
  return Number(hours) * 60 + Number(minutes)
}

/** The way through a day: from home to home, how long each is likely to take, ferries, what cannot be, and a better order. */
export function DayWay({
  visits,
  day,
  mayMove,
  onMoved
}: {
  visits: readonly ListedVisit[]
  day: Date
  mayMove: boolean
  onMoved: () => void
}) {
  const [leave, setLeave] = useState(() => localStorage.getItem(LEAVE) ?? '08:00')
  const { planned, problem, setTravel } = useDayPlan(visits, day, minutesOf(leave))
  if (visits.length === 0) return null
  const of = new Map(visits.map((visit) => [visit.id, visit]))
  return (
    <section aria-label="The way through the day" className="paper mt-2 p-4">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <Field label="Set out at" className="flex flex-col">
          <Input
            type="time"
            className="w-32"
            value={leave}
            onChange={(event) => {
              if (!event.target.value) return
              setLeave(event.target.value)
              localStorage.setItem(LEAVE, event.target.value)
            }}
          />
        </Field>
        {planned && (
          <p className="text-soft">
            Back <b className="exact text-ink">{clock(planned.plan.endMin)}</b>, {Math.round(planned.plan.travelMin)}{' '}
            min on the way
            {planned.plan.unknownWays > 0
              ? `, without ${planned.plan.unknownWays === 1 ? 'one way that' : `${planned.plan.unknownWays} ways that`} nobody typed: not before that`
              : ''}
            .{' '}
            <Link className="underline" to="/day/ways">
              Ways and ferries
            </Link>
          </p>
        )}
      </div>
      <Problem message={problem} className="mt-2" />
      {!planned && !problem && (
        <p className="mt-2 text-soft" role="status">
          Planning the day …
        </p>
      )}
      {planned?.call && (
        <CallNext call={planned.call} visit={of.get(planned.call.id)!} phone={planned.phones.get(planned.call.id)} />
      )}
      {planned && !planned.plan.possible && (
        <p className="mt-3 border-l-4 border-ink pl-2 font-bold">
          {planned.doable
            ? 'As it is planned, this day cannot be done.'
            : 'In no order can this day be done: a visit has to move to another day, or begin earlier.'}
        </p>
      )}
      {planned && <Stops planned={planned} of={of} leaveMin={minutesOf(leave)} setTravel={setTravel} />}
      {planned && planned.load.length > 0 && (
        <p className="mt-3">
          <b>Into the van:</b>{' '}
          {[...new Set(planned.load)]
            .map((piece) => {
              const count = planned.load.filter((other) => other === piece).length
              return count > 1 ? `${count} × ${piece}` : piece
            })
            .join('; ')}
          .
        </p>
      )}
      {planned && planned.atHand.length > 0 && (
        <p className="mt-1">
          <b>To have at hand:</b> {planned.atHand.join('; ')}.
        </p>
      )}
      <PutBack visits={visits} onMoved={onMoved} />
      {planned?.suggestion && <Suggestion planned={planned} of={of} day={day} mayMove={mayMove} onMoved={onMoved} />}
    </section>
  )
}

interface StopsProps {
  planned: DayPlanned
  of: Map<string, ListedVisit>
  leaveMin: number
  setTravel: (from: Stop | null, to: Stop | null, minutes: number | null) => Promise<void>
}

function Stops({ planned: { stops, plan, ways }, of, leaveMin, setTravel }: StopsProps) {
  const first = Math.floor(Math.min(leaveMin, ...plan.stops.map(({ startMin }) => startMin)) / 60) * 60
  const last = Math.ceil(Math.max(...plan.stops.map(({ cautiousEndMin }) => cautiousEndMin), plan.endMin) / 60) * 60
  const scale = { first, last }
  return (
    <List as="ol" framed className="mt-3">
      {plan.stops.map((stop, at) => {
        const visit = of.get(stop.id)!
        const before = at === 0 ? null : stops[at - 1]!
        return (
          <li
            key={stop.id}
            className="grid grid-cols-[4.6rem_minmax(0,1fr)] gap-x-4 gap-y-1 py-2 md:grid-cols-[4.6rem_minmax(0,17rem)_minmax(0,1fr)]"
          >
            <b className="exact text-xl">{clock(stop.startMin)}</b>
            <span className="min-w-0">
              <b className="block truncate">{visit.street}</b>
              <span className="fine block">
                {visit.town} · until {clock(stop.endMin)}, or {clock(stop.cautiousEndMin)}
              </span>
              <span className="mt-1 flex flex-wrap items-center gap-2 text-sm">
                <MinutesField
                  key={String(stop.travelMin)}
                  narrow
                  label={`Minutes from ${before ? of.get(before.id)!.street : 'the depot'} to ${visit.street}`}
                  minutes={stop.travelMin}
                  onSet={(minutes) => void setTravel(before, stops[at]!, minutes)}
                />
                <span className="text-soft">
                  min from {before ? of.get(before.id)!.street : 'the depot'}
                  {stop.travelMin === null ? ': not known yet' : ''}
                </span>
              </span>
            </span>
            <span className="col-span-2 min-w-0 md:col-span-1">
              <Track stop={stop} scale={scale} windows={ways.windows(visit.town)} />
              {stop.problems.map(({ kind, message }) => (
                <span
                  key={kind}
                  className={`mt-1 block text-sm ${kind === 'perhaps-late' || kind === 'stranded' ? '' : 'border-l-4 border-ink pl-2 font-bold'}`}
                >
                  {message}
                </span>
              ))}
            </span>
          </li>
        )
      })}
    </List>
  )
}

/** A stop on the line of the day: the way there, the likely work, what it takes if it takes long, and when the home can be reached. */
function Track({
  stop,
  scale: { first, last },
  windows
}: {
  stop: PlannedStop
  scale: { first: number; last: number }
  windows: readonly Window[]
}) {
  const x = (minute: number) => `${(100 * (Math.min(last, Math.max(first, minute)) - first)) / (last - first)}%`
  const part = (from: number, to: number) => ({ left: x(from), width: `calc(${x(to)} - ${x(from)})` })
  const hours = Array.from({ length: Math.floor((last - first) / 60) + 1 }, (_, at) => first + at * 60)
  const step = hours.length > 9 ? 2 : 1
  const says = `On the way from ${clock(stop.arriveMin - (stop.travelMin ?? 0))}, work ${clock(stop.startMin)} to ${clock(stop.endMin)}, at most ${clock(stop.cautiousEndMin)}${windows.length ? `, reached ${windows.map(({ fromMin, toMin }) => `${clock(fromMin)} to ${clock(toMin)}`).join(' and ')}` : ''}`
  return (
    <span role="img" aria-label={says} className="relative block h-9">
      <span className="absolute inset-x-0 top-0 h-6 bg-well" />
      {windows.length > 0 && (
        <span
          className="absolute inset-x-0 top-0 h-6"
          style={{ background: 'repeating-linear-gradient(135deg, var(--rule) 0 2px, transparent 2px 6px)' }}
        />
      )}
      {windows.map((window) => (
        <span
          key={window.fromMin}
          className="absolute top-0 h-6 border-x-2 border-edge bg-sheet"
          style={part(window.fromMin, window.toMin)}
        />
      ))}
      {stop.travelMin !== null && (
        <span
          className="absolute top-[0.66rem] h-0.5 bg-ink"
          style={part(stop.arriveMin - stop.travelMin, stop.arriveMin)}
        />
      )}
      <span
        className="absolute top-1 h-4 border-2 border-ink"
        style={{
          ...part(stop.startMin, stop.cautiousEndMin),
          background: 'repeating-linear-gradient(135deg, var(--edge) 0 1px, transparent 1px 5px)'
        }}
      />
      <span className="absolute top-1 h-4 bg-ink" style={part(stop.startMin, stop.endMin)} />
      {hours.map(
        (hour, at) =>
          at % step === 0 && (
            <span
              key={hour}
              className="exact absolute top-6 -translate-x-1/2 text-xs text-soft first:translate-x-0"
              style={{ left: x(hour) }}
            >
              {at === 0 || at + step >= hours.length ? '' : Math.floor(hour / 60) % 24}
            </span>
          )
      )}
    </span>
  )
}
