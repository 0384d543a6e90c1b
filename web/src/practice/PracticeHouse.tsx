import { useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { Lens } from '../ui/Lens'
import { Chips } from '../ui/Chips'
import { saveJson } from '../app/save-file'
import { HouseCables } from './HouseCables'
import { HouseUnitWork } from './HouseUnitWork'
import { speeds, useHouse, type Speed } from './use-house'
import { Button } from '../ui/Button'
import { List } from '../ui/List'

const clockOf = (seconds: number) =>
  `${Math.floor(seconds / 3600)}:${String(Math.floor(seconds / 60) % 60).padStart(2, '0')}:${String(Math.floor(seconds) % 60).padStart(2, '0')}`
const speedWords: Record<Speed, string> = { 0: 'stop', 1: '1×', 10: '10×', 60: '60×' }

/** One simulated house: its clock, its units with their lamps, its cables, and what has happened. */
export function PracticeHouse() {
  const { house: id } = useParams()
  const [search] = useSearchParams()
  const visit = search.get('visit')
  const { house, problem, speed, setSpeed, act, toNext } = useHouse(id ?? '')
  const [chosen, setChosen] = useState<string | null>(null)
  if (problem && !house)
    return (
      <main className="p-6">
        <p role="alert" className="font-bold">
          {problem}
        </p>
        <p className="mt-2">
          <Link className="underline" to="/practice">
            All houses
          </Link>
        </p>
      </main>
    )
  if (!house)
    return (
      <p className="p-6 text-soft" role="status">
        Opening the house …
      </p>
    )
  const units = [...house.units.values()]
  const unit = house.units.get(chosen ?? '') ?? units[0]!
  return (
    <main className="mx-auto max-w-7xl p-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="grow">
          <h1 className="text-xl">{house.definition.name}</h1>
          <p className="fine">{house.definition.says}</p>
        </div>
        {visit && (
          <Link className="btn" to={`/visit/${visit}/start`}>
            Back to the visit
          </Link>
        )}
        <p className="exact text-2xl" role="timer" aria-label="Time in the house">
          {clockOf(house.now)}
        </p>
        <Chips
          label="Speed"
          value={String(speed) as `${Speed}`}
          options={speeds.map((choice) => ({ value: String(choice) as `${Speed}`, label: speedWords[choice] }))}
          onChoose={(next) => setSpeed(Number(next) as Speed)}
        />
        <Button disabled={house.nextAt === null} onClick={toNext}>
          To what happens next
        </Button>
      </div>
      {problem && (
        <p role="alert" className="mt-2 bg-inv p-2 font-bold text-oninv">
          {problem}
        </p>
      )}
      <div className="mt-3 grid gap-4 lg:grid-cols-[15rem_minmax(0,1fr)_18rem]">
        <ul aria-label="Units of the house" className="flex gap-1 overflow-x-auto lg:flex-col">
          {units.map(({ definition, powered }) => {
            const shown = house.shows(definition.id)
            const look = shown.lamps[0]
            const on = definition.id === unit.definition.id
            return (
              <li key={definition.id} className="min-w-48 lg:min-w-0">
                <button
                  type="button"
                  aria-pressed={on}
                  onClick={() => setChosen(definition.id)}
                  className={`grid min-h-11 w-full grid-cols-[32px_1fr] items-center gap-3 border-l-[5px] px-3 py-2 text-left ${on ? 'border-plum bg-sheet' : 'border-transparent hover:bg-sheet'}`}
                >
                  {look ? <Lens colour={look.colour} pattern={look.pattern} /> : <span />}
                  <span>
                    <b className="block">{definition.name}</b>
                    <span className="fine">
                      {definition.at?.storey ?? ''}
                      {powered ? '' : ', off'}
                    </span>
                  </span>
                </button>
              </li>
            )
          })}
        </ul>
        <div className="min-w-0">
          <HouseUnitWork key={unit.definition.id} house={house} unit={unit} act={act} />
          <HouseCables house={house} act={act} />
        </div>
        <section aria-label="What happened">
          <h2 className="text-lg">What happened</h2>
          <List
            reversed
            as="ol"
            framed
            className="mt-1 max-h-[60dvh] overflow-y-auto"
            tabIndex={0}
            aria-label="Events, newest first"
          >
            {house.events
              .slice(-60)
              .toReversed()
              .map((event, index) => (
                <li key={house.events.length - index} className="py-1 text-sm">
                  <span className="exact text-soft">{clockOf(event.at)}</span>{' '}
                  {event.unit ? <b>{house.units.get(event.unit)?.definition.name}: </b> : null}
                  {event.message}
                </li>
              ))}
          </List>
          {house.events.length === 0 && <p className="text-soft">Nothing yet. Plug something in.</p>}
          <Button
            kind="quiet"
            className="-ml-2 mt-2"
            onClick={() =>
              saveJson('house.json', {
                ...house.definition,
                units: house.definition.units.map(({ login: _, ...rest }) => rest)
              })
            }
          >
            This house as a file
          </Button>
        </section>
      </div>
    </main>
  )
}
