import { standing, unitName } from '@pasado/core/record/record'
import { Cautions } from '../../frame/Cautions'
import { TextFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { BuildFields } from './BuildFields'
import { PlanWork } from './PlanWork'
import { SeenInPlace } from './SeenInPlace'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'

/** Place: where each unit was set up and where it stays. */
export function PlaceStage() {
  const table = useVisit((state) => state.record.units)
  const mayWrite = useMayWrite()
  const units = standing(table)
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Place</h2>
      <div className="mt-3">
        <PlanWork />
      </div>
      <BuildFields />
      <h3 className="mt-5 text-lg">Where each unit stays</h3>
      {units.length === 0 && <p className="mt-4">No unit yet: add them under Kit.</p>}
      <List framed className="mt-3">
        {units.map((unit) => {
          const { place, setUpPlace } = unit.facts
          const moved = unit.events.filter(({ what }) => what === 'moved').at(-1)
          const needsMove = setUpPlace !== undefined && place !== undefined && setUpPlace !== place
          const field = { kind: 'unit', id: unit.id } as const
          return (
            <li key={unit.id} className="grid items-start gap-x-4 gap-y-2 py-3 md:grid-cols-[9rem_1fr_1fr_9rem]">
              <h4 className="pt-1 font-bold md:pt-8">{unitName(unit)}</h4>
              <TextFact {...field} field="place" label="Stays at" />
              <TextFact {...field} field="setUpPlace" label="Was set up at" hint="Only where it was elsewhere." />
              <TextFact {...field} field="heightM" label="Height" type="number" unit="m" />
              {needsMove && (
                <div className="md:col-span-3 md:col-start-2" data-place={`unit.${unit.id}.moveRecorded`}>
                  {moved ? (
                    <p className="fine">The move is recorded.</p>
                  ) : (
                    <Button disabled={!mayWrite} onClick={() => write('unit.event', { unit: unit.id, what: 'moved' })}>
                      It stands at {place} now
                    </Button>
                  )}
                </div>
              )}
              <SeenInPlace unit={unit} />
            </li>
          )
        })}
      </List>
      <Cautions stage="place" />
    </div>
  )
}
