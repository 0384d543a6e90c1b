import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { contentsOf } from '@pasado/core/work/units/boxes'
import { standing } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { AddBox, AddUsedUnit } from './AddBox'
import { BoxWork } from './BoxWork'
import { UnitKit } from './UnitKit'
import { UnitsFromHouse } from '../../frame/HouseOfVisit'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { UnitColumn, useChosenUnit } from '../../frame/UnitColumn'
import { Button } from '../../../ui/Button'

/** Kit: every box looked through, every unit read from its own label. */
export function Kit() {
  const mayWrite = useMayWrite()
  const boxes = standing(useVisit((state) => state.record.boxes) ?? {})
  const catalogue = useVisit((state) => state.catalogue)
  const { unit, units } = useChosenUnit()
  const [search, setSearch] = useSearchParams()
  const [adding, setAdding] = useState<'box' | 'unit' | null>(null)
  const asked = boxes.find(({ id }) => id === search.get('box') || search.get('at') === `item.${id}.items`)
  // Where nothing was asked for, a box that is still closed comes first: it is opened before its units have labels.
  const box = asked ?? (!search.get('unit') && units.length === 0 ? boxes[0] : undefined)
  const head = (
    <div className="border-b border-rule pb-2">
      <h2 className="fine px-4 pb-1 pt-4 font-bold">Boxes</h2>
      <ul className="flex overflow-x-auto lg:block">
        {boxes.map((listed) => {
          const contents = contentsOf(listed, catalogue)
          const left = contents?.items.filter(({ item }) => !listed.items[item]).length ?? 0
          const odd = Object.values(listed.items).filter(
            ({ state }) => state === 'missing' || state === 'damaged'
          ).length
          return (
            <li key={listed.id} className="min-w-52 lg:min-w-0">
              <button
                type="button"
                aria-pressed={listed.id === box?.id}
                onClick={() => setSearch({ box: listed.id }, { replace: true })}
                className={`block min-h-11 w-full border-l-[5px] px-3 py-2 text-left ${listed.id === box?.id ? 'border-plum bg-sheet' : 'border-transparent hover:bg-sheet'}`}
              >
                <span className="block font-bold leading-tight">{contents?.title ?? 'not in the catalogue'}</span>
                <span className="fine">{left ? `${left} to look at` : `complete${odd ? ` but for ${odd}` : ''}`}</span>
              </button>
            </li>
          )
        })}
      </ul>
      {boxes.length === 0 && <p className="px-4 py-1 text-soft">None yet.</p>}
      {mayWrite && (
        <p className="px-4 pt-1" data-place={placeKey({ kind: 'unit', id: 'new', field: 'model' })}>
          <Button className="w-full" onClick={() => setAdding('box')}>
            Add a box
          </Button>
        </p>
      )}
    </div>
  )
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:min-h-full lg:grid-cols-[228px_minmax(0,1fr)]">
      <div className="lg:col-span-2 empty:hidden">
        <UnitsFromHouse />
      </div>
      <UnitColumn
        head={head}
        quiet={box !== undefined}
        foot={
          mayWrite ? (
            <Button className="w-full" onClick={() => setAdding('unit')}>
              Add a used unit
            </Button>
          ) : null
        }
      />
      <div className="min-w-0 p-4 lg:p-5" key={box?.id ?? unit?.id}>
        {box && (
          <BoxWork
            box={box}
            onStay={() => setSearch({ box: box.id }, { replace: true })}
            onUnit={(id) => setSearch({ unit: id }, { replace: true })}
          />
        )}
        {!box && unit && <UnitKit unit={unit} />}
        {!box && !unit && (
          <div className="max-w-xl">
            <h2 className="text-xl">Kit</h2>
            <p className="mt-2">
              Add each box that goes out, look through it, and read every unit’s label while it can still be read.
            </p>
          </div>
        )}
      </div>
      <AddBox
        open={adding === 'box'}
        onClose={() => setAdding(null)}
        onAdded={(id) => setSearch({ box: id, at: `item.${id}.items` }, { replace: true })}
      />
      <AddUsedUnit
        open={adding === 'unit'}
        onClose={() => setAdding(null)}
        onAdded={(id) => setSearch({ unit: id, at: `unit.${id}.name` }, { replace: true })}
      />
    </div>
  )
}
