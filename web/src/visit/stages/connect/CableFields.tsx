import { cableMbps, type KnownCable } from '@pasado/core/work/cabling/known-cable'
import { cableCategories } from '@pasado/core/record/things/cable'
import { ChoiceFact, TextFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { write } from '../../session/write'
import { CableVlans } from './CableVlans'
import { placeKey } from '../../session/place'
import { TakeOut } from '../../frame/TakeOut'

const speeds = [10, 100, 1000, 2500, 5000, 10_000] as const
const speedWords = (mbps: number) => (mbps >= 1000 ? `${mbps / 1000} Gbit/s` : `${mbps} Mbit/s`)
const kindWords = { network: 'Network cable', telephone: 'Telephone cable', coax: 'Coax', fibre: 'Fibre' } as const

/** What is known of the cable that was chosen. */
export function CableFields({ known: { cable, a, b }, onGone }: { known: KnownCable; onGone: () => void }) {
  const mayWrite = useMayWrite()
  const field = { kind: 'cable', id: cable.id } as const
  const can = cableMbps(cable.facts)
  const network = (cable.facts.kind ?? 'network') === 'network'
  return (
    <section
      aria-label="The cable that is chosen"
      data-place={placeKey({ kind: 'cable', id: cable.id, field: 'a' })}
      className="flex flex-col gap-3"
    >
      <div>
        <h3>{kindWords[cable.facts.kind ?? 'network']}</h3>
        <p>
          {a ? `${a.owner}, ${a.name}` : 'a port that is gone'} – {b ? `${b.owner}, ${b.name}` : 'a port that is gone'}
        </p>
      </div>
      {network && (
        <ChoiceFact
          {...field}
          field="category"
          label="Category"
          options={cableCategories.map((value) => ({ value, label: `Cat ${value.slice(3)}` }))}
        />
      )}
      <TextFact {...field} field="lengthM" label="Length" type="number" unit="m" />
      {network && (
        <div role="group" aria-label="Link speed that came up">
          <p className="label">
            Link speed that came up{' '}
            {can ? <span className="fine font-normal">the cable carries {speedWords(can)}</span> : null}
          </p>
          <div className="mt-1 flex flex-wrap gap-2">
            {speeds.map((mbps) => (
              <button
                key={mbps}
                type="button"
                className="chip"
                data-state={cable.facts.linkMbps === mbps ? 'on' : 'off'}
                aria-pressed={cable.facts.linkMbps === mbps}
                disabled={!mayWrite}
                onClick={() => write('cable.set', { id: cable.id, set: { linkMbps: mbps }, origin: 'measured' })}
              >
                {speedWords(mbps)}
              </button>
            ))}
          </div>
        </div>
      )}
      {network && <CableVlans cable={cable} />}
      {mayWrite && (
        <p>
          <TakeOut thing="cable" className="-ml-2" id={cable.id} onGone={onGone}>
            Take the cable out
          </TakeOut>
        </p>
      )}
    </section>
  )
}
