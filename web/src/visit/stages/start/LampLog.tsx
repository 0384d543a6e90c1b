import { type Model, type ModelState } from '@pasado/core/catalogue/model'
import { useRef, useState } from 'react'
import {
  lampColours,
  lampPatterns,
  type LampColour,
  type LampLook,
  type LampPattern
} from '@pasado/core/catalogue/look'
import { v7 as uuidv7 } from 'uuid'
import { movedBy } from '@pasado/core/work/units/look-moves'
import { readLamps, type Lit } from '@pasado/core/work/units/unit-lamps'
import { Chips } from '../../../ui/Chips'
import { Lens } from '../../../ui/Lens'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import type { Look } from '../../../outbox/outbox'
import { takeLook } from '../../session/record-now'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Reading, SameLook } from './LampReading'

const patternWords: Record<LampPattern, string> = {
  off: 'dark',
  solid: 'steady',
  blink: 'blinks',
  'fast-blink': 'blinks fast',
  pulse: 'slow pulse',
  alternate: 'two colours in turn'
}

interface Choice {
  colour?: LampColour
  second?: LampColour
  pattern?: LampPattern
}

/** A look as chosen so far; null while something is missing. */
function lookOf(lamp: string, { colour, second, pattern }: Choice): LampLook | null {
  if (colour === undefined) return null
  if (colour === 'off') return { lamp, colour: 'off', pattern: 'off' }
  if (pattern === undefined) return null
  if (pattern === 'alternate')
    return second && second !== colour ? { lamp, colour: `${colour}/${second}`, pattern } : null
  return { lamp, colour, pattern }
}

/** Colours of a lamp by the model's table first, so that the likely ones are at hand. */
function coloursFor(model: Model, lamp: string): LampColour[] {
  const known = new Set(
    model.states.flatMap((state) =>
      state.lamps.filter((look) => look.lamp === lamp).flatMap((look) => look.colour.split('/'))
    )
  )
  return [
    ...lampColours.filter((colour) => colour !== 'off' && known.has(colour)),
    ...lampColours.filter((colour) => colour !== 'off' && !known.has(colour)),
    'off'
  ]
}

