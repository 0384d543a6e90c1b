import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Model } from '@pasado/core/catalogue/model'
import { pressKind, pressLength } from '@pasado/core/catalogue/presses'
import { stepKey, type Unit } from '@pasado/core/record/record'
import { pairingStep, stepsDone } from '@pasado/core/work/units/method-steps'
import { UnitBack, UnitFront } from '../../../catalogue/UnitPicture'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Pairing } from './Pairing'
import { Button } from '../../../ui/Button'
import { Notice } from '../../../ui/Notice'

type Method = Model['methods'][number]

const tabElsewhere = (done: boolean) => (done ? 'border-ink' : 'border-transparent text-soft')

/** A unit's setup method, one step at a time: what to do, the clock that starts with it, what is to be seen, and what if not. */
export function MethodSteps({ unit, model, method }: { unit: Unit; model: Model; method: Method }) {
  const mayWrite = useMayWrite()
  const waits = useVisit((state) => state.record.waits)
  const [looking, setLooking] = useState<number | null>(null)
  const [missing, setMissing] = useState(false)
  const done = stepsDone(unit, model, method)
  const next = done.indexOf(false)
  const at = looking ?? (next < 0 ? method.steps.length - 1 : next)
  const finished = next < 0 && looking === null
  const current = finished ? -1 : at
  const step = method.steps[at]!
  const expected = model.states.find(({ state }) => state === step.expect)
  const task = `step:${unit.id}:${method.id}:${at}`
  const running = Object.values(waits).find((wait) => wait.task === task && wait.endedAt === null)
  const unseen = unit.steps?.[stepKey(method.id, at)]?.seen === false || missing
  // The back where something is plugged in, the button where one is pressed.
  const wantsPorts = /port|cable|coax|splitter|plug the router/i.test(step.do)
  const button = model.buttons.find(
    ({ name }) => /press|hold|pin|reset/i.test(step.do) && step.do.includes(name.split(' ')[0]!)
  )
  const isPairing = pairingStep(model, method) === at
  const start = () =>
    write('wait.started', {
      id: uuidv7(),
      what: (expected ? `until ${expected.meaning}` : step.do).slice(0, 80),
      unit: unit.id,
      task,
      usualMin: step.wait!.usualMin,
      mostMin: step.wait!.mostMin
    })
  const answer = (seen: boolean) => {
    if (running && seen) write('wait.ended', { id: running.id })
    write('method.step', { unit: unit.id, method: method.id, step: at, seen })
    // What is seen as it is to be is a sighting like any other.
    if (seen && expected && expected.lamps.length > 0) write('lamp.seen', { unit: unit.id, lamps: expected.lamps })
    setMissing(!seen)
    setLooking(null)
  }
  return (
    <section aria-label="Setup method" className="border border-rule">
      <ol className="flex border-b border-rule" aria-label="Steps">
        {method.steps.map((step, index) => (
          <li key={index} className="grow basis-0">
            <button
              type="button"
              className={`min-h-11 w-full truncate border-b-[5px] px-2 text-left text-sm ${index === current ? 'border-plum font-bold' : tabElsewhere(!!done[index])}`}
              aria-current={index === current ? 'step' : undefined}
              onClick={() => {
                setLooking(index)
                setMissing(false)
              }}
            >
              {index + 1}
              {done[index] ? ', done' : ''}
              <span className="sr-only">: {step.do}</span>
            </button>
          </li>
        ))}
      </ol>
      {finished ? (
        <p className="p-3">
          <b>Every step of {method.name} is done.</b> Look at its lamps once more before you go on.
        </p>
      ) : (
        <div className="grid gap-4 p-3 sm:grid-cols-[minmax(0,1fr)_12rem]">
          <div>
            <p className="fine">
              Step {at + 1} of {method.steps.length}
            </p>
            <p className="text-lg font-bold">{step.do}</p>
            {expected && (
              <p className="mt-1">
                Then: {expected.meaning}
                {step.wait ? `, usually ${step.wait.usualMin} min, at most ${step.wait.mostMin} min` : ''}.
              </p>
            )}
            {isPairing && <Pairing unit={unit} model={model} />}
            {mayWrite && (
              <div className="mt-3 flex flex-wrap gap-2">
                {step.wait && !running && <Button onClick={start}>Done: start its clock</Button>}
                <Button kind="main" onClick={() => answer(true)}>
                  {expected ? 'I see it' : 'Done'}
                </Button>
                <Button onClick={() => answer(false)}>{expected ? 'I do not see it' : 'It did not work'}</Button>
              </div>
            )}
            {unseen && <IfNot model={model} unit={unit} ifNot={step.ifNot} kind={method.kind} />}
          </div>
          {(wantsPorts || (expected && expected.lamps.length > 0)) && (
            <div>
              {wantsPorts && (
                <>
                  <p className="fine">its ports</p>
                  <UnitBack model={model} />
                </>
              )}
              {expected && expected.lamps.length > 0 && (
                <div aria-label="What is to be seen" role="group">
                  <p className="fine mb-1">what is to be seen</p>
                  <UnitFront model={model} state={expected} />
                </div>
              )}
              {button && (
                <p className="mt-2 text-sm">
                  <b>{button.name}</b>:{' '}
                  {button.presses.map((press) => `${pressLength(press)} ${press.does}`).join('; ')}
                </p>
              )}
            </div>
          )}
        </div>
      )}
    </section>
  )
}

