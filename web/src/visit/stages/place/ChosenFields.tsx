import { useId, useState } from 'react'
import { readNumber } from '@pasado/core/values/number'
import { checkField } from '@pasado/core/record/facts'
import { v7 as uuidv7 } from 'uuid'
import { photosOf, standing, thingsOf } from '@pasado/core/record/record'
import { ChoiceFact, SelectFact, TextFact, YesNoFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { useVisit, write } from '../../session/store'
import { planOf } from '@pasado/core/work/plan/home-plan'
import { partnerCircuit } from '@pasado/core/work/plan/powerline'
import type { PlanWall } from '@pasado/core/work/plan/walls'
import { materialOptions } from './materials'
import { type Chosen, stretchId } from './PlanPicture'
import { openingIn, openingWidthM, tenth } from './snap'
import { Button } from '../../../ui/Button'

/** The fields of what was chosen in the plan. */
export function ChosenFields({
  chosen,
  walls,
  onChoose
}: {
  chosen: Chosen
  walls: readonly PlanWall[]
  onChoose: (chosen: Chosen | null) => void
}) {
  const onGone = () => onChoose(null)
  if (chosen.kind === 'stretch')
    return <WallFields wall={walls.find((one) => stretchId(one) === chosen.id) ?? chosen.wall} onChoose={onChoose} />
  return <ThingFields kind={chosen.kind} id={chosen.id} onGone={onGone} />
}

function ThingFields({
  kind,
  id,
  onGone
}: {
  kind: Exclude<Chosen['kind'], 'stretch'>
  id: string
  onGone: () => void
}) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const thing = thingsOf(record, kind)[id]
  if (!thing || thing.removedSeq !== null) return null
  const field = { kind, id } as const
  const remove = () => {
    write('thing.removed', { thing: kind, id })
    onGone()
  }
  return (
    <section aria-label="What is chosen" className="flex flex-col gap-3" key={id}>
      {kind === 'room' && (
        <>
          <TextFact {...field} field="name" label="Name of the room" />
          <div className="grid grid-cols-2 gap-3">
            <TextFact {...field} field="widthM" label="Width" type="number" unit="m" />
            <TextFact {...field} field="depthM" label="Depth" type="number" unit="m" />
          </div>
          <div className="grid grid-cols-2 gap-3">
            <YesNoFact {...field} field="listed" label="Is to have signal" />
            <YesNoFact {...field} field="complained" label="Complained of" />
          </div>
          <TextFact {...field} field="building" label="In another building" hint="Only for an outbuilding: its name." />
          {mayWrite && <PutIn room={id} />}
        </>
      )}
      {kind === 'unit' && (
        <>
          <h3>{String((thing.facts as { name?: string }).name ?? 'Unit')}</h3>
          <div className="grid grid-cols-2 gap-3">
            <TextFact {...field} field="heightM" label="Height" type="number" unit="m" />
            <TextFact {...field} field="place" label="Stays at" />
          </div>
          <div className="grid grid-cols-2 gap-3">
            <YesNoFact {...field} field="cabled" label="Cabled to the router" />
            <YesNoFact {...field} field="cabinet" label="In a cabinet" />
          </div>
          {(thing.facts as { role?: string }).role === 'powerline-adapter' && <OnCircuit unit={id} />}
          <TextFact {...field} field="floorsReason" label="Why there is no cable between storeys" />
          <TextFact {...field} field="surgeNote" label="Surge protection of a cable between buildings" />
        </>
      )}
      {kind === 'outlet' && (
        <>
          <ChoiceFact
            {...field}
            field="kind"
            label="Outlet"
            options={[
              { value: 'mains', words: 'mains' },
              { value: 'line', words: 'the line' },
              { value: 'network', words: 'network' }
            ]}
          />
          <TextFact
            {...field}
            field="circuit"
            label="Circuit"
            hint="As it stands in the fuse box; powerline partners want the same."
          />
          <div className="grid grid-cols-2 gap-3">
            <YesNoFact {...field} field="strip" label="A strip hangs on it" />
            <YesNoFact {...field} field="cabinet" label="In a cabinet" />
          </div>
        </>
      )}
      {kind === 'opening' && <h3>Stairs</h3>}
      {kind === 'outlet' && (thing.facts as { cableTo?: string }).cableTo !== undefined && mayWrite && (
        <p>
          <Button kind="quiet" className="-ml-2" onClick={() => write('outlet.set', { id, set: { cableTo: null } })}>
            Take its cable out
          </Button>
        </p>
      )}
      {kind === 'trouble' && <h3>{String((thing.facts as { kind?: string }).kind ?? '').replaceAll('-', ' ')}</h3>}
      {mayWrite &&
        (kind === 'unit' ? (
          <p>
            <Button
              kind="quiet"
              className="-ml-2"
              onClick={() => {
                write('unit.set', { id, set: { storey: null, x: null, y: null } })
                onGone()
              }}
            >
              Take it off the plan
            </Button>
          </p>
        ) : (
          <p>
            <Button kind="quiet" className="-ml-2" onClick={remove}>
              Take it out
            </Button>
          </p>
        ))}
    </section>
  )
}

