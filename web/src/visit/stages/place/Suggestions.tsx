import { useState } from 'react'
import { modelOf } from '@pasado/core/catalogue/model'
import type { HomePlan } from '@pasado/core/work/plan/home-plan'
import type { PlacedUnit } from '@pasado/core/work/plan/placed'
import type { Band } from '@pasado/core/values/band'
import { standing } from '@pasado/core/record/record'
import { cabledSockets, schoolWords, type SuggestedPlacement, type Suggestion } from '@pasado/core/work/plan/suggest'
import type { Calibration } from '@pasado/core/radio/calibrate'
import { WorkFailed } from '../../../workers/asking'
import { askSuggestions } from '../../../workers/suggest'
import { useMayWrite } from '../../session/facts'
import { figureOf } from '@pasado/core/policy/figures'
import { useFloors } from './use-plan'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'

/** Where further units would do most: the fewest places that bring every room above the floor. */
const unjoined = 'A unit of it does not reach the others at -67 dBm, so it would not work.'
const withoutPlacement = (best: SuggestedPlacement | undefined) =>
  best?.units.length === 0 ? 'Nothing is needed.' : 'No outlet to its liking.'

export function Suggestions({
  plan,
  units,
  band,
  calibration
}: {
  plan: HomePlan
  units: readonly PlacedUnit[]
  band: Band
  calibration: Calibration
}) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const least = useFloors()
  const mayWrite = useMayWrite()
  const [found, setFound] = useState<Suggestion | null>(null)
  const [busy, setBusy] = useState(false)
  const router =
    units.find(({ unit }) => unit.facts.role === 'router') ?? units.find(({ unit }) => unit.facts.role === 'gateway')
  const outlets = standing(record.outlets ?? {}).filter(
    ({ facts }) => facts.kind !== 'line' && facts.storey && facts.x !== undefined && facts.y !== undefined
  )
  const nodes = units.filter(
    ({ id, unit }) => id !== router?.id && ['node', 'extender', 'access-point'].includes(unit.facts.role ?? '')
  )
  if (!router || outlets.length === 0 || plan.rooms.length === 0) {
    return (
      <p className="mt-4 border-t border-rule pt-3 text-soft">
        For a proposal where further units belong: put the router into the plan, and the outlets that are free.
      </p>
    )
  }
  const model = modelOf(router.unit, catalogue)
  const ask = async () => {
    setBusy(true)
    const cabled = cabledSockets(
      outlets
        .filter(({ facts }) => facts.kind === 'network')
        .map(({ id, facts }) => ({ id, storey: facts.storey!, x: facts.x!, y: facts.y!, cableTo: facts.cableTo })),
      router
    )
    try {
      setFound(
        await askSuggestions({
          plan,
          band,
          exponent: calibration.exponent,
          wallFactor: calibration.wallFactor,
          router: { x: router.x, y: router.y, z: router.z },
          outlets: outlets.map(({ id, facts }) => ({
            id,
            storey: facts.storey!,
            x: facts.x!,
            y: facts.y!,
            cabled: cabled.has(id),
            cabinet: facts.cabinet === true
          })),
          troubles: standing(record.troubles ?? {}).flatMap(({ facts }) =>
            facts.storey && facts.x !== undefined && facts.y !== undefined
              ? [{ storey: facts.storey, x: facts.x, y: facts.y }]
              : []
          ),
          powerDbm: Math.max(
            20,
            ...(model?.radios.filter((radio) => radio.band === band).map(({ powerDbm }) => powerDbm) ?? [])
          ),
          floors: { ...least, clearM: figureOf(policy, 'clearM') },
          mostUnits: Math.min(4, figureOf(policy, 'mostMembers'), model?.mesh?.members ?? 4),
          mostHops: Math.min(figureOf(policy, 'mostHops'), model?.mesh?.hops ?? 2)
        })
      )
    } catch (error) {
      // Told by the bar that tells what failed.
      if (!(error instanceof WorkFailed)) throw error
    } finally {
      setBusy(false)
    }
  }
  return (
    <section aria-label="Where units belong" className="mt-4 border-t border-rule pt-3">
      <div className="flex flex-wrap items-center gap-3">
        <h3>Where units belong</h3>
        <Button disabled={busy} onClick={() => void ask()}>
          {busy ? 'Searching …' : 'Find the places'}
        </Button>
      </div>
      {found?.proposals.length === 0 && (
        <p className="mt-2" role="status">
          No outlet can be joined to the router over hops that hold. A cable, or an outlet nearer to it, is needed.
        </p>
      )}
      {found && found.proposals.length > 0 && (
        <ol className="mt-2 grid gap-3 md:grid-cols-3" aria-label="Proposals">
          {found.proposals.map((proposal, at) => (
            <li key={at} className="paper p-3">
              <b>
                {proposal.units.length === 0
                  ? 'The router alone'
                  : `${proposal.units.length} ${proposal.units.length === 1 ? 'unit' : 'units'} beside the router`}
              </b>
              <p className="text-sm">{proposal.units.map(({ where }) => where).join('; ')}</p>
              <p className="text-sm">{comesTo(proposal)}</p>
              <details className="text-sm">
                <summary className="min-h-11 py-2">Every room</summary>
                <ul>
                  {[...proposal.rooms]
                    .sort((a, b) => a.dbm - b.dbm)
                    .map(({ room, dbm }) => (
                      <li key={room} className="flex justify-between gap-2">
                        <span className="truncate">{plan.rooms.find(({ id }) => id === room)?.name}</span>
                        <span className="exact">{dbm.toFixed(0)} dBm</span>
                      </li>
                    ))}
                </ul>
              </details>
              {mayWrite && proposal.units.length > 0 && nodes.length >= proposal.units.length && (
                <Button
                  className="mt-2"
                  onClick={() =>
                    proposal.units.forEach(({ storey, x, y }, index) =>
                      write('unit.set', { id: nodes[index]!.id, set: { storey, x, y }, origin: 'calculated' })
                    )
                  }
                >
                  Put{' '}
                  {nodes
                    .slice(0, proposal.units.length)
                    .map(({ name }) => name)
                    .join(', ')}{' '}
                  there
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
      {found && <WithACable found={found} />}
      {found && <BySchool found={found} />}
      {found && (
        <p className="fine mt-1">
          Calculated, {band} GHz, ± {calibration.bandDb.toFixed(0)} dB
          {calibration.afterDb > 0 ? ', with what the readings taught' : ''}: every set of places at {found.looked.at}{' '}
          {found.looked.at === 1 ? 'outlet' : 'outlets'} was looked at; each hop at -67 dBm or above.
          {found.looked.at < found.looked.of
            ? ` ${found.looked.of - found.looked.at} more outlets serve the rooms less; with all ${found.looked.of} of them the weakest room could come to ${found.looked.mostMarginDb.toFixed(0)} dB above the floor at most.`
            : ''}
        </p>
      )}
    </section>
  )
}

/** What a placement comes to, in one sentence. */
function comesTo({ holds, marginDb, weakest }: SuggestedPlacement): string {
  return holds
    ? `Every room holds, the weakest by ${marginDb.toFixed(0)} dB: ${weakest}.`
    : `${weakest} stays ${Math.abs(marginDb).toFixed(0)} dB too weak.`
}

/** What a cable to each outlet would change. */
function WithACable({ found }: { found: Suggestion }) {
  if (found.cables.length === 0) return null
  return (
    <ul className="mt-3" aria-label="What a cable would change">
      {found.cables.map(({ where, placement }) => {
        const now = found.proposals[0]
        const saved = now?.holds ? now.units.length - placement.units.length : 0
        return (
          <li key={where}>
            <b>A cable to the {where}</b>{' '}
            {saved > 0 ? `saves ${saved} ${saved === 1 ? 'unit' : 'units'}` : 'brings every room above the floor'}:{' '}
            {placement.units.map((unit) => unit.where.replace(/, by cable$/, '')).join('; ')}. {comesTo(placement)}
          </li>
        )
      })}
    </ul>
  )
}

/** Where each school of placement would put the next unit, and what it comes to. */
function BySchool({ found }: { found: Suggestion }) {
  if (found.schools.length === 0) return null
  return (
    <table className="mt-3 w-full text-left text-sm">
      <caption className="label pb-1 text-left">What each school would do</caption>
      <thead className="fine">
        <tr>
          <th className="py-1 font-normal">The next unit goes</th>
          <th className="font-normal">That is</th>
          <th className="font-normal">It comes to</th>
        </tr>
      </thead>
      <tbody>
        {found.schools.map(({ school, placement, joined }) => (
          <tr key={school} className="border-t border-rule align-top">
            <th scope="row" className="py-1.5 pr-3 font-normal">
              {schoolWords[school]}
            </th>
            <td className="py-1.5 pr-3">{placement ? placement.units.map(({ where }) => where).join('; ') : ''}</td>
            <td className="py-1.5">
              {placement && !joined && `${unjoined} If it did: `}
              {placement ? comesTo(placement) : withoutPlacement(found.proposals[0])}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
