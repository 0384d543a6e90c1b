import { unitName, type Unit } from '@pasado/core/record/record'
import { spareTold, spareWords } from '@pasado/core/record/spares'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'
import { write } from '../../session/write'

/** A unit of a box that is not needed goes from the visit, and where it went is kept. */
export function Spare({ unit: { id } }: { unit: Unit }) {
  return (Object.keys(spareWords) as (keyof typeof spareWords)[]).map((spare) => (
    <Button
      key={spare}
      kind="quiet"
      onClick={() => {
        write('unit.set', { id, set: { spare } })
        write('thing.removed', { thing: 'unit', id })
      }}
    >
      Not needed: {spareWords[spare]}
    </Button>
  ))
}

/** Units of a box that were not needed, and where they went; their labels stay known. */
export function SparesOfBox({ spares, mayWrite }: { spares: readonly Unit[]; mayWrite: boolean }) {
  if (spares.length === 0) return null
  return (
    <section aria-label="Spare units of this box" className="mt-4">
      <h3 className="text-lg">Not needed</h3>
      <List framed className="mt-1">
        {spares.map((unit) => (
          <li key={unit.id} className="flex min-h-11 flex-wrap items-center justify-between gap-x-4">
            {spareTold(unit)}
            {mayWrite && (
              <Button
                kind="quiet"
                aria-label={`Put to use after all: ${unitName(unit)}`}
                onClick={() => {
                  write('thing.restored', { thing: 'unit', id: unit.id })
                  write('unit.set', { id: unit.id, set: { spare: null } })
                }}
              >
                Put to use after all
              </Button>
            )}
          </li>
        ))}
      </List>
    </section>
  )
}