/** Which outlets are on the partner's circuit. */
function OnCircuit({ unit }: { unit: string }) {
  const record = useVisit((state) => state.record)
  const found = partnerCircuit(record, planOf(record), unit)
  if (!found)
    return (
      <p className="fine">
        Put its partner and the outlets’ circuits into the plan: the outlets of one circuit show here.
      </p>
    )
  return (
    <p>
      {found.outlets.length ? (
        <>
          On circuit {found.circuit} with {found.partner}: <b>{found.outlets.map(({ where }) => where).join(', ')}</b>.
          Straight into the wall, not into a strip.
        </>
      ) : (
        <>
          No other wall socket of circuit {found.circuit}, where {found.partner} stands, is in the plan.
        </>
      )}
    </p>
  )
}

/** Things put into the middle of a room, for those who have no pointer at hand; the arrow keys move them. */
function PutIn({ room: id }: { room: string }) {
  const facts = useVisit((state) => state.record.rooms?.[id]?.facts)
  if (
    !facts?.storey ||
    facts.x === undefined ||
    facts.y === undefined ||
    facts.widthM === undefined ||
    facts.depthM === undefined
  )
    return null
  const at = { storey: facts.storey, x: tenth(facts.x + facts.widthM / 2), y: tenth(facts.y + facts.depthM / 2) }
  return (
    <div role="group" aria-label="Put into its middle" className="flex flex-wrap items-center gap-2">
      <span className="label">Put into its middle</span>
      {(['mains', 'network', 'line'] as const).map((kind) => (
        <button
          key={kind}
          type="button"
          className="chip"
          onClick={() => write('outlet.set', { id: uuidv7(), set: { ...at, kind } })}
        >
          {{ mains: 'mains outlet', network: 'network socket', line: 'outlet of the line' }[kind]}
        </button>
      ))}
      <button
        type="button"
        className="chip"
        onClick={() => write('trouble.set', { id: uuidv7(), set: { ...at, kind: 'large-furniture' } })}
      >
        large furniture
      </button>
    </div>
  )
}

