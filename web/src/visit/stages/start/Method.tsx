import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Model } from '@pasado/core/catalogue/model'
import { pressLength } from '@pasado/core/catalogue/presses'
import { stepKey, type Unit } from '@pasado/core/record/record'
import { clockOfStep, passedThrough, notYet } from '@pasado/core/work/units/look-moves'
import { pairingStep, stepsDone } from '@pasado/core/work/units/method-steps'
import { UnitBack, UnitFront } from '../../../catalogue/UnitPicture'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { NotSeen } from './NotSeen'
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
  const passed = passedThrough(unit, model, method)
  const start = () => {
    const clock = clockOfStep(unit.id, model, method, at)
    if (clock) write('wait.started', { id: uuidv7(), unit: unit.id, ...clock })
  }
  const answer = (seen: boolean) => {
    const early = seen ? null : notYet(useVisit.getState().record, unit, model, Date.now())
    setMissing(!seen)
    setLooking(null)
    // Too early to see it is nothing that was seen.
    if (early && early.kind !== 'late') return
    if (running && seen) write('wait.ended', { id: running.id })
    write('method.step', { unit: unit.id, method: method.id, step: at, seen })
    // What is seen as it is to be is a sighting like any other; where its lamps are past it already, it is none of now.
    if (seen && expected && expected.lamps.length > 0 && passed < 0)
      write('lamp.seen', { unit: unit.id, lamps: expected.lamps })
  }
  const doneThrough = () => {
    for (let of = next; of <= passed; of++)
      if (!done[of]) write('method.step', { unit: unit.id, method: method.id, step: of, seen: true })
    setMissing(false)
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
            {mayWrite && passed >= 0 && looking === null && (
              <Notice role="status" edge="ink" className="mt-3">
                Its lamps show that it is past this.{' '}
                <Button className="mt-1" onClick={doneThrough}>
                  {next === passed ? `Step ${passed + 1} is done` : `Steps ${next + 1} to ${passed + 1} are done`}
                </Button>
              </Notice>
            )}
            {mayWrite && (
              <div className="mt-3 flex flex-wrap gap-2">
                {step.wait && !running && <Button onClick={start}>Done: start its clock</Button>}
                <Button kind="main" onClick={() => answer(true)}>
                  {expected ? 'I see it' : 'Done'}
                </Button>
                <Button onClick={() => answer(false)}>{expected ? 'I do not see it' : 'It did not work'}</Button>
              </div>
            )}
            {unseen && <NotSeen unit={unit} model={model} ifNot={step.ifNot} kind={method.kind} />}
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
