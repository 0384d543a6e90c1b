import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { boxesOf, type KitBox } from '@pasado/core/work/units/boxes'
import { byMaker, newestModels, type Model } from '@pasado/core/catalogue/model'
import { Sheet } from '../../../ui/Sheet'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Input } from '../../../ui/Field'
import { List } from '../../../ui/List'

/** Models and their boxes, found by maker, name and role. Choosing one is left to the caller. */
function ModelList({
  boxes,
  onChoose
}: {
  boxes: (model: Model) => readonly KitBox[]
  onChoose: (model: Model, box: KitBox) => void
}) {
  const catalogue = useVisit((state) => state.catalogue)
  const [wanted, setWanted] = useState('')
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = [...newestModels(catalogue.values()).values()]
    .filter((model) => {
      const text = `${model.maker} ${model.name} ${model.roles.join(' ')}`.toLowerCase()
      return words.every((word) => text.includes(word))
    })
    .sort(byMaker)
  return (
    <>
      <label className="label" htmlFor="model-wanted">
        Find a model
      </label>
      <Input
        id="model-wanted"
        className="mt-1"
        value={wanted}
        autoComplete="off"
        onChange={(event) => setWanted(event.target.value)}
        placeholder="maker, name or role"
      />
      <List framed className="mt-3">
        {found.flatMap((model) =>
          boxes(model).map((box, at) => (
            <li key={`${model.id} ${box.id}`}>
              <button
                type="button"
                className="flex min-h-13 w-full flex-wrap items-center justify-between gap-x-4 px-2 py-2 text-left hover:bg-well"
                onClick={() => onChoose(model, box)}
              >
                <span>
                  <b>
                    {model.maker} {model.name}
                  </b>
                  {at > 0 && <span>, {box.name}</span>}
                  <span className="fine block">
                    {box.items.map(({ item, count }) => `${count} × ${item}`).join(', ')}
                  </span>
                </span>
                <span className="fine">{model.roles.map((role) => role.replace('-', ' ')).join(', ')}</span>
              </button>
            </li>
          ))
        )}
      </List>
      {found.length === 0 && <p className="mt-3">No model is called that. A lead can add it to the catalogue.</p>}
    </>
  )
}

/** Which kit goes out: a model in one of its boxes. */
export function AddBox({
  open,
  onClose,
  onAdded
}: {
  open: boolean
  onClose: () => void
  onAdded: (box: string) => void
}) {
  const add = (model: Model, box: KitBox) => {
    const id = uuidv7()
    write('box.set', { id, set: { model: model.id, modelVersion: model.version, kit: box.id }, origin: 'catalogue' })
    onClose()
    onAdded(id)
  }
  return (
    <Sheet open={open} onClose={onClose} title="Add a box" description="Which kit is it?" wide>
      <ModelList boxes={boxesOf} onChoose={add} />
    </Sheet>
  )
}

/** A unit that came in no box: one that is here already, or was used elsewhere. */
export function AddUsedUnit({
  open,
  onClose,
  onAdded
}: {
  open: boolean
  onClose: () => void
  onAdded: (unit: string) => void
}) {
  const add = (model: Model) => {
    const id = uuidv7()
    write('unit.set', {
      id,
      set: {
        name: model.name,
        model: model.id,
        modelVersion: model.version,
        used: true,
        ...(model.roles.length === 1 ? { role: model.roles[0] } : {})
      },
      origin: 'catalogue'
    })
    onClose()
    onAdded(id)
  }
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Add a used unit"
      description="One without a box: it is reset before it is configured, and its label read all the same."
      wide
    >
      <ModelList boxes={(model) => boxesOf(model).slice(0, 1)} onChoose={add} />
    </Sheet>
  )
}