/** What to try when a step does not show what it is to show: cheap things first, the factory reset last, with what it takes. */
function IfNot({
  model,
  unit,
  ifNot,
  kind
}: {
  model: Model
  unit: Unit
  ifNot: string | undefined
  kind: Method['kind']
}) {
  const record = useVisit((state) => state.record)
  const presses = model.buttons.flatMap((button) => button.presses.map((press) => ({ button, press })))
  const restart = presses.find(({ press }) => pressKind(press) === 'restart')
  const reset = presses.find(({ press }) => pressKind(press) === 'reset')
  const loses = [
    ...(unit.pairing?.length ? ['its pairing'] : []),
    ...(unit.facts.dhcpServer || unit.facts.mode ? ['its mode and DHCP settings'] : []),
    ...(Object.values(record.hosts).some(({ facts, removedSeq }) => removedSeq === null && facts.unit === unit.id)
      ? ['its address']
      : []),
    ...(Object.values(record.secrets).some(({ id, purpose }) => id === unit.id && purpose === 'admin-password')
      ? ['its admin password']
      : []),
    ...(unit.facts.role === 'router' || unit.facts.role === 'gateway'
      ? ['every network name and passphrase on it']
      : [])
  ]
  return (
    <Notice role="status" edge="ink" className="mt-3">
      <b>Not seen? In this order:</b>
      <ol className="mt-1 list-decimal pl-5">
        {ifNot && (
          <li>
            <b>{ifNot}.</b>
          </li>
        )}
        {kind === 'push-button' && <li>Bring both closer, and press both again, the second within two minutes.</li>}
        <li>Look at its lamps and log them: what they mean may be another thing.</li>
        <li>
          {restart
            ? `Restart: ${restart.button.name}, ${pressLength(restart.press)}.`
            : 'Restart: pull its plug, count to ten, and in again.'}
        </li>
        {reset && (
          <li>
            Only last, the factory reset: {reset.button.name}, {pressLength(reset.press)}
            {reset.press.confirms
              ? `, until it shows ${model.states.find(({ state }) => state === reset.press.confirms)?.meaning ?? reset.press.confirms}`
              : ''}
            .{' '}
            {loses.length ? (
              <b>It loses {loses.join(', ')}: configure it anew afterwards.</b>
            ) : (
              'Nothing of it was configured yet.'
            )}
          </li>
        )}
      </ol>
    </Notice>
  )
}
