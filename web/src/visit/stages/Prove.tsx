import { format } from 'date-fns'
import { homeOf } from '@pasado/core/standard/rule'
import { testedUnits } from '@pasado/core/standard/rules/prove'
import { unitName } from '@pasado/core/record/record'
import { useMayWrite } from '../facts'
import { useVisit, write } from '../store'

/** Prove: the links of the mesh, tested where the units stand now. */
export function Prove() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const standard = useVisit((state) => state.standard)
  const mayWrite = useMayWrite()
  const units = standard ? testedUnits(homeOf(record, catalogue, standard.policy).units) : []
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Prove</h2>
      {units.length > 0 && (
        <section aria-label="Links" className="mt-3">
          <h3>Each unit’s link, by the family’s own test</h3>
          <ul className="mt-1 divide-y divide-rule border-y border-rule">
            {units.map(({ unit }) => {
              const test = unit.events.findLast(({ what }) => what === 'tested-good' || what === 'tested-bad')
              const moved = unit.events.findLast(({ what }) => what === 'moved')
              const stale = test && moved && moved.seq > test.seq
              return (
                <li key={unit.id} data-place={`unit.${unit.id}.test`} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
                  <b className="grow basis-40">{unitName(unit)}</b>
                  <span className={stale ? 'font-bold' : 'fine'}>{test ? `${test.what === 'tested-good' ? 'good' : 'not good'}, ${format(new Date(test.at), 'HH:mm')}${stale ? ': moved since, test it again' : ''}` : 'not tested yet'}</span>
                  {mayWrite && <span className="flex gap-2"><button type="button" className="btn" aria-label={`${unitName(unit)}: the link is good`} onClick={() => write('unit.event', { unit: unit.id, what: 'tested-good' })}>Good</button><button type="button" className="btn" aria-label={`${unitName(unit)}: the link is not good`} onClick={() => write('unit.event', { unit: unit.id, what: 'tested-bad' })}>Not good</button></span>}
                </li>
              )
            })}
          </ul>
        </section>
      )}
      <p className="mt-4 max-w-xl">Measurements by room and proof of path are not recorded in this version; no rule of the standard is checked on them. Measure as you know it, and write what matters as a note under Brief.</p>
    </div>
  )
}
