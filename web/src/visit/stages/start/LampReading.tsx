import { modelOf, type Model, type ModelState } from '@pasado/core/catalogue/model'
import { format } from 'date-fns'
import { lookWords, sightingWords, type LampLook } from '@pasado/core/catalogue/look'
import { nearestStates } from '@pasado/core/catalogue/nearest'
import type { readLamps } from '@pasado/core/work/units/unit-lamps'
import { useVisit } from '../../session/visit-state'

export function Reading({
  reading,
  model,
  looks,
  onMean,
  since = false,
  elsewhere
}: {
  reading: ReturnType<typeof readLamps>
  model: Model
  looks: readonly LampLook[]
  onMean?: (state: ModelState) => void
  since?: boolean
  elsewhere?: React.ReactNode
}) {
  if (reading.lastImpossible) {
    const near = nearestStates(model, looks)
    const isFirst =
      reading.impossible === 1 &&
      reading.candidates.length === 1 &&
      reading.candidates[0]!.state === model.start &&
      !since
    return (
      <div>
        <p>
          <b>No state of this model explains that</b>
          {isFirst ? '' : ' after what came before'}.{' '}
          {near.length === 0 &&
            (isFirst
              ? 'Look again, in better light.'
              : 'Look again; if it was switched off or restarted in between, say so below.')}
        </p>
        {near.length > 0 && (
          <ul>
            {near.map((state) => (
              <li key={state.state}>
                Do you mean{' '}
                <b>
                  {sightingWords(
                    state.lamps.filter(({ lamp }) => looks.some((look) => look.lamp === lamp)),
                    model.lamps.length > 1
                  )}
                </b>
                : {state.meaning}?{' '}
                {onMean && (
                  <button type="button" className="min-h-11 px-2 underline" onClick={() => onMean(state)}>
                    Yes, that
                  </button>
                )}
              </li>
            ))}
          </ul>
        )}
      </div>
    )
  }
  if (!reading.state) {
    return (
      <p>
        <b>It may be {reading.candidates.map(({ meaning }) => meaning).join(', or ')}.</b>{' '}
        {deciding(reading.candidates, model)}
      </p>
    )
  }
  const { state } = reading
  return (
    <p>
      <b>{capital(state.meaning)}.</b> {state.action}.
      {state.usualMin !== undefined && <> Usually {state.usualMin} min.</>}
      {state.maxMin !== undefined && <> At most {state.maxMin} min.</>}
      {since && reading.since && <> Since {format(new Date(reading.since), 'HH:mm')}.</>}
      {reading.overdue && <b> It has lasted too long.</b>} {elsewhere}
    </p>
  )
}

/** Which further look would tell the candidates apart. */
function deciding(candidates: ModelState[], model: Model): string {
  const lamp = model.lamps.find(({ id }) => {
    const looks = candidates
      .map((state) => state.lamps.find((look) => look.lamp === id))
      .map((look) => (look ? lookWords(look) : null))
    return looks.every(Boolean) && new Set(looks).size > 1
  })
  return lamp ? `Look at ${lamp.name} as well: that decides.` : 'Wait and look again: what comes next decides.'
}

/** The same look on another model of this home, where it means something else. */
export function SameLook({
  looks,
  unit,
  meaning
}: {
  looks: LampLook[]
  unit: { facts: { model?: string } }
  meaning: string
}) {
  const units = useVisit((state) => state.record.units)
  const catalogue = useVisit((state) => state.catalogue)
  const look = looks[0]!
  for (const other of Object.values(units)) {
    const model = modelOf(other, catalogue)
    if (!model || model.id === unit.facts.model || other.removedSeq !== null || model.lamps.length > 1) continue
    const same = model.states.find(
      (state) => state.lamps.length === 1 && lookWords(state.lamps[0]!) === lookWords(look) && look.pattern !== 'off'
    )
    if (same && same.meaning !== meaning)
      return (
        <>
          On {other.facts.name} the same look means <b>{same.meaning}</b>.
        </>
      )
  }
  return null
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1)
