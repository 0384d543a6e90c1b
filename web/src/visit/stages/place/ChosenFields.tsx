import { v7 as uuidv7 } from 'uuid'
import { staysName } from '@pasado/core/record/equipment'
import { thingsOf, type Stays } from '@pasado/core/record/record'
import { ChoiceFact, TextFact, YesNoFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { planOf } from '@pasado/core/work/plan/home-plan'
import { partnerCircuit } from '@pasado/core/work/plan/powerline'
import type { PlanWall } from '@pasado/core/work/plan/walls'
import { stretchId } from './PlanPicture'
import type { Chosen } from './use-plan-drag'
import { tenth } from './snap'
import { Button } from '../../../ui/Button'
import { WallFields } from './WallFields'

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
    return <WallFields wall={walls.find((wall) => stretchId(wall) === chosen.id) ?? chosen.wall} onChoose={onChoose} />
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
      {kind === 'stays' && (
        <>
          <h3>{staysName(thing as Stays)}</h3>
          <TextFact {...field} field="place" label="Stands at" />
        </>
      )}
      {kind === 'outlet' && (
        <>
          <ChoiceFact
            {...field}
            field="kind"
            label="Outlet"
            options={[
              { value: 'mains', label: 'mains' },
              { value: 'line', label: 'the line' },
              { value: 'network', label: 'network' }
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
        (kind === 'unit' || kind === 'stays' ? (
          <p>
            <Button
              kind="quiet"
              className="-ml-2"
              onClick={() => {
                write(`${kind}.set`, { id, set: { storey: null, x: null, y: null } })
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
