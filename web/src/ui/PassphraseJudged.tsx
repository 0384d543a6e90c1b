import { guessTimes } from '@pasado/core/secrets/guessing'
import { judgeHandling } from '@pasado/core/secrets/handling'
import type { Strength } from '@pasado/core/secrets/strength'

export const scoreWords = ['guessed at once', 'guessed soon', 'weak', 'strong', 'very strong'] as const

/** A passphrase judged: how strong, why not, how long to guess, how it is said and typed. */
export function PassphraseJudged({ value, strength }: { value: string; strength: Strength }) {
  const handling = judgeHandling(value)
  return (
    <div className="text-sm">
      <p>
        <b>
          {scoreWords[strength.score]}: {strength.score} of 4
        </b>
        , about {Math.round(strength.bits)} bits. {strength.warning}
      </p>
      <dl className="mt-1 grid grid-cols-[minmax(0,1fr)_auto] gap-x-4">
        {guessTimes(strength.bits).map(({ id, label, duration }) => (
          <div key={id} className="contents">
            <dt className="text-soft">{label}</dt>
            <dd className="text-right font-bold">{duration}</dd>
          </div>
        ))}
        <dt className="text-soft">typed on a television with its remote control</dt>
        <dd className="text-right font-bold">{handling.remotePresses} presses</dd>
      </dl>
      <p className="mt-1">
        {handling.reasons.length === 0
          ? 'Easy to read aloud.'
          : `${handling.reasons.join('; ').replace(/^./, (first) => first.toUpperCase())}.`}
      </p>
    </div>
  )
}
