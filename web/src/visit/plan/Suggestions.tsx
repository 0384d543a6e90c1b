import { useState } from 'react'
import { modelKey } from '@pasado/core/catalogue/model'
import type { Band, HomePlan, PlacedUnit } from '@pasado/core/plan/home-plan'
import { standing } from '@pasado/core/record/record'
import { schoolWords, type SuggestedPlacement, type Suggestion } from '@pasado/core/plan/suggest'
import { askSuggestions } from '../../workers/suggest'
import { useMayWrite } from '../facts'
import { useVisit, write } from '../store'

/** Where further units would do most: the fewest places that bring every room above the floor. */
export function Suggestions({ plan, units, band }: { plan: HomePlan; units: readonly PlacedUnit[]; band: Band }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const [found, setFound] = useState<Suggestion | null>(null)
  const [busy, setBusy] = useState(false)
  const router = units.find(({ unit }) => unit.facts.role === 'router' || unit.facts.role === 'gateway')
  const outlets = standing(record.outlets ?? {}).filter(({ facts }) => facts.kind !== 'line' && facts.storey && facts.x !== undefined && facts.y !== undefined)
  const nodes = units.filter(({ id, unit }) => id !== router?.id && ['node', 'extender', 'access-point'].includes(unit.facts.role ?? ''))
  if (!router || outlets.length === 0 || plan.rooms.length === 0) {
    return <p className="mt-4 border-t border-rule pt-3 text-soft">For a proposal where further units belong: put the router into the plan, and the outlets that are free.</p>
  }
  const model = catalogue.get(modelKey(router.unit.facts.model ?? '', router.unit.facts.modelVersion ?? 1))
  const ask = async () => {
    setBusy(true)
    setFound(await askSuggestions({
      plan, band, router: { x: router.x, y: router.y, z: router.z },
      outlets: outlets.map(({ id, facts }) => ({ id, storey: facts.storey!, x: facts.x!, y: facts.y!, kind: facts.kind ?? 'mains', cabinet: facts.cabinet === true })),
      troubles: standing(record.troubles ?? {}).flatMap(({ facts }) => (facts.storey && facts.x !== undefined && facts.y !== undefined ? [{ storey: facts.storey, x: facts.x, y: facts.y }] : [])),
      powerDbm: Math.max(20, ...(model?.radios.filter((radio) => radio.band === band).map(({ powerDbm }) => powerDbm) ?? [])),
      mostUnits: Math.min(4, model?.mesh?.members ?? 4), mostHops: model?.mesh?.hops ?? 2
    }))
    setBusy(false)
  }
  return (
    <section aria-label="Where units belong" className="mt-4 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-3"><h3>Where units belong</h3><button type="button" className="btn" disabled={busy} onClick={() => void ask()}>{busy ? 'Searching …' : 'Find the places'}</button></div>
      {found?.proposals.length === 0 && <p className="mt-2" role="status">No outlet can be joined to the router over hops that hold. A cable, or an outlet nearer to it, is needed.</p>}
      {found && found.proposals.length > 0 && (
        <ol className="mt-2 grid gap-3 md:grid-cols-3" aria-label="Proposals">
          {found.proposals.map((one, at) => (
            <li key={at} className="paper p-3">
              <b>{one.units.length === 0 ? 'The router alone' : `${one.units.length} ${one.units.length === 1 ? 'unit' : 'units'} beside the router`}</b>
              <p className="text-sm">{one.units.map(({ where }) => where).join('; ')}</p>
              <p className="text-sm">{comesTo(one)}</p>
              {mayWrite && one.units.length > 0 && nodes.length >= one.units.length && <button type="button" className="btn mt-2" onClick={() => one.units.forEach(({ storey, x, y }, index) => write('unit.set', { id: nodes[index]!.id, set: { storey, x, y }, origin: 'calculated' }))}>Put {nodes.slice(0, one.units.length).map(({ name }) => name).join(', ')} there</button>}
            </li>
          ))}
        </ol>
      )}
      {found && found.proposals.length > 0 && (
        <table className="mt-3 w-full text-left text-sm">
          <caption className="label pb-1 text-left">What the schools would do with one unit</caption>
          <tbody>{found.schools.map(({ school, placement }) => (
            <tr key={school} className="border-t border-rule align-top"><th scope="row" className="py-1.5 pr-3 font-normal">{schoolWords[school]}</th><td className="py-1.5 pr-3">{placement ? placement.units.map(({ where }) => where).join('; ') : ''}</td><td className="py-1.5">{placement ? comesTo(placement) : 'No outlet there that the router reaches.'}</td></tr>
          ))}</tbody>
        </table>
      )}
      {found && <p className="fine mt-1">Calculated, {band} GHz: every set of up to four places was looked at; each hop at −67 dBm or above.</p>}
    </section>
  )
}

/** What a placement comes to, in one sentence. */
function comesTo({ holds, marginDb, weakest }: SuggestedPlacement): string {
  return holds ? `Every room holds, the weakest by ${marginDb.toFixed(0)} dB: ${weakest}.` : `${weakest} stays ${Math.abs(marginDb).toFixed(0)} dB too weak.`
}
