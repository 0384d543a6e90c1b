import { useMemo, type ReactNode } from 'react'
import { modelOf, type Catalogue } from '@pasado/core/catalogue/model'
import { standing, unitName, type Unit, type VisitRecord } from '@pasado/core/record/record'
import { listed } from '@pasado/core/values/list'
import type { KnownUnit } from '@pasado/core/work/units/known-unit'
import { runAsOne } from '@pasado/core/work/units/run-as-one'
import { useVisit } from '../session/visit-state'

const known = (catalogue: Catalogue, unit: Unit): KnownUnit => ({
  unit,
  model: modelOf(unit, catalogue) ?? null,
  name: unitName(unit)
})

function groupOf(record: VisitRecord, catalogue: Catalogue, unit: Unit): Unit[] {
  const units = standing(record.units).map((each) => known(catalogue, each))
  return runAsOne(units, units.find((each) => each.unit.id === unit.id) ?? known(catalogue, unit)).map(
    (each) => each.unit
  )
}

/** The units that are run as one with a unit, whoever leads first; the unit alone where it is run by itself. */
function useRunAsOne(unit: Unit): Unit[] {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  return useMemo(() => groupOf(record, catalogue, unit), [record, catalogue, unit])
}

/**
 * What is asked of a unit: where it is run as one with others, it is answered on the one that leads, and on it only where it differs.
 * @param differs whether something was answered on the unit itself
 */
export function AnsweredOnce({ unit, differs, children }: { unit: Unit; differs: boolean; children: ReactNode }) {
  const [leader, ...others] = useRunAsOne(unit)
  if (others.length === 0) return children
  if (leader!.id === unit.id)
    return (
      <>
        <p className="fine">
          Answered here for all that are run as one with it: {listed(others.map((other) => unitName(other)))}.
        </p>
        {children}
      </>
    )
  return (
    <details open={differs || undefined}>
      <summary className="min-h-11 cursor-pointer py-2">
        Run as one with <b>{unitName(leader!)}</b>: what is answered there counts here.{' '}
        <span className="underline">{differs ? 'Answered apart' : 'Answer it apart'}</span>
      </summary>
      {children}
    </details>
  )
}
