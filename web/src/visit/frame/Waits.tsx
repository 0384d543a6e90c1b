import { addMinutes, format } from 'date-fns'
import { useEffect, useState } from 'react'
import { nextOf, type Agenda } from '@pasado/core/agenda/planned'
import type { Finding } from '@pasado/core/rules/finding'
import { blocks } from '@pasado/core/rules/weigh'
import type { Outcome } from '@pasado/core/rules/rule'
import { runningWaits } from '@pasado/core/work/units/ended-waits'
import type { Wait } from '@pasado/core/record/record'
import { equipmentOf } from '@pasado/core/record/equipment'
import { placeKey } from '../session/place'
import { Mark } from '../../ui/Mark'
import { useMayWrite } from '../session/facts'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { useWaitCalls } from './wait-calls'
import { Button } from '../../ui/Button'
import { figureWords } from './figure-words'

const two = (number: number) => String(number).padStart(2, '0')

/** Minutes and seconds, as a clock shows them. */
export function clock(ms: number): string {
  const seconds = Math.max(0, Math.ceil(ms / 1000))
  return `${Math.floor(seconds / 60)}:${two(seconds % 60)}`
}

/** The heaviest outcome among what is open. */
function heaviest(open: readonly Finding[]): Outcome {
  if (open.some(({ outcome }) => outcome === 'breaks')) return 'breaks'
  return open.length ? 'unproven' : 'holds'
}

/** How long a wait may take, beside how long it has taken. */
function lengthWords({ what, usualMin, mostMin }: Pick<Wait, 'what' | 'usualMin' | 'mostMin'>, goneMs: number): string {
  if (what.startsWith('pairing window'))
    return goneMs > mostMin * 60_000 ? 'too late: press both again' : `the second press within ${mostMin} min`
  if (goneMs > mostMin * 60_000) return `over its longest, ${mostMin} min`
  if (goneMs > usualMin * 60_000) return `over its usual ${usualMin} min: look; at most ${mostMin} min`
  return `usually ${usualMin} min, at most ${mostMin} min`
}

/** The foot: everything that runs by itself, with its time left, and what to do meanwhile; on a phone the way to the docket as well. */
export function Waits({
  found,
  onDocket,
  onPlan
}: {
  found: { agenda: Agenda; at: number } | null
  onDocket: () => void
  onPlan: () => void
}) {
  const record = useVisit((state) => state.record)
  const findings = useVisit((state) => state.findings)
  const mayWrite = useMayWrite()
  const running = runningWaits(record)
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (running.length === 0) return
    setNow(Date.now())
    const timer = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(timer)
  }, [running.length])
  useWaitCalls(running, now)
  const open = findings.filter(blocks)
  const next = found && nextOf(found.agenda)
  const mayAsk = running.length > 0 && typeof Notification !== 'undefined' && Notification.permission === 'default'
  return (
    <footer
      className="sticky bottom-0 z-10 lg:static"
      data-place={placeKey({ kind: 'answer', id: 'waits-ended', field: 'answer' })}
    >
      <div className="flex items-center gap-3 border-t border-rule bg-well px-4 py-2 lg:hidden">
        <Mark outcome={heaviest(open)} />
        <p className="grow font-bold">
          {open.length ? `${open.length} between here and sign-off` : 'Nothing in the way'}
        </p>
        {found && found.agenda.works.length > 0 && (
          <Button className="px-3" onClick={onPlan}>
            Plan
          </Button>
        )}
        <Button className="px-3" onClick={onDocket}>
          Docket
        </Button>
      </div>
      {found && found.agenda.works.length > 0 && (
        <div
          className="hidden items-center gap-4 border-t border-rule bg-well px-4 py-0.5 lg:flex"
          aria-label="Run plan"
          role="group"
        >
          <p className="min-w-0 grow truncate">
            {next ? (
              <>
                {running.length > 0 ? 'Meanwhile' : 'Next'}: <b>{next.name}</b>
              </>
            ) : (
              'Nothing for hands to do but wait.'
            )}
          </p>
          <p className="shrink-0 text-soft">
            {figureWords(found)}, nine of ten by{' '}
            {format(addMinutes(new Date(found.at), found.agenda.cautiousMin), 'HH:mm')}
          </p>
          <Button kind="quiet" className="shrink-0" onClick={onPlan}>
            Run plan
          </Button>
        </div>
      )}
      {running.length > 0 && (
        <ul aria-label="Waits" className="on-band flex gap-6 overflow-x-auto bg-band px-4 py-2 text-onband">
          {running.map((wait) => {
            const gone = Math.max(0, now - Date.parse(wait.at))
            const left = wait.mostMin * 60_000 - gone
            const share = Math.min(1, gone / (wait.mostMin * 60_000 || 1))
            const unit = equipmentOf(record, wait.unit ?? undefined)
            const closing = wait.what.startsWith('pairing window') && left > 0 && left < 30_000
            return (
              <li
                key={wait.id}
                className={`min-w-60 grow ${closing || left < 0 ? 'outline-3 outline-offset-4 outline-onband' : ''}`}
              >
                <p className="flex items-center gap-2">
                  <span className="grow truncate text-sm">
                    {closing ? 'Press now: ' : ''}
                    {wait.what}
                    {unit ? ` · ${unit.name}` : ''}
                  </span>
                  <b className="exact text-xl">{left < 0 ? `+${clock(-left)}` : clock(left)}</b>
                  {mayWrite && (
                    <button
                      type="button"
                      className="min-h-11 px-2 text-sm underline"
                      aria-label={`End the wait: ${wait.what}`}
                      onClick={() => write('wait.ended', { id: wait.id })}
                    >
                      End
                    </button>
                  )}
                </p>
                <span className="relative block h-1.5 bg-edge/60">
                  <span className="block h-full bg-onband" style={{ width: `${share * 100}%` }} />
                  <span
                    aria-hidden
                    className="absolute -top-0.5 h-2.5 w-0.5 bg-onband"
                    style={{ left: `${Math.min(1, wait.usualMin / (wait.mostMin || 1)) * 100}%` }}
                  />
                </span>
                <p className="text-xs text-softband">{lengthWords(wait, gone)}</p>
              </li>
            )
          })}
          {mayAsk && (
            <li className="self-center">
              <button
                type="button"
                className="min-h-11 px-2 text-sm underline"
                onClick={() => void Notification.requestPermission()}
              >
                Call me by a notification
              </button>
            </li>
          )}
        </ul>
      )}
    </footer>
  )
}
