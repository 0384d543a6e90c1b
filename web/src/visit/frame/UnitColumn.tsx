import { useSearchParams } from 'react-router'
import { modelOf } from '@pasado/core/catalogue/model'
import { readLamps } from '@pasado/core/work/units/unit-lamps'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { Lens } from '../../ui/Lens'
import { useVisit } from '../session/visit-state'

/** The unit that is being worked on: the one the address names, else the first. */
export function useChosenUnit(): { units: Unit[]; unit: Unit | undefined; choose: (id: string) => void } {
  const table = useVisit((state) => state.record.units)
  const [search, setSearch] = useSearchParams()
  const units = standing(table)
  const unit = units.find(({ id }) => id === search.get('unit')) ?? units[0]
  return { units, unit, choose: (id) => setSearch({ unit: id }, { replace: true }) }
}

/** Every unit of the home, with its lamps as last seen: choose one to work on. */
export function UnitColumn({
  foot,
  head,
  quiet = false
}: {
  foot?: React.ReactNode
  head?: React.ReactNode
  quiet?: boolean
}) {
  const { units, unit: chosen, choose } = useChosenUnit()
  const catalogue = useVisit((state) => state.catalogue)
  return (
    <div className="min-w-0 border-b border-rule bg-well lg:border-b-0 lg:border-r">
      {head}
      <h2 className="fine px-4 pb-1 pt-4 font-bold">Units at this home</h2>
      <ul className="flex overflow-x-auto lg:block">
        {units.map((unit) => {
          const model = modelOf(unit, catalogue)
          const look = unit.sightings.at(-1)?.lamps[0]
          const reading = model && unit.sightings.length ? readLamps(unit, model) : null
          const says = reading
            ? (reading.state?.meaning ?? 'look again')
            : (unit.facts.role?.replace('-', ' ') ?? 'no role yet')
          const on = !quiet && unit.id === chosen?.id
          return (
            <li key={unit.id} className="min-w-52 lg:min-w-0">
              <button
                type="button"
                aria-pressed={on}
                onClick={() => choose(unit.id)}
                className={`grid min-h-11 w-full grid-cols-[32px_1fr] items-center gap-3 border-l-[5px] px-3 py-2 text-left ${on ? 'border-plum bg-sheet' : 'border-transparent hover:bg-sheet'}`}
              >
                {look ? (
                  <Lens colour={look.colour} pattern={look.pattern} />
                ) : (
                  <span
                    aria-hidden
                    className="size-[26px] justify-self-center rounded-full border-2 border-dotted border-edge"
                  />
                )}
                <span className="min-w-0">
                  <span className="block truncate font-bold">{unitName(unit)}</span>
                  <span className="fine line-clamp-2">{says}</span>
                </span>
              </button>
            </li>
          )
        })}
      </ul>
      {units.length === 0 && <p className="px-4 py-2 text-soft">None yet.</p>}
      {foot && <div className="p-4">{foot}</div>}
    </div>
  )
}

/** A stage that works on one unit at a time: units at the left, the chosen one's work beside. */
export function ByUnit({
  foot,
  children,
  empty
}: {
  foot?: React.ReactNode
  children: (unit: Unit) => React.ReactNode
  empty: React.ReactNode
}) {
  const { unit } = useChosenUnit()
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:min-h-full lg:grid-cols-[228px_minmax(0,1fr)]">
      <UnitColumn foot={foot} />
      <div className="min-w-0 p-4 lg:p-5" key={unit?.id}>
        {unit ? children(unit) : empty}
      </div>
    </div>
  )
}
