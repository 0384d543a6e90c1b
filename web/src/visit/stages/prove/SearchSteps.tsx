import type { Likely } from '@pasado/core/work/diagnose/belief'
import type { NextStep } from '@pasado/core/work/diagnose/next-step'
import { mendedId, type Observation } from '@pasado/core/work/diagnose/observations'
import { effects } from '@pasado/core/work/diagnose/effects'
import { percent } from './SearchKnown'
import type { SearchNow } from './use-search'
import { useMayWrite } from '../../session/facts'
import { Button } from '../../../ui/Button'

/** What to look at next: the question, and its answers to press. */
export function NextLook({
  shown,
  isProposed,
  onTell,
  onHouse,
  onNotNow
}: {
  shown: Observation
  /** True where it is the look that tells the most for its time. */ isProposed: boolean
  onTell: (answer: string) => void
  /** Where there is a simulated house that can be looked at. */ onHouse: (() => void) | undefined
  /** Where it was asked for in place of the one that is proposed. */ onNotNow: (() => void) | undefined
}) {
  const mayWrite = useMayWrite()
  return (
    <div role="group" aria-label="Look at this next" className="mt-1">
      <h3 className="text-xl">{shown.asks}</h3>
      <p className="fine">
        About {shown.minutes} min
        {isProposed ? '; it tells the most for its time' : ''}.
      </p>
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          {shown.answers.map(({ id, label }) => (
            <Button key={id} onClick={() => onTell(id)}>
              {label}
            </Button>
          ))}
          {onHouse && (
            <Button kind="quiet" onClick={onHouse}>
              Look in the house
            </Button>
          )}
          {onNotNow && (
            <Button kind="quiet" onClick={onNotNow}>
              Not now
            </Button>
          )}
        </div>
      )}
    </div>
  )
}

/** What to mend next, with what it costs. */
export function MendThis({ suspect, now, onHandOver }: { suspect: Likely; now: SearchNow; onHandOver: () => void }) {
  const mayWrite = useMayWrite()
  return (
    <div role="group" aria-label="Mend this" className="mt-1">
      <h3 className="text-xl">
        {suspect.cause.name}{' '}
        <span className="text-base font-normal whitespace-nowrap">{percent(suspect.probability)}</span>
      </h3>
      <p className="mt-1">{suspect.cause.remedy}</p>
      <p className="fine">
        About {suspect.cause.remedyMin} min. {effects[suspect.cause.id].why}
      </p>
      {mayWrite && suspect.cause.id === 'something-else' && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button kind="main" onClick={onHandOver}>
            Hand it over
          </Button>
          <Button onClick={() => now.tell(mendedId(suspect.cause.id), 'not')}>Nobody knew: look on</Button>
        </div>
      )}
      {mayWrite && suspect.cause.id !== 'something-else' && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button
            kind="main"
            onClick={() => {
              now.tell(mendedId(suspect.cause.id), 'helped')
              now.end(suspect.cause.id, 'mended')
            }}
          >
            Mended: it works now
          </Button>
          <Button onClick={() => now.tell(mendedId(suspect.cause.id), 'partly')}>
            It helped, but something is still wrong
          </Button>
          <Button onClick={() => now.tell(mendedId(suspect.cause.id), 'not')}>It did not help</Button>
          {suspect.cause.handOver && <Button onClick={onHandOver}>Hand over to the {suspect.cause.handOver}</Button>}
        </div>
      )}
    </div>
  )
}

/** It works after a look that was a mend as well. */
export function WorksNow({ step, now }: { step: Extract<NextStep, { do: 'done' }>; now: SearchNow }) {
  const mayWrite = useMayWrite()
  return (
    <div role="group" aria-label="It works now" className="mt-1">
      <h3 className="text-xl">It works now.</h3>
      <p className="mt-1">
        {step.by.asks.split('?')[0]!.split(':')[0]}: that made it work, most likely because{' '}
        {step.suspect.cause.name[0]!.toLowerCase()}
        {step.suspect.cause.name.slice(1)}.
      </p>
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button kind="main" onClick={() => now.end(step.suspect.cause.id, 'mended')}>
            Mended: close the search
          </Button>
          <Button onClick={() => now.tell(step.by.id, null)}>It does not after all</Button>
        </div>
      )}
    </div>
  )
}
