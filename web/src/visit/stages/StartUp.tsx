import { format } from 'date-fns'
import { v7 as uuidv7 } from 'uuid'
import { methodNeeds, modelKey, type MethodNeed, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { Chips } from '../../ui/Chips'
import { ChoiceFact, SeveralFact } from '../FactField'
import { useMayWrite } from '../facts'
import { LampHistory, LampLog } from '../LampLog'
import { placeKey } from '../place'
import { useVisit, write } from '../store'
import { ByUnit } from '../UnitColumn'

/** Start up: each unit by its method, and what its lamps say. */
export function StartUp() {
  return (
    <ByUnit empty={<div className="max-w-xl"><h2 className="text-xl">Start up</h2><p className="mt-2">No unit yet: add them under Kit.</p></div>}>
      {(unit) => <UnitStart unit={unit} />}
    </ByUnit>
  )
}

function UnitStart({ unit }: { unit: Unit }) {
  const catalogue = useVisit((state) => state.catalogue)
  const model = catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
  if (!model) return <p>Choose its model under Kit first.</p>
  const method = model.methods.find(({ id }) => id === unit.facts.method)
  return (
    <div>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-xl">{unit.facts.name}{method ? ` by ${method.name}` : ''}</h2>
        <p className="text-soft">{model.maker} {model.name} · <span className="exact">{unit.facts.serial ?? 'no serial yet'}</span></p>
      </div>
      <div className="mt-3 grid gap-4">
        {model.lamps.length > 0 && <LampLog unit={unit} model={model} />}
        {model.methods.length > 0 && (
          <ChoiceFact kind="unit" id={unit.id} field="method" label="Setup method" options={model.methods.map((one) => ({ value: one.id, words: one.name }))} />
        )}
        {method && method.needs.length > 0 && <SeveralFact kind="unit" id={unit.id} field="needsReady" label="Ready for it" options={method.needs.map((need) => ({ value: need, words: methodNeeds[need as MethodNeed] }))} />}
        {method && <Steps model={model} unit={unit} method={method} />}
        <Events unit={unit} />
        {model.prompts.length > 0 && <Prompts unit={unit} model={model} />}
        <LampHistory unit={unit} model={model} />
      </div>
    </div>
  )
}

function Steps({ model, unit, method }: { model: Model; unit: Unit; method: Model['methods'][number] }) {
  const mayWrite = useMayWrite()
  return (
    <ol className="divide-y divide-rule border-y border-rule" aria-label="Steps">
      {method.steps.map((step, index) => {
        const expected = model.states.find(({ state }) => state === step.expect)
        return (
          <li key={index} className="grid grid-cols-[2rem_1fr_auto] items-start gap-x-2 py-2.5">
            <b className="text-soft">{index + 1}</b>
            <div>
              <p>{step.do}</p>
              {expected && <p className="fine">Then: <b>{expected.meaning}</b>{step.wait ? `, usually ${step.wait.usualMin} min, at most ${step.wait.mostMin} min` : ''}{step.ifNot ? `. If not: ${step.ifNot.toLowerCase()}.` : '.'}</p>}
            </div>
            {step.wait && mayWrite && <button type="button" className="btn" aria-label={`Start the wait of step ${index + 1}`} onClick={() => write('wait.started', { id: uuidv7(), what: (expected ? `until ${expected.meaning}` : step.do).slice(0, 80), unit: unit.id, usualMin: step.wait!.usualMin, mostMin: step.wait!.mostMin })}>Wait {step.wait.usualMin} min</button>}
          </li>
        )
      })}
    </ol>
  )
}

const eventWords = { powered: 'Switched on', restarted: 'Restarted', moved: 'Moved', updated: 'Updated', reset: 'Factory-reset', 'settings-changed': 'Settings changed' } as const

/** What was done to a unit that makes an earlier look at its lamps stale. */
function Events({ unit }: { unit: Unit }) {
  const mayWrite = useMayWrite()
  const last = unit.events.at(-1)
  return (
    <div role="group" aria-label="What happened to it">
      <p className="label">What happened to it {last && <span className="fine font-normal">last: {eventWords[last.what as keyof typeof eventWords].toLowerCase()}, {format(new Date(last.at), 'HH:mm')}</span>}</p>
      <div className="mt-1 flex flex-wrap gap-2">
        {(Object.keys(eventWords) as (keyof typeof eventWords)[]).map((what) => <button key={what} type="button" className="chip" disabled={!mayWrite} onClick={() => write('unit.event', { unit: unit.id, what })}>{eventWords[what]}</button>)}
      </div>
    </div>
  )
}

function Prompts({ unit, model }: { unit: Unit; model: Model }) {
  const mayWrite = useMayWrite()
  const open = model.prompts.filter(({ id }) => !unit.prompts[id])
  return (
    <section aria-label="Consent prompts">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h3>What the app asks: the customer’s to say, no unless told</h3>
        {open.length > 0 && mayWrite && <button type="button" className="btn" onClick={() => open.forEach(({ id }) => write('prompt.answered', { unit: unit.id, prompt: id, answer: 'no', by: 'customer' }))}>All no</button>}
      </div>
      <ul className="mt-1 divide-y divide-rule border-y border-rule">
        {model.prompts.map(({ id, text }) => (
          <li key={id} data-place={placeKey({ kind: 'prompt', id: unit.id, field: id })} className="flex flex-wrap items-center justify-between gap-2 py-2">
            <span className="grow basis-48">{text}</span>
            <Chips label={text} value={unit.prompts[id]?.answer} disabled={!mayWrite} options={[{ value: 'no', words: 'No' }, { value: 'yes', words: 'Yes' }]} onChoose={(answer) => write('prompt.answered', { unit: unit.id, prompt: id, answer, by: 'customer' })} />
          </li>
        ))}
      </ul>
    </section>
  )
}
