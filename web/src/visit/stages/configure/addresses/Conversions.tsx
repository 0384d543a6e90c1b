import { useMemo } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { conversionOf, modesCompared } from '@pasado/core/work/configure/conversion'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { List } from '../../../../ui/List'

/** Old routers that are access points here: each conversion worked out, step by step. */
export function Conversions() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const units = standing(record.units).filter(
    ({ facts }) =>
      facts.role === 'access-point' &&
      catalogue
        .get(`${facts.model ?? ''}@${facts.modelVersion ?? 1}`)
        ?.methods.some(({ kind }) => kind === 'access-point')
  )
  if (units.length === 0) return null
  return (
    <div className="flex flex-col gap-6">
      {units.map((unit) => (
        <OneConversion key={unit.id} unit={unit} />
      ))}
      <details>
        <summary className="min-h-11 py-2 font-bold">Router or access point: what each means here</summary>
        <table className="w-full text-left text-sm">
          <thead className="fine">
            <tr>
              <th className="py-1 font-normal" />
              <th className="font-normal">As a router</th>
              <th className="font-normal">As an access point</th>
            </tr>
          </thead>
          <tbody>
            {modesCompared(record).map(({ what, router, accessPoint }) => (
              <tr key={what} className="border-t border-rule align-top">
                <th scope="row" className="py-1.5 pr-3">
                  {what}
                </th>
                <td className="py-1.5 pr-3">{router}</td>
                <td className="py-1.5">{accessPoint}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </div>
  )
}

function OneConversion({ unit }: { unit: Unit }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const school = useVisit((state) => state.standard.policy.poolSchool)
  const mayWrite = useMayWrite()
  const found = useMemo(() => conversionOf(record, catalogue, unit, school), [record, catalogue, unit, school])
  const name = unitName(unit)
  if ('missing' in found)
    return (
      <section aria-label={`Conversion of ${name}`} className="paper p-4">
        <h3>{name} made an access point</h3>
        <p className="mt-1">{found.missing}</p>
      </section>
    )
  const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id)
  const recorded = host?.facts.address === found.address && host.facts.segment === found.segment.id
  return (
    <section aria-label={`Conversion of ${name}`} className="paper p-4">
      <h3>{name} made an access point</h3>
      <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
        {(
          [
            ['Answers now at', found.from ?? 'the address on its label'],
            ['Its new address', found.address],
            ['Mask', found.mask],
            ['Gateway', found.gateway]
          ] as const
        ).map(([what, value]) => (
          <div key={what}>
            <dt className="fine">{what}</dt>
            <dd className="exact font-bold">{value}</dd>
          </div>
        ))}
      </dl>
      {mayWrite && !recorded && (
        <Button
          className="mt-2"
          onClick={() =>
            write('host.set', {
              id: host?.id ?? uuidv7(),
              set: { unit: unit.id, segment: found.segment.id, address: found.address },
              origin: 'calculated'
            })
          }
        >
          Record {found.address} for it
        </Button>
      )}
      <List as="ol" framed className="mt-3" aria-label={`Steps for ${name}`}>
        {found.steps.map((step, at) => (
          <li
            key={at}
            className={`grid grid-cols-[2rem_minmax(0,1fr)] gap-x-2 py-2 ${step.cuts ? 'border-l-[5px] border-l-ink pl-2' : 'pl-[13px]'}`}
          >
            <b className="text-soft">{at + 1}</b>
            <div>
              <p>
                <b>{step.do}</b>
                {step.done && <span className="fine"> · recorded</span>}
              </p>
              <p className="text-sm">
                Before you go on: {step.check[0]!.toLowerCase()}
                {step.check.slice(1)}{' '}
                <span className="text-soft">
                  If not: {step.ifLost[0]!.toLowerCase()}
                  {step.ifLost.slice(1)}
                </span>
              </p>
              {step.cuts && <p className="fine">This cuts you off: join again, then go on.</p>}
            </div>
          </li>
        ))}
      </List>
    </section>
  )
}
