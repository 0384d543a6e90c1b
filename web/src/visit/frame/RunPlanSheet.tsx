import { addMinutes, format } from 'date-fns'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Agenda } from '@pasado/core/agenda/planned'
import type { Work } from '@pasado/core/agenda/work'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'
import { Button } from '../../ui/Button'
import { Tick } from '../../ui/Tick'
import { figureWords } from './figure-words'
import { WhatIfForm } from './WhatIf'

/** What is left of the visit as a time line: hands on filled, waits open, what everything hangs on marked. */
export function RunPlanSheet({
  found,
  open,
  onClose
}: {
  found: { agenda: Agenda; at: number } | null
  open: boolean
  onClose: () => void
}) {
  const visit = useVisit((state) => state.id)
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Run plan"
      wide="most"
      description="Hands on is filled, a wait is open; the long waits come first. A line at the left marks what the end hangs on."
    >
      {found && found.agenda.works.length > 0 ? (
        <TimeLine agenda={found.agenda} at={found.at} visit={visit ?? ''} onGo={onClose} />
      ) : (
        <p>Nothing is left to do.</p>
      )}
    </Sheet>
  )
}

const minutes = (span: { least: number; usual: number; most: number }) =>
  span.least === span.most
    ? `${Math.round(span.usual)} min`
    : `${Math.round(span.usual)} min (${Math.round(span.least)} to ${Math.round(span.most)})`

/** Minutes from one tick of the time line to the next, for a plan of this length. */
function tickMin(endMin: number): number {
  if (endMin > 180) return 60
  return endMin > 60 ? 30 : 10
}

function TimeLine({ agenda, at, visit, onGo }: { agenda: Agenda; at: number; visit: string; onGo: () => void }) {
  const clock = (minute: number) => format(addMinutes(new Date(at), minute), 'HH:mm')
  const end = Math.max(agenda.cautiousMin, agenda.makespanMin, 1)
  const critical = new Set(agenda.criticalPath)
  const begins = ({ id }: Work) => agenda.start[id] ?? agenda.makespanMin
  const rows = [...agenda.works].sort((a, b) => begins(a) - begins(b) || Number(b.running) - Number(a.running))
  const [isTried, setTried] = useState(false)
  const [without, setWithout] = useState<readonly string[]>([])
  const leave = (id: string, isLeft: boolean) =>
    setWithout(isLeft ? [...without, id] : without.filter((other) => other !== id))
  const share = (minute: number) => `${(minute / end) * 100}%`
  const step = tickMin(end)
  const ticks = Array.from({ length: Math.floor(end / step) + 1 }, (_, tick) => tick * step)
  return (
    <div>
      <p>
        <b>{figureWords({ agenda, at })}</b>, nine times of ten by {clock(agenda.cautiousMin)}.
      </p>
      <Button kind="quiet" aria-expanded={isTried} onClick={() => setTried(!isTried)}>
        What if …
      </Button>
      {isTried && <WhatIfForm agenda={agenda} at={at} without={without} />}
      <div className="mt-3 hidden grid-cols-[26rem_minmax(0,1fr)] sm:grid">
        <span />
        <span className="relative block h-5">
          {ticks.map((tick) => (
            <span
              key={tick}
              className="fine absolute -translate-x-1/2 first:translate-x-0"
              style={{ left: share(tick) }}
            >
              {clock(tick)}
            </span>
          ))}
        </span>
      </div>
      <ol aria-label="Tasks in their order" className="border-y border-rule">
        {rows.map((task) => {
          const from = begins(task)
          const wait = task.wait?.usual ?? 0
          return (
            <li
              key={task.id}
              className={`grid items-center gap-x-2 border-b border-rule py-1 pl-2 last:border-b-0 sm:grid-cols-[25.5rem_minmax(0,1fr)] ${critical.has(task.id) ? 'border-l-[5px] border-l-plum' : 'border-l-[5px] border-l-transparent'}`}
            >
              <span className="flex min-w-0 items-center gap-1">
                {isTried && (
                  <Tick
                    checked={without.includes(task.id)}
                    disabled={task.running || task.id === 'signoff'}
                    onTick={(isLeft) => leave(task.id, isLeft)}
                  >
                    <span className="sr-only">Leave for a second visit: {task.name}</span>
                  </Tick>
                )}
                <Link
                  to={`/visit/${visit}/${task.stage}${task.unit ? `?unit=${task.unit}` : ''}`}
                  onClick={onGo}
                  className="block min-w-0 py-1"
                >
                  <b className="line-clamp-2 text-pretty">{task.name}</b>
                  <span className="fine block">
                    {clock(from)}: {says(task)}
                    {task.spoils.length > 0 && `; ${task.spoils.join(', ')} is worth nothing after it`}
                    {task.where && ` · ${task.where}`}
                    {task.atHand.length > 0 && ` · at hand: ${task.atHand.join('; ')}`}
                    {critical.has(task.id) ? <span className="sr-only"> · the end hangs on it</span> : null}
                  </span>
                </Link>
              </span>
              <span className="relative block h-5 bg-well" aria-hidden>
                {ticks.map((tick) => (
                  <span key={tick} className="absolute inset-y-0 w-px bg-rule" style={{ left: share(tick) }} />
                ))}
                <span
                  className="absolute inset-y-0 bg-ink"
                  style={{ left: share(from), width: share(task.handsOn.usual) }}
                />
                {wait > 0 && (
                  <span
                    className="absolute inset-y-0 border-2 border-ink"
                    style={{
                      left: share(from + task.handsOn.usual),
                      width: share(wait),
                      background: 'repeating-linear-gradient(135deg, transparent 0 4px, var(--rule) 4px 6px)'
                    }}
                  />
                )}
              </span>
            </li>
          )
        })}
      </ol>
      <p className="fine mt-2">
        Calculated: the order that ends soonest at the usual durations, {orderWords(agenda)}; likely and cautious end
        from 400 visits drawn between least and most. {pastWords(agenda.works)}
      </p>
    </div>
  )
}

/** How good the order is known to be. */
function orderWords({ offMin }: Agenda): string {
  const off = Math.round(offMin)
  return off === 0 ? 'proven' : `the best that was found: at most ${off} min longer than the best there is`
}

/** Where the durations of waits are from. */
function pastWords(works: readonly Work[]): string {
  const learned = works.filter(({ from }) => from === 'past visits')
  if (learned.length === 0) return 'Waits from the catalogue; past visits count from five on.'
  const counts = learned.map(({ past }) => past)
  const [least, most] = [Math.min(...counts), Math.max(...counts)]
  return `${learned.length === 1 ? 'One wait is' : `${learned.length} waits are`} as ${least === most ? least : `${least} to ${most}`} past visits took; the others from the catalogue.`
}

function says(task: Work): string {
  const parts: string[] = []
  if (task.running) parts.push(`runs, ${Math.round(task.wait?.usual ?? 0)} min left as usual`)
  else {
    parts.push(minutes(task.handsOn))
    if (task.wait) parts.push(`then waits ${minutes(task.wait)}`)
  }
  return parts.join(', ')
}
