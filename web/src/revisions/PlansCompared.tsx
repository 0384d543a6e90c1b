import { planOf } from '@pasado/core/work/plan/home-plan'
import { placedUnits } from '@pasado/core/work/plan/placed'
import { planSvg } from '@pasado/core/work/plan/plan-svg'
import { unitName, type VisitRecord } from '@pasado/core/record/record'

/** Each storey of a record with what it looks like on paper, and what tells one look of it from another. */
function storeysOf(record: VisitRecord) {
  const plan = planOf(record)
  const placed = placedUnits(record, plan)
  return plan.storeys.map(({ id, name }) => {
    const units = placed
      .filter(({ storey }) => storey === id)
      .map(({ x, y, storey, unit }) => ({ x, y, storey, name: unitName(unit) }))
    return {
      id,
      name,
      units: units.map((unit) => unit.name).join(', '),
      svg: planSvg(plan, { storey: id, title: name, units })
    }
  })
}

/** Storeys that are drawn otherwise, or hold other units, before and after: side by side. */
export function PlansCompared({
  before,
  after,
  labels
}: {
  before: VisitRecord
  after: VisitRecord
  labels: [string, string]
}) {
  const [old, now] = [storeysOf(before), storeysOf(after)]
  const differing = [...new Set([...old, ...now].map(({ id }) => id))]
    .map((id) => [old.find((candidate) => candidate.id === id), now.find((candidate) => candidate.id === id)] as const)
    .filter(([a, b]) => a?.svg !== b?.svg)
  if (differing.length === 0) return null
  return (
    <ul aria-label="The plan before and after" className="flex flex-wrap gap-4">
      {differing.map((pair) => (
        <li key={(pair[1] ?? pair[0])!.id} className="paper flex max-w-full gap-3 p-3">
          {pair.map((storey, at) => (
            <figure key={labels[at]} className="m-0 min-w-0">
              <figcaption className="fine">{labels[at]}</figcaption>
              {storey ? (
                <img
                  alt={`${storey.name}, ${labels[at]}: ${storey.units || 'no unit'}`}
                  className="mt-1 max-h-72 max-w-full border border-rule bg-[#FBF8F1]"
                  src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(storey.svg)}`}
                />
              ) : (
                <p className="mt-1 text-sm">not drawn</p>
              )}
            </figure>
          ))}
        </li>
      ))}
    </ul>
  )
}