/** Logging what the lamps of a unit, or of something that stays, do: two taps, read through its model's table before it is written. */
export function LampLog({ unit, model }: { unit: Lit & { id: string; facts: { model?: string } }; model: Model }) {
  const mayWrite = useMayWrite()
  const me = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const [choices, setChoices] = useState<Record<string, Choice>>({})
  const [lamp, setLamp] = useState(model.lamps[0]!.id)
  const choice = choices[lamp] ?? {}
  // The look is taken with the first tap: what happens to the unit while the rest is chosen comes after it.
  const look = useRef<Look | null>(null)
  const choose = (more: Choice) => {
    look.current ??= takeLook()
    setChoices({ ...choices, [lamp]: { ...choice, ...more } })
  }
  const looks = model.lamps.flatMap(({ id }) => lookOf(id, choices[id] ?? {}) ?? [])
  const seen = looks.length
    ? readLamps(
        {
          events: unit.events,
          sightings: [
            ...unit.sightings,
            {
              seq: me.lastSeq + 1,
              at: new Date().toISOString(),
              by: { id: '', name: '', role: 'technician' },
              lamps: looks
            }
          ]
        },
        model
      )
    : null
  const now = unit.sightings.length ? readLamps(unit, model) : null
  // Another look that is easily taken for it: chosen in place of what was chosen, still to be logged.
  const mean = (state: ModelState) =>
    setChoices({
      ...choices,
      ...Object.fromEntries(
        looks.flatMap(({ lamp: id }) => {
          const look = state.lamps.find((candidate) => candidate.lamp === id)
          return look
            ? [[id, { colour: look.colour as LampColour, ...(look.colour === 'off' ? {} : { pattern: look.pattern }) }]]
            : []
        })
      )
    })
  const log = () => {
    const { ended, begins } = movedBy(me, catalogue, unit.id, looks, new Date().toISOString())
    write('lamp.seen', { unit: unit.id, lamps: looks }, look.current ? { look: look.current } : {})
    for (const id of ended) write('wait.ended', { id })
    if (begins) write('wait.started', { id: uuidv7(), unit: unit.id, ...begins })
    look.current = null
    setChoices({})
  }
  const isSomething = now !== null && now.candidates.length > 0
  return (
    <section aria-label="Lamps" data-place={placeKey({ kind: 'lamp', id: unit.id, field: 'lamp' })}>
      <div data-place="lamp.now.log">
        <div className="flex flex-wrap items-baseline justify-between gap-2">
          <h3>
            What does {model.lamps.length > 1 ? 'each lamp' : 'the lamp'} do now?{' '}
            <span className="key hidden lg:inline">l</span>
          </h3>
        </div>
        {model.lamps.length > 1 && (
          <div className="mt-2">
            <Chips
              label="Which lamp"
              value={lamp}
              onChoose={setLamp}
              options={model.lamps.map(({ id, name }) => {
                const look = lookOf(id, choices[id] ?? {})
                return {
                  value: id,
                  name,
                  label: (
                    <>
                      {look && <Lens colour={look.colour} pattern={look.pattern} size={22} />}
                      {name}
                    </>
                  )
                }
              })}
            />
          </div>
        )}
        <div className="mt-2">
          <Chips
            label="Colour"
            value={choice.colour}
            disabled={!mayWrite}
            onChoose={(colour) => choose({ colour })}
            options={coloursFor(model, lamp).map((colour) => ({
              value: colour,
              name: colour === 'off' ? 'dark' : colour,
              label: (
                <>
                  <Lens colour={colour} pattern={colour === 'off' ? 'off' : 'solid'} size={22} />
                  {colour === 'off' ? 'dark' : colour}
                </>
              )
            }))}
          />
        </div>
        {choice.colour !== undefined && choice.colour !== 'off' && (
          <div className="mt-2">
            <Chips
              label="Pattern"
              value={choice.pattern}
              disabled={!mayWrite}
              onChoose={(pattern) => choose({ pattern })}
              options={lampPatterns
                .filter((pattern) => pattern !== 'off')
                .map((pattern) => ({ value: pattern, label: patternWords[pattern] }))}
            />
          </div>
        )}
        {choice.pattern === 'alternate' && (
          <div className="mt-2">
            <Chips
              label="Second colour"
              value={choice.second}
              onChoose={(second) => choose({ second })}
              options={coloursFor(model, lamp)
                .filter((colour) => colour !== 'off' && colour !== choice.colour)
                .map((colour) => ({
                  value: colour,
                  name: `and ${colour}`,
                  label: (
                    <>
                      <Lens colour={colour} pattern="solid" size={22} />
                      and {colour}
                    </>
                  )
                }))}
            />
          </div>
        )}
      </div>
      <div
        className="mt-3 grid grid-cols-[1fr_auto] items-center gap-3 border border-rule bg-well p-3"
        aria-live="polite"
      >
        <div>
          {seen && (
            <Reading
              reading={seen}
              model={model}
              looks={looks}
              onMean={mean}
              elsewhere={<SameLook looks={looks} unit={unit} meaning={seen.state?.meaning ?? ''} />}
            />
          )}
          {!seen && isSomething && <Reading reading={now} model={model} looks={unit.sightings.at(-1)!.lamps} since />}
          {!seen && !isSomething && (
            <p className="text-soft">
              {now ? 'Nothing seen since it began anew.' : 'Nothing seen yet.'} Choose a colour and what it does.
            </p>
          )}
        </div>
        <Button kind="main" disabled={!mayWrite || looks.length === 0} onClick={log}>
          Log it
        </Button>
      </div>
    </section>
  )
}
