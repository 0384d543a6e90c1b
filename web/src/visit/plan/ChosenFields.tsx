import { materialNames } from '@pasado/core/radio/wall-loss'
import { thingsOf } from '@pasado/core/record/record'
import { ChoiceFact, SelectFact, TextFact, YesNoFact } from '../FactField'
import { useMayWrite } from '../facts'
import { useVisit, write } from '../store'
import type { Chosen } from './PlanPicture'

/** What walls and ceilings can be of, in words; what is our own estimate or an extrapolation says so. */
export const materialOptions = materialNames.map((value) => ({ value, words: `${value.replace('-', ' ')}${value === 'granite' ? ' (estimate)' : value === 'floorboard' ? ' (extrapolated)' : ''}` }))

/** The fields of what was chosen in the plan. */
export function ChosenFields({ chosen: { kind, id }, onGone }: { chosen: Chosen; onGone: () => void }) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const thing = thingsOf(record, kind)[id]
  if (!thing || thing.removedSeq !== null) return null
  const field = { kind, id } as const
  const remove = () => { write('thing.removed', { thing: kind, id }); onGone() }
  return (
    <section aria-label="What is chosen" className="flex flex-col gap-3" key={id}>
      {kind === 'room' && <>
        <TextFact {...field} field="name" label="Room" />
        <div className="grid grid-cols-2 gap-3"><TextFact {...field} field="widthM" label="Width" type="number" unit="m" /><TextFact {...field} field="depthM" label="Depth" type="number" unit="m" /></div>
        <div className="grid grid-cols-2 gap-3"><YesNoFact {...field} field="listed" label="Is to have signal" /><YesNoFact {...field} field="complained" label="Complained of" /></div>
        <TextFact {...field} field="building" label="In another building" hint="Only for an outbuilding: its name." />
      </>}
      {kind === 'unit' && <>
        <h3>{String((thing.facts as { name?: string }).name ?? 'Unit')}</h3>
        <div className="grid grid-cols-2 gap-3"><TextFact {...field} field="heightM" label="Height" type="number" unit="m" /><TextFact {...field} field="place" label="Stays at" /></div>
        <div className="grid grid-cols-2 gap-3"><YesNoFact {...field} field="cabled" label="Cabled to the router" /><YesNoFact {...field} field="cabinet" label="In a cabinet" /></div>
        <TextFact {...field} field="floorsReason" label="Why there is no cable between storeys" />
        <TextFact {...field} field="surgeNote" label="Surge protection of a cable between buildings" />
      </>}
      {kind === 'outlet' && <>
        <ChoiceFact {...field} field="kind" label="Outlet" options={[{ value: 'mains', words: 'mains' }, { value: 'line', words: 'the line' }, { value: 'network', words: 'network' }]} />
        <TextFact {...field} field="circuit" label="Circuit" hint="As it stands in the fuse box; powerline partners want the same." />
        <div className="grid grid-cols-2 gap-3"><YesNoFact {...field} field="strip" label="A strip hangs on it" /><YesNoFact {...field} field="cabinet" label="In a cabinet" /></div>
      </>}
      {kind === 'trouble' && <h3>{String((thing.facts as { kind?: string }).kind ?? '').replaceAll('-', ' ')}</h3>}
      {mayWrite && (kind === 'unit'
        ? <p><button type="button" className="btn btn-quiet -ml-2" onClick={() => { write('unit.set', { id, set: { storey: null, x: null, y: null } }); onGone() }}>Take it off the plan</button></p>
        : <p><button type="button" className="btn btn-quiet -ml-2" onClick={remove}>Take it out</button></p>)}
    </section>
  )
}

/** What all walls are of, and the storeys' heights and ceilings. */
export function BuildFields() {
  const storeys = Object.values(useVisit((state) => state.record.storeys) ?? {}).filter(({ removedSeq }) => removedSeq === null).sort((a, b) => (a.facts.floorM ?? 0) - (b.facts.floorM ?? 0))
  const brief = { kind: 'brief', id: 'brief' } as const
  const mayWrite = useMayWrite()
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="min-h-11 py-2 font-bold">Walls, storeys and ceilings</summary>
      <div className="grid gap-3 sm:grid-cols-4">
        <SelectFact {...brief} field="outerMaterial" label="Outer walls" none="brick" options={materialOptions} /><TextFact {...brief} field="outerMm" label="Thickness, outer" type="number" unit="mm" />
        <SelectFact {...brief} field="innerMaterial" label="Inner walls" none="plasterboard" options={materialOptions} /><TextFact {...brief} field="innerMm" label="Thickness, inner" type="number" unit="mm" />
      </div>
      {storeys.map(({ id, facts }) => (
        <div key={id} role="group" aria-label={facts.name ?? 'Storey'} className="mt-3 grid items-end gap-3 border-t border-rule pt-3 sm:grid-cols-[2fr_1fr_1fr_2fr_1fr_auto]">
          <TextFact kind="storey" id={id} field="name" label="Storey" /><TextFact kind="storey" id={id} field="floorM" label="Floor at" type="number" unit="m" /><TextFact kind="storey" id={id} field="heightM" label="Height" type="number" unit="m" />
          <SelectFact kind="storey" id={id} field="ceilingMaterial" label="Ceiling over it" none="wood" options={materialOptions} /><TextFact kind="storey" id={id} field="ceilingMm" label="Thickness" type="number" unit="mm" />
          {mayWrite && <button type="button" className="btn btn-quiet" aria-label={`Take out: ${facts.name ?? 'storey'}`} onClick={() => write('thing.removed', { thing: 'storey', id })}>Take out</button>}
        </div>
      ))}
    </details>
  )
}
