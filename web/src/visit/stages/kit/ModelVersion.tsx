import { useState } from 'react'
import { modelChanges } from '@pasado/core/catalogue/changes'
import { breaksOnMove } from '@pasado/core/work/units/breaks-on-move'
import { newestModels, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { Sheet } from '../../../ui/Sheet'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { ChangeList } from './ChangeList'
import { Button } from '../../../ui/Button'

/** A newer version of the unit's model is in the catalogue: what changed, and the move to it. */
export function ModelVersion({ unit, model }: { unit: Unit; model: Model }) {
  const newest = newestModels(useVisit((state) => state.catalogue).values()).get(model.id)
  const mayWrite = useMayWrite()
  const [open, setOpen] = useState(false)
  if (!newest || newest.version <= model.version || !mayWrite) return null
  const changes = modelChanges(model, newest)
  const broken = breaksOnMove(unit, newest)
  return (
    <>
      <p className="mt-2 flex flex-wrap items-center gap-x-3 border-l-4 border-plum bg-well px-2 py-1 text-sm">
        The catalogue holds version {newest.version} of this model; this visit began with {model.version}.
        <button type="button" className="min-h-11 underline underline-offset-4" onClick={() => setOpen(true)}>
          See what changed
        </button>
      </p>
      <Sheet
        open={open}
        onClose={() => setOpen(false)}
        title={`${model.maker} ${model.name}, version ${model.version} to ${newest.version}`}
        description={`${changes.length} ${changes.length === 1 ? 'change' : 'changes'}.`}
        wide
      >
        <ChangeList changes={changes} />
        {broken.length > 0 && (
          <div className="mt-4 bg-inv p-3 text-oninv">
            <p className="font-bold">What is recorded of this unit would no longer fit:</p>
            <ul className="list-disc pl-5">
              {broken.map((fault) => (
                <li key={fault}>{fault}</li>
              ))}
            </ul>
            <p className="mt-1 text-sm">Nothing of it is lost; the docket then shows what to mend.</p>
          </div>
        )}
        <div className="mt-4 flex flex-wrap gap-2">
          <Button
            kind="main"
            onClick={() => {
              write('unit.set', { id: unit.id, set: { modelVersion: newest.version }, origin: 'catalogue' })
              setOpen(false)
            }}
          >
            Move to version {newest.version}
          </Button>
          <Button kind="quiet" onClick={() => setOpen(false)}>
            Stay with {model.version}
          </Button>
        </div>
      </Sheet>
    </>
  )
}
