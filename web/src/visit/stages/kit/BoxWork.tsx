import { useId, useState } from 'react'
import { Check } from 'lucide-react'
import { v7 as uuidv7 } from 'uuid'
import { contentsOf, unitsToAdd } from '@pasado/core/work/units/boxes'
import { newestModels } from '@pasado/core/catalogue/model'
import { standing, unitName, type KitInVisit, type Unit } from '@pasado/core/record/record'
import { sparesOf } from '@pasado/core/record/spares'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { List } from '../../../ui/List'
import { Notice } from '../../../ui/Notice'
import { Input } from '../../../ui/Field'
import { SparesOfBox } from './Spares'
import { TakeOut } from '../../frame/TakeOut'

const oftenDone = {
  missing: ['took one from the van', 'ordered, a second visit is booked', 'not needed here'],
  damaged: ['took another from the van', 'sent back, a new one is ordered', 'works all the same'],
  extra: ['left with the customer', 'taken back to the store']
}

/** One box: each item ticked, or what is wrong with it and what was done. */
export function BoxWork({
  box,
  onUnit,
  onStay
}: {
  box: KitInVisit
  onUnit: (unit: string) => void
  onStay: () => void
}) {
  const catalogue = useVisit((state) => state.catalogue)
  const record = useVisit((state) => state.record)
  const ofBox = ({ facts }: Unit) => facts.box === box.id
  const units = standing(record.units).filter(ofBox)
  const spares = sparesOf(record).filter(ofBox)
  const mayWrite = useMayWrite()
  const contents = contentsOf(box, catalogue)
  if (!contents) return <p>The catalogue does not hold this box. Take it out and choose it again.</p>
  const { items, title, model } = contents
  const open = items.filter(({ item }) => !box.items[item])
  const extras = Object.entries(box.items).filter(([, checked]) => checked.state === 'extra')
  const newest = newestModels(catalogue.values())
  const missingUnits = unitsToAdd(
    items,
    (id) => newest.get(id),
    [...units, ...spares].map(({ facts }) => facts.model ?? '')
  )
  const unpack = () => {
    onStay()
    if (open.length) write('items.checked', { box: box.id, items: open.map(({ item }) => item), state: 'present' })
    for (const { model: unitModel, name } of missingUnits) {
      write('unit.set', {
        id: uuidv7(),
        set: {
          box: box.id,
          name,
          model: unitModel.id,
          modelVersion: unitModel.version,
          used: false,
          ...(unitModel.roles.length === 1 ? { role: unitModel.roles[0] } : {})
        },
        origin: 'catalogue'
      })
    }
  }
  return (
    <div data-place={placeKey({ kind: 'item', id: box.id, field: 'items' })}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <div>
          <h2 className="text-xl">{title}</h2>
          <p className="text-soft">
            {open.length ? `${items.length - open.length} of ${items.length} looked at` : 'all looked at'}
          </p>
        </div>
        {mayWrite && (open.length > 0 || missingUnits.length > 0) && (
          <Button kind="main" onClick={unpack}>
            <Check aria-hidden size={20} />
            {open.length ? 'All of it is here' : `Add ${missingUnits.map(({ name }) => name).join(', ')}`}
          </Button>
        )}
      </div>
      <List aria-label={`In the box of ${title}`} framed className="mt-4">
        {items.map(({ item, count }) => (
          <Item key={item} box={box} item={item} count={count} mayWrite={mayWrite} />
        ))}
        {extras.map(([item, checked]) => (
          <li key={item} className="flex flex-wrap items-center gap-3 py-2">
            <span className="grow">
              <b>{item}</b>
              <span className="fine block">in the box, but not on its list: {checked.done}</span>
            </span>
            {mayWrite && (
              <Button
                kind="quiet"
                aria-label={`Take back: ${item}`}
                onClick={() => write('items.checked', { box: box.id, items: [item], state: 'open' })}
              >
                Take back
              </Button>
            )}
          </li>
        ))}
      </List>
      {mayWrite && <Extra box={box} known={items.map(({ item }) => item)} />}
      {units.length > 0 && (
        <section aria-label="Units of this box" className="mt-6">
          <h3 className="text-lg">Units of this box</h3>
          <p className="fine">Read each one’s own label before it disappears behind furniture.</p>
          <ul className="mt-2 flex flex-wrap gap-2">
            {units.map((unit) => (
              <li key={unit.id}>
                <Button onClick={() => onUnit(unit.id)}>
                  {unitName(unit)}: {unit.facts.serial && unit.facts.mac ? 'label read' : 'read its label'}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <SparesOfBox spares={spares} mayWrite={mayWrite} />
      {model.twin && (
        <Notice as="p" edge="plum" small className="mt-4">
          {model.twin}
        </Notice>
      )}
      {mayWrite && (
        <p className="mt-6">
          <TakeOut thing="box" className="-ml-2" id={box.id}>
            Take this box out of the visit
          </TakeOut>
        </p>
      )}
    </div>
  )
}

function Item({ box, item, count, mayWrite }: { box: KitInVisit; item: string; count: number; mayWrite: boolean }) {
  const held = box.items[item]
  const [asking, setAsking] = useState<'missing' | 'damaged' | null>(null)
  const say = (state: 'present' | 'open') => {
    setAsking(null)
    write('items.checked', { box: box.id, items: [item], state })
  }
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <span className="min-w-0 grow basis-52">
          <span className="exact mr-2 text-soft">{count} ×</span>
          <b>{item}</b>
          {held && held.state !== 'present' && (
            <span className="block text-sm">
              <b>{held.state}</b>: {held.done}
            </span>
          )}
        </span>
        <span role="group" aria-label={item} className="flex gap-2">
          <button
            type="button"
            className="chip"
            aria-pressed={held?.state === 'present'}
            data-state={held?.state === 'present' ? 'on' : 'off'}
            disabled={!mayWrite}
            onClick={() => say(held?.state === 'present' ? 'open' : 'present')}
          >
            here
          </button>
          {(['missing', 'damaged'] as const).map((state) => (
            <button
              key={state}
              type="button"
              className="chip"
              aria-pressed={held?.state === state}
              aria-expanded={asking === state}
              data-state={held?.state === state ? 'on' : 'off'}
              disabled={!mayWrite}
              onClick={() => setAsking(asking === state ? null : state)}
            >
              {state}
            </button>
          ))}
        </span>
      </div>
      {asking && (
        <WhatWasDone
          about={`${item}, ${asking}`}
          often={oftenDone[asking]}
          onDone={(done) => {
            write('items.checked', { box: box.id, items: [item], state: asking, done })
            setAsking(null)
          }}
        />
      )}
    </li>
  )
}

function WhatWasDone({
  about,
  often,
  onDone
}: {
  about: string
  often: readonly string[]
  onDone: (done: string) => void
}) {
  const [done, setDone] = useState('')
  const inputId = useId()
  return (
    <form
      className="mt-2 border-l-4 border-edge bg-well p-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (done.trim()) onDone(done.trim())
      }}
    >
      <label className="label" htmlFor={inputId}>
        {about}: what was done?
      </label>
      <div className="mt-1 flex gap-2">
        <Input
          id={inputId}

          value={done}
          maxLength={300}
          autoFocus
          autoComplete="off"
          onChange={(event) => setDone(event.target.value)}
        />
        <Button type="submit" className="shrink-0 whitespace-nowrap" disabled={!done.trim()}>
          Write it down
        </Button>
      </div>
      <p className="mt-2 flex flex-wrap gap-2">
        {often.map((usual) => (
          <button key={usual} type="button" className="chip" onClick={() => onDone(usual)}>
            {usual}
          </button>
        ))}
      </p>
    </form>
  )
}

/** Something in the box that is not on its list. */
function Extra({ box, known }: { box: KitInVisit; known: readonly string[] }) {
  const [item, setItem] = useState('')
  const [asking, setAsking] = useState(false)
  const inputId = useId()
  const again = known.includes(item.trim())
  return (
    <details className="mt-2">
      <summary className="min-h-11 py-2 underline underline-offset-4">Something else was in the box</summary>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (item.trim() && !again) setAsking(true)
        }}
      >
        <div className="grow basis-52">
          <label className="label" htmlFor={inputId}>
            What is it?
          </label>
          <Input
            id={inputId}
            className="mt-1"
            value={item}
            maxLength={120}
            autoComplete="off"
            onChange={(event) => {
              setItem(event.target.value)
              setAsking(false)
            }}
          />
        </div>
        <Button type="submit" disabled={!item.trim() || again}>
          Note it
        </Button>
      </form>
      <Problem message={again && 'This is on the list of the box; tick it there.'} className="mt-1" />
      {asking && (
        <WhatWasDone
          about={item.trim()}
          often={oftenDone.extra}
          onDone={(done) => {
            write('items.checked', { box: box.id, items: [item.trim()], state: 'extra', done })
            setItem('')
            setAsking(false)
          }}
        />
      )}
    </details>
  )
}
