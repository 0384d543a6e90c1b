import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { causes } from '@pasado/core/work/diagnose/causes'
import { aboutWords, type Complaint } from './complaint'
import { SearchWork } from './SearchWork'
import { listedRooms } from '@pasado/core/work/prove/rooms'
import { standing, unitName, type VisitRecord } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { List } from '../../../ui/List'
import { Field, Select } from '../../../ui/Field'

/** Finding the fault: what is known already, the next thing to look at, the causes and why, and the mend. */
export function FindFault() {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const searches = Object.values(record.searches ?? {}).sort((a, b) => b.seq - a.seq)
  const open = searches.find(({ found }) => found === null)
  return (
    <div className="flex flex-col gap-4">
      {mayWrite && !open && <Begin record={record} />}
      {!mayWrite && !open && searches.length === 0 && <p>No fault was looked for.</p>}
      {open && <SearchWork key={open.id} search={open} />}
      {searches.filter(({ found }) => found !== null).length > 0 && (
        <section aria-label="Faults found">
          <h3>Found at this visit</h3>
          <List framed className="mt-1">
            {searches
              .filter(({ found }) => found !== null)
              .map(({ id, about, found }) => (
                <li key={id} className="py-2">
                  <b>{causes.find((cause) => cause.id === found!.cause)?.name ?? found!.cause}</b>
                  {aboutWords(record, about)}:{' '}
                  {
                    {
                      mended: 'mended, and it works',
                      provider: 'handed over to the provider',
                      maker: 'handed over to the maker',
                      left: 'left as it is'
                    }[found!.end]
                  }
                  .
                </li>
              ))}
          </List>
        </section>
      )}
    </div>
  )
}

function Begin({ record }: { record: VisitRecord }) {
  const units = standing(record.units).filter(({ facts }) => facts.role !== 'modem')
  const [unit, setUnit] = useState(units[0]?.id ?? '')
  const [room, setRoom] = useState('')
  if (units.length === 0) return <p>No unit yet: add them under Kit.</p>
  return (
    <form
      className="paper flex flex-wrap items-end gap-3 p-4"
      aria-label="A new search"
      onSubmit={(event) => {
        event.preventDefault()
        beginSearch({ unit: unit || undefined, room: room || undefined })
      }}
    >
      <Field label="What does not work" className="grow basis-40">
        <Select value={unit} onChange={(event) => setUnit(event.target.value)}>
          {units.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {unitName(choice)}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="In which room" className="grow basis-40">
        <Select value={room} onChange={(event) => setRoom(event.target.value)}>
          <option value="">everywhere, or not known</option>
          {listedRooms(record).map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.facts.name ?? 'Room'}
            </option>
          ))}
        </Select>
      </Field>
      <Button type="submit" kind="main">
        Find the fault
      </Button>
    </form>
  )
}

/** Begins a search. */
export function beginSearch(about: Complaint): void {
  write('fault.search', {
    search: uuidv7(),
    about: { ...(about.unit ? { unit: about.unit } : {}), ...(about.room ? { room: about.room } : {}) }
  })
}
