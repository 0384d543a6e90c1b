import { useId, useState } from 'react'
import { readNumber } from '@pasado/core/values/number'
import { checkField } from '@pasado/core/record/facts'
import { v7 as uuidv7 } from 'uuid'
import { standing } from '@pasado/core/record/record'
import { ChoiceFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import type { PlanWall } from '@pasado/core/work/plan/walls'
import { materialOptions } from './materials'
import type { Chosen } from './use-plan-drag'
import { openingIn, openingWidthM } from './snap'
import { Select, Field, Input } from '../../../ui/Field'
import { TakeOut } from '../../frame/TakeOut'

/** What one stretch of wall is of, and the openings in it. */
export function WallFields({ wall, onChoose }: { wall: PlanWall; onChoose: (chosen: Chosen | null) => void }) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const fieldId = useId()
  const { storey, x1, y1, x2, y2, material, thicknessMm, opening, outer } = wall
  const same = (facts: { storey?: string; x1?: number; y1?: number; x2?: number; y2?: number }) =>
    facts.storey === storey && facts.x1 === x1 && facts.y1 === y1 && facts.x2 === x2 && facts.y2 === y2
  const own = standing(record.walls ?? {}).find(({ facts }) => same(facts))
  const middle = { x: (x1 + x2) / 2, y: (y1 + y2) / 2 }
  const within = (facts: { x1?: number; y1?: number; x2?: number; y2?: number }) =>
    Math.min(facts.x1!, facts.x2!) <= middle.x + 0.02 &&
    Math.max(facts.x1!, facts.x2!) >= middle.x - 0.02 &&
    Math.min(facts.y1!, facts.y2!) <= middle.y + 0.02 &&
    Math.max(facts.y1!, facts.y2!) >= middle.y - 0.02
  const gap =
    opening &&
    standing(record.openings ?? {}).find(
      ({ facts }) => facts.storey === storey && facts.kind !== 'stairs' && facts.x1 !== undefined && within(facts)
    )
  const set = (change: { material?: PlanWall['material']; thicknessMm?: number }) =>
    write(
      'wall.set',
      own
        ? { id: own.id, set: change }
        : { id: uuidv7(), set: { storey, x1, y1, x2, y2, material, thicknessMm, ...change } }
    )
  if (gap) {
    return (
      <section aria-label="What is chosen" className="flex flex-col gap-3">
        <ChoiceFact
          kind="opening"
          id={gap.id}
          field="kind"
          label="Opening"
          options={[
            { value: 'door', label: 'door' },
            { value: 'window', label: 'window' },
            { value: 'open', label: 'open' }
          ]}
        />
        {mayWrite && (
          <p>
            <TakeOut thing="opening" className="-ml-2" id={gap.id} onGone={() => onChoose(null)}>
              Take it out
            </TakeOut>
          </p>
        )}
      </section>
    )
  }
  return (
    <section aria-label="What is chosen" className="flex flex-col gap-3">
      <h3>
        {outer ? 'Outer' : 'Inner'} wall, {Math.hypot(x2 - x1, y2 - y1).toFixed(1)} m
      </h3>
      <p className="fine">
        {own
          ? 'Of its own; the others are set under Walls, storeys and ceilings.'
          : 'As all of its kind; change it here for this stretch alone.'}
      </p>
      <div className="grid grid-cols-2 gap-3">
        <div>
          <label className="label" htmlFor={fieldId}>
            Of
          </label>
          <Select
            id={fieldId}
            className="mt-1"
            disabled={!mayWrite}
            value={material}
            onChange={(event) => set({ material: event.target.value as PlanWall['material'] })}
          >
            {materialOptions.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </Select>
        </div>
        <Thickness
          key={`${x1} ${y1} ${thicknessMm}`}
          value={thicknessMm}
          disabled={!mayWrite}
          onSet={(mm) => set({ thicknessMm: mm })}
        />
      </div>
      {mayWrite && (
        <div role="group" aria-label="Put into its middle" className="flex flex-wrap items-center gap-2">
          <span className="label">Put into its middle</span>
          {(['door', 'window', 'open'] as const).map((kind) => (
            <button
              key={kind}
              type="button"
              className="chip"
              onClick={() => {
                write('opening.set', {
                  id: uuidv7(),
                  set: { storey, kind, ...openingIn(wall, middle, openingWidthM[kind]) }
                })
                onChoose(null)
              }}
            >
              {kind === 'open' ? 'a gap' : `a ${kind}`}
            </button>
          ))}
        </div>
      )}
      {own && mayWrite && (
        <p>
          <TakeOut thing="wall" className="-ml-2" id={own.id}>
            As all of its kind again
          </TakeOut>
        </p>
      )}
    </section>
  )
}

/** A thickness, written when it is left; what is not acceptable stays as typed. */
function Thickness({ value, disabled, onSet }: { value: number; disabled: boolean; onSet: (mm: number) => void }) {
  const [typed, setTyped] = useState(String(value))
  const [problem, setProblem] = useState<string | null>(null)
  const leave = () => {
    const mm = readNumber(typed)
    const checked = Number.isNaN(mm)
      ? { problem: 'must be a number of millimetres' }
      : checkField('wall', 'thicknessMm', mm)
    if ('problem' in checked) setProblem(checked.problem)
    else {
      setProblem(null)
      if (mm !== value) onSet(mm)
    }
  }
  return (
    <Field label="Thickness, mm">
      <Input
        inputMode="decimal"
        autoComplete="off"
        disabled={disabled}
        value={typed}
        aria-invalid={problem !== null}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === 'Enter') leave()
        }}
      />
      {problem && (
        <span role="alert" className="block">
          Thickness {problem}
        </span>
      )}
    </Field>
  )
}
