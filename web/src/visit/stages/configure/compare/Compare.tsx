import { standing } from '@pasado/core/record/record'
import { ReadUnit } from '../../start/ReadUnit'
import { useVisit } from '../../../session/visit-state'

/** Configure: what the record says beside what each unit tells; differences taken one by one. */
export function Compare() {
  const units = standing(useVisit((state) => state.record.units))
  if (units.length === 0) return <p>No unit yet: add them under Kit.</p>
  return (
    <div className="flex flex-col gap-4">
      <p className="text-soft">
        Read each unit from the simulated house, or from a dump of its parameters: JSON, or lines of name=value. What is
        secret in it is left out.
      </p>
      {units.map((unit) => (
        <ReadUnit key={unit.id} unit={unit} dumps />
      ))}
    </div>
  )
}
