import { useState } from 'react'
import type { Model } from '@pasado/core/catalogue/model'
import { pressKind, pressLength, pressOf } from '@pasado/core/catalogue/presses'
import type { Unit } from '@pasado/core/record/record'
import { HeldButton } from '../../../ui/HeldButton'
import { useMayWrite } from '../../session/facts'
import { write } from '../../session/write'
import { Select } from '../../../ui/Field'

/** What holding a button so long does where no function is. */
const nothingWords = (seconds: number, leastS: number) =>
  seconds < leastS ? 'too short for anything' : 'between two functions: nothing'

/** Counts how long a button is held: hold the screen, or the space bar, as long as the button. */
export function PressLength({ unit, model }: { unit: Unit; model: Model }) {
  const mayWrite = useMayWrite()
  const [button, setButton] = useState(model.buttons[0]!.id)
  const chosen = model.buttons.find(({ id }) => id === button) ?? model.buttons[0]!
  const [held, setHeld] = useState<number | null>(null)
  const [last, setLast] = useState<number | null>(null)
  const record = (seconds: number) => {
    setLast(seconds)
    write('button.pressed', { unit: unit.id, button: chosen.id, seconds })
    const press = pressOf(chosen, seconds)
    const kind = press && pressKind(press)
    if (kind === 'reset') write('unit.event', { unit: unit.id, what: 'reset' })
    else if (kind === 'restart') write('unit.event', { unit: unit.id, what: 'restarted' })
  }
  const now = held ?? last
  const does = now === null ? undefined : pressOf(chosen, now)
  return (
    <section aria-label="Hold a button" className="flex flex-col gap-2">
      <h3>Hold a button</h3>
      <div className="flex flex-wrap items-stretch gap-3">
        {model.buttons.length > 1 && (
          <Select
            className="w-auto"
            aria-label="Which button"
            value={chosen.id}
            onChange={(event) => {
              setButton(event.target.value)
              setLast(null)
            }}
          >
            {model.buttons.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        )}
        <HeldButton disabled={!mayWrite} onBegin={() => setLast(null)} onCount={setHeld} onHeld={record}>
          Hold here with {chosen.name}
        </HeldButton>
        <p aria-live="polite" className="self-center">
          {now === null ? (
            <span className="fine">
              {chosen.presses.map((press) => `${pressLength(press)}: ${press.does}`).join('; ')}
            </span>
          ) : (
            <>
              {held === null && <b>{now.toFixed(1)} s: </b>}
              {does ? does.does : nothingWords(now, chosen.presses[0]?.leastS ?? 0)}
            </>
          )}
        </p>
      </div>
    </section>
  )
}
