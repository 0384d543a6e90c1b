import { useState } from 'react'
import { undecided } from '@pasado/core/work/diagnose/next-step'
import { type CauseId } from '@pasado/core/work/diagnose/causes'
import { observationOf, type Observation } from '@pasado/core/work/diagnose/observations'
import { signsOf } from '@pasado/core/work/diagnose/signs'
import { effects } from '@pasado/core/work/diagnose/effects'
import type { SearchNow } from './use-search'
import { useMayWrite } from '../../session/facts'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'

/** A share in percent; never 100 %, never 0 %: no cause is said to be sure or impossible. */
export function percent(share: number): string {
  if (share < 0.01) return 'under 1 %'
  return `${Math.min(99, Math.round(share * 100))} %`
}

/** The answer of an observation, in words. */
export const wordsOf = (observation: Observation, answer: string) =>
  observation.answers.find(({ id }) => id === answer)?.label ?? answer

/** How an answer speaks for a cause, from its bits: three make it eight times as likely against the others, one twice. */
function weightWords(bits: number): string {
  const side = bits >= 0 ? 'For it' : 'Against it'
  const weight = Math.abs(bits)
  if (weight >= 3) return `${side}, strongly`
  return weight >= 1 ? side : `${side}, a little`
}

/** What was seen so far, and what is known without a look; each can be taken back or answered anew. */
export function WhatWasSeen({
  now: { observed, answered, known },
  onTakeBack,
  onAnew
}: {
  now: SearchNow
  onTakeBack: (observation: string) => void
  onAnew: (observation: string) => void
}) {
  const mayWrite = useMayWrite()
  return (
    <section aria-label="What was seen">
      <h3>What was seen</h3>
      <List framed className="mt-1 text-sm">
        {Object.entries(observed).map(([id, answer]) => {
          const observation = observationOf(id)
          return (
            observation &&
            answer !== undefined && (
              <li key={id} className="flex flex-wrap items-baseline gap-x-2 py-1.5">
                <span className="grow">
                  {observation.asks} <b>{wordsOf(observation, answer)}</b>
                  {answered[id] === undefined && <span className="fine"> {known[id]?.from}</span>}
                </span>
                {mayWrite &&
                  (answered[id] !== undefined ? (
                    <button
                      type="button"
                      className="underline"
                      aria-label={`Take back: ${observation.asks}`}
                      onClick={() => onTakeBack(id)}
                    >
                      take back
                    </button>
                  ) : (
                    <button
                      type="button"
                      className="underline"
                      aria-label={`Answer anew: ${observation.asks}`}
                      onClick={() => onAnew(id)}
                    >
                      answer anew
                    </button>
                  ))}
              </li>
            )
          )
        })}
      </List>
    </section>
  )
}

/** Of so many looks that a cause would show itself by the rest is left out. */
const MOST_SIGNS = 5

/** What a cause would show, what of it was seen, and what does not fit. */
function IfItWereSo({ cause, now: { observed, offered } }: { cause: CauseId; now: SearchNow }) {
  const { would, misfits } = signsOf(cause, observed, offered)
  const told = new Set(would.map(({ observation }) => observation.id))
  const others = misfits.filter(({ observation }) => !told.has(observation.id))
  if (would.length + others.length === 0) return null
  return (
    <>
      <h4 className="mt-2 font-bold">If it were so</h4>
      <ul>
        {[...would.slice(0, MOST_SIGNS), ...others].map(({ observation, wanted, seen }) => (
          <li key={observation.id}>
            {observation.asks} <b>{wordsOf(observation, wanted)}</b>
            {seen === undefined && '; not looked at yet'}
            {seen === wanted && '; seen'}
            {seen !== undefined && seen !== wanted && (
              <>
                , but seen was <b>{wordsOf(observation, seen)}</b>
              </>
            )}
            .
          </li>
        ))}
      </ul>
    </>
  )
}

/** What it may be, likeliest first; why, at a press. */
export function Causes({ now, onHandOver }: { now: SearchNow; onHandOver: () => void }) {
  const { suspects, observed, offered } = now
  const mayWrite = useMayWrite()
  const [why, setWhy] = useState<CauseId | null>(null)
  return (
    <section aria-label="Causes" className="paper p-4">
      <h3>What it may be</h3>
      <ol className="mt-2 flex flex-col gap-1.5">
        {suspects
          .filter(({ probability }, at) => at < 8 && (probability > 0.002 || at < 3))
          .map(({ cause, probability, because }) => (
            <li key={cause.id}>
              <button
                type="button"
                className="block w-full text-left"
                aria-expanded={why === cause.id}
                onClick={() => setWhy(why === cause.id ? null : cause.id)}
              >
                <span className="flex items-baseline justify-between gap-3">
                  <span>
                    <b>{cause.name}</b>
                    {undecided(cause.id, observed, offered) && <span className="fine"> not looked at yet</span>}
                  </span>
                  <span className="exact whitespace-nowrap">{percent(probability)}</span>
                </span>
                <span className="block h-2.5 border border-edge bg-well" aria-hidden>
                  <span className="block h-full bg-ink" style={{ width: `${Math.max(0.5, probability * 100)}%` }} />
                </span>
              </button>
              {why === cause.id && (
                <div className="mt-1 border-l-4 border-plum pl-3 text-sm">
                  <p>{effects[cause.id].why}</p>
                  <ul className="mt-1">
                    {because.slice(0, 3).map(({ observation, answer, bits }) => (
                      <li key={observation.id}>
                        <b>{weightWords(bits)}</b>: {observation.asks} {wordsOf(observation, answer)}.
                      </li>
                    ))}
                  </ul>
                  <IfItWereSo cause={cause.id} now={now} />
                  <p className="fine mt-1">
                    Of a hundred faults about {cause.baseRate} are this one. Mending takes about {cause.remedyMin} min.
                  </p>
                </div>
              )}
            </li>
          ))}
      </ol>
      <p className="fine mt-3">
        From our own estimates of how often each is the cause and shows so; two can be there at once. Press a cause for
        what moved it, and what it would show.
      </p>
      {mayWrite && (
        <p className="mt-3 flex flex-wrap gap-2">
          <Button kind="quiet" onClick={() => onHandOver()}>
            Hand it over as it is
          </Button>
          <Button kind="quiet" onClick={() => now.end(suspects[0]!.cause.id, 'left')}>
            Leave it
          </Button>
        </p>
      )}
    </section>
  )
}