/** What one stretch of wall is of, and the openings in it. */
function WallFields({ wall, onChoose }: { wall: PlanWall; onChoose: (chosen: Chosen | null) => void }) {
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
            { value: 'door', words: 'door' },
            { value: 'window', words: 'window' },
            { value: 'open', words: 'open' }
          ]}
        />
        {mayWrite && (
          <p>
            <Button
              kind="quiet"
              className="-ml-2"
              onClick={() => {
                write('thing.removed', { thing: 'opening', id: gap.id })
                onChoose(null)
              }}
            >
              Take it out
            </Button>
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
          <select
            id={fieldId}
            className="box mt-1"
            disabled={!mayWrite}
            value={material}
            onChange={(event) => set({ material: event.target.value as PlanWall['material'] })}
          >
            {materialOptions.map(({ value, words }) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
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
          <Button kind="quiet" className="-ml-2" onClick={() => write('thing.removed', { thing: 'wall', id: own.id })}>
            As all of its kind again
          </Button>
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
    <label className="label">
      Thickness, mm
      <input
        className="box mt-1 font-normal"
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
    </label>
  )
}

/** A photo of a paper plan under the drawing of a storey. */
function PaperFields({ storey }: { storey: string }) {
  const record = useVisit((state) => state.record)
  const photos = photosOf(record).filter(({ label }) => !label)
  const facts = record.storeys?.[storey]?.facts
  if (photos.length === 0 && !facts?.paper)
    return <p className="fine mt-2">To draw over a paper plan: add a photo of it below, then choose it here.</p>
  return (
    <div className="mt-2 grid items-end gap-3 sm:grid-cols-4">
      <SelectFact
        kind="storey"
        id={storey}
        field="paper"
        label="Paper plan under it"
        none="none"
        options={photos.map((photo) => ({ value: photo.ref, words: photo.caption ?? 'photo without a caption' }))}
      />
      {facts?.paper && (
        <>
          <TextFact kind="storey" id={storey} field="paperWidthM" label="Its width" type="number" unit="m" />
          <TextFact kind="storey" id={storey} field="paperX" label="Its left edge at" type="number" unit="m" />
          <TextFact kind="storey" id={storey} field="paperY" label="Its upper edge at" type="number" unit="m" />
        </>
      )}
    </div>
  )
}

/** What all walls are of, and the storeys' heights and ceilings. */
export function BuildFields() {
  const storeys = Object.values(useVisit((state) => state.record.storeys) ?? {})
    .filter(({ removedSeq }) => removedSeq === null)
    .sort((a, b) => (a.facts.floorM ?? 0) - (b.facts.floorM ?? 0))
  const brief = { kind: 'brief', id: 'brief' } as const
  const mayWrite = useMayWrite()
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 py-2 font-bold">Walls, storeys and ceilings</summary>
      <div className="grid gap-3 sm:grid-cols-4">
        <SelectFact {...brief} field="outerMaterial" label="Outer walls" none="brick" options={materialOptions} />
        <TextFact {...brief} field="outerMm" label="Thickness, outer" type="number" unit="mm" />
        <SelectFact
          {...brief}
          field="innerMaterial"
          label="Inner walls"
          none="plasterboard"
          options={materialOptions}
        />
        <TextFact {...brief} field="innerMm" label="Thickness, inner" type="number" unit="mm" />
      </div>
      {storeys.map(({ id, facts }) => (
        <div
          key={id}
          role="group"
          aria-label={facts.name ?? 'Storey'}
          className="mt-3 grid items-end gap-3 border-t border-rule pt-3 sm:grid-cols-[2fr_1fr_1fr_2fr_1fr_auto]"
        >
          <TextFact kind="storey" id={id} field="name" label="Storey" />
          <TextFact kind="storey" id={id} field="floorM" label="Floor at" type="number" unit="m" />
          <TextFact kind="storey" id={id} field="heightM" label="Height" type="number" unit="m" />
          <SelectFact
            kind="storey"
            id={id}
            field="ceilingMaterial"
            label="Ceiling over it"
            none="wood"
            options={materialOptions}
          />
          <TextFact kind="storey" id={id} field="ceilingMm" label="Thickness" type="number" unit="mm" />
          {mayWrite && (
            <Button
              kind="quiet"
              aria-label={`Take out: ${facts.name ?? 'storey'}`}
              onClick={() => write('thing.removed', { thing: 'storey', id })}
            >
              Take out
            </Button>
          )}
          <div className="sm:col-span-6">
            <PaperFields storey={id} />
          </div>
        </div>
      ))}
    </details>
  )
}
