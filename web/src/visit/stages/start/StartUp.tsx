import { format } from 'date-fns'
import { methodsFor } from '@pasado/core/work/units/good-look'
import { methodNeeds, modelOf, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { Chips } from '../../../ui/Chips'
import { ChoiceFact, SeveralFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { LampHistory } from './LampHistory'
import { LampLog } from './LampLog'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { MethodSteps } from './Method'
import { PressLength } from './PressLength'
import { ReadUnit } from './ReadUnit'
import { AnsweredOnce } from '../../frame/AnsweredOnce'
import { ByUnit } from '../../frame/UnitColumn'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'

/** Start up: each unit by its method, and what its lamps say. */
export function StartUp() {
  return (
    <ByUnit
      empty={
        <div className="max-w-xl">
          <h2 className="text-xl">Start up</h2>
          <p className="mt-2">No unit yet: add them under Kit.</p>
        </div>
      }
    >
      {(unit) => <UnitStart unit={unit} />}
    </ByUnit>
  )
}

function UnitStart({ unit }: { unit: Unit }) {
  const catalogue = useVisit((state) => state.catalogue)
  const model = modelOf(unit, catalogue)
  if (!model) return <p>Choose its model under Kit first.</p>
  const method = model.methods.find(({ id }) => id === unit.facts.method)
  return (
    <div>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-xl">
          {unit.facts.name}
          {method ? ` by ${method.name}` : ''}
        </h2>
        <p className="text-soft">
          {model.maker} {model.name} · <span className="exact">{unit.facts.serial ?? 'no serial yet'}</span>
        </p>
      </div>
      <div className="mt-3 grid gap-4">
        {model.lamps.length > 0 && <LampLog unit={unit} model={model} />}
        {model.methods.length > 0 && (
          <ChoiceFact
            kind="unit"
            id={unit.id}
            field="method"
            label="Setup method"
            options={methodsFor(model, unit).map((method) => ({ value: method.id, label: method.name }))}
          />
        )}
        {method && method.needs.length > 0 && (
          <SeveralFact
            kind="unit"
            id={unit.id}
            field="needsReady"
            label="Ready for it"
            options={method.needs.map((need) => ({ value: need, label: methodNeeds[need] }))}
          />
        )}
        {method && <MethodSteps key={method.id} model={model} unit={unit} method={method} />}
        {unit.facts.method !== undefined && !method && (
          <p role="alert" className="bg-inv p-2 font-bold text-oninv">
            Its method is none that this version of the model knows: choose another.
          </p>
        )}
        <ReadUnit unit={unit} />
        {model.buttons.length > 0 && <PressLength unit={unit} model={model} />}
        <Events unit={unit} />
        {model.prompts.length > 0 && (
          <AnsweredOnce unit={unit} differs={Object.keys(unit.prompts).length > 0}>
            <Prompts unit={unit} model={model} />
          </AnsweredOnce>
        )}
        <LampHistory unit={unit} model={model} />
      </div>
    </div>
  )
}

const eventWords = {
  powered: 'Switched on',
  restarted: 'Restarted',
  moved: 'Moved',
  updated: 'Updated',
  reset: 'Factory-reset',
  'settings-changed': 'Settings changed'
} as const

/** What was done to a unit that makes an earlier look at its lamps stale. */
function Events({ unit }: { unit: Unit }) {
  const mayWrite = useMayWrite()
  const last = unit.events.findLast(({ what }) => what in eventWords)
  return (
    <div role="group" aria-label="What happened to it">
      <p className="label">
        What happened to it{' '}
        {last && (
          <span className="fine font-normal">
            last: {eventWords[last.what as keyof typeof eventWords].toLowerCase()}, {format(new Date(last.at), 'HH:mm')}
          </span>
        )}
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        {(Object.keys(eventWords) as (keyof typeof eventWords)[]).map((what) => (
          <button
            key={what}
            type="button"
            className="chip"
            disabled={!mayWrite}
            onClick={() => write('unit.event', { unit: unit.id, what })}
          >
            {eventWords[what]}
          </button>
        ))}
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
        {open.length > 0 && mayWrite && (
          <Button
            onClick={() =>
              open.forEach(({ id }) =>
                write('prompt.answered', { unit: unit.id, prompt: id, answer: 'no', by: 'customer' })
              )
            }
          >
            All no
          </Button>
        )}
      </div>
      <List framed className="mt-1">
        {model.prompts.map(({ id, text }) => (
          <li
            key={id}
            data-place={placeKey({ kind: 'prompt', id: unit.id, field: id })}
            className="flex flex-wrap items-center justify-between gap-2 py-2"
          >
            <span className="grow basis-48">{text}</span>
            <Chips
              label={text}
              value={unit.prompts[id]?.answer}
              disabled={!mayWrite}
              options={[
                { value: 'no', label: 'No' },
                { value: 'yes', label: 'Yes' }
              ]}
              onChoose={(answer) => write('prompt.answered', { unit: unit.id, prompt: id, answer, by: 'customer' })}
            />
          </li>
        ))}
      </List>
    </section>
  )
}
