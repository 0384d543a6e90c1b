import { useEffect, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Model } from '@pasado/core/catalogue/model'
import { pressKind } from '@pasado/core/catalogue/presses'
import { equipmentHere, type Equipment } from '@pasado/core/record/equipment'
import { unitName, type Unit, type VisitRecord } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { clock } from '../../frame/Waits'
import { RecordStays } from '../../frame/WhatStays'
import { Button } from '../../../ui/Button'
import { Field, Select } from '../../../ui/Field'

const WINDOW_MIN = 2

/** On what the first press can be: a router, one of the same kind, another powerline adapter; a router or what else stays and has a button for it. */
function firstPressedOn(record: VisitRecord, unit: Unit): Equipment[] {
  const { role, model } = unit.facts
  const isFirst = (facts: Unit['facts']) =>
    ['router', 'gateway'].includes(facts.role ?? '') ||
    facts.model === model ||
    (role === 'powerline-adapter' && facts.role === role)
  return equipmentHere(record).filter(({ id, unit: ours, stays }) =>
    ours ? id !== unit.id && isFirst(ours.facts) : BUTTON.includes(stays?.facts.kind ?? '')
  )
}

/** Kinds of what stays that may have a button for it. */
const BUTTON: readonly string[] = ['router', 'mesh-node', 'access-point', 'other']

const isRouter = ({ unit, stays }: Equipment) => unit?.facts.role === 'router' || stays?.facts.kind === 'router'

/** The two presses of a push-button pairing, and what is left of the window between them. */
export function Pairing({ unit, model }: { unit: Unit; model: Model }) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const others = firstPressedOn(record, unit)
  const [on, setOn] = useState('')
  const presses = unit.pairing ?? []
  const last = presses.at(-1)
  const first = last?.which === 'first' ? last : null
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (!first) return
    setNow(Date.now())
    const timer = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(timer)
  }, [first])
  const left = first ? Date.parse(first.at) + WINDOW_MIN * 60_000 - now : 0
  const wait = Object.values(record.waits).find(
    (candidate) =>
      candidate.unit === unit.id && candidate.what.startsWith('pairing window') && candidate.endedAt === null
  )
  const leads = others.find(({ id }) => id === on) ?? others.find(isRouter) ?? others[0]
  const button = model.buttons.find(({ presses: list }) => list.some((candidate) => pressKind(candidate) === 'pairing'))
  const press = (which: 'first' | 'second') => {
    if (which === 'first' && leads) {
      write('pairing.pressed', { unit: unit.id, which, on: leads.id })
      write('wait.started', {
        id: uuidv7(),
        what: 'pairing window',
        unit: unit.id,
        usualMin: WINDOW_MIN,
        mostMin: WINDOW_MIN
      })
    } else {
      write('pairing.pressed', { unit: unit.id, which: 'second', on: unit.id })
      if (wait) write('wait.ended', { id: wait.id })
    }
  }
  return (
    <div
      role="group"
      aria-label="The two presses"
      data-place={`unit.${unit.id}.pairing`}
      className="mt-3 border border-rule bg-well p-3"
    >
      <div className="flex flex-wrap items-end gap-3">
        {others.length > 1 && !first && (
          <Field label="First on">
            <Select value={leads?.id} onChange={(event) => setOn(event.target.value)}>
              {others.map((other) => (
                <option key={other.id} value={other.id}>
                  {other.name}
                </option>
              ))}
            </Select>
          </Field>
        )}
        {mayWrite && !first && (
          <Button disabled={!leads} onClick={() => press('first')}>
            Pressed on {leads?.name ?? 'the router'}
          </Button>
        )}
        {mayWrite && first && (
          <Button kind="main" onClick={() => press('second')}>
            {button ? `${button.name} pressed` : 'Pressed'} here, on {unitName(unit)}
          </Button>
        )}
        {first && <WindowLeft ms={left} />}
        {mayWrite && first && left <= 0 && <Button onClick={() => press('first')}>First press again</Button>}
      </div>
      {mayWrite && !leads && (
        <div role="note" className="mt-2">
          <p>No unit of this visit can be pressed first. Is it paired with a router that stays here?</p>
          <RecordStays kind="router" onDone={setOn} />
        </div>
      )}
      <BetweenPresses presses={presses} />
    </div>
  )
}

/** What is left of the window between the two presses. */
function WindowLeft({ ms }: { ms: number }) {
  return (
    <p aria-live="polite">
      <b className="exact text-4xl">{ms > 0 ? clock(ms) : '0:00'}</b>{' '}
      {ms > 0 ? <span>left{ms < 30_000 ? ': press now' : ''}</span> : <b>The window is closed: press both again.</b>}
    </p>
  )
}

/** How long after the first the second press came. */
function BetweenPresses({ presses }: { presses: NonNullable<Unit['pairing']> }) {
  const last = presses.at(-1)
  if (last?.which !== 'second') return null
  const seconds = Math.round((Date.parse(last.at) - Date.parse(presses.at(-2)?.at ?? last.at)) / 1000)
  return (
    <p className="mt-2">
      The second press came {seconds} s after the first
      {seconds > WINDOW_MIN * 60 ? ': too late. Press both again' : ''}.
    </p>
  )
}
