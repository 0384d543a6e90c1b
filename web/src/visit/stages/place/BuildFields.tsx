import { photosOf } from '@pasado/core/record/record'
import { SelectFact, TextFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { materialOptions } from './materials'
import { TakeOut } from '../../frame/TakeOut'

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
        options={photos.map((photo) => ({ value: photo.ref, label: photo.caption ?? 'photo without a caption' }))}
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
            <TakeOut thing="storey" aria-label={`Take out: ${facts.name ?? 'storey'}`} id={id}>
              Take out
            </TakeOut>
          )}
          <div className="sm:col-span-6">
            <PaperFields storey={id} />
          </div>
        </div>
      ))}
    </details>
  )
}
