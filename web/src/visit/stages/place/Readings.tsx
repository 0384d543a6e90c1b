import { lazy, Suspense, useId, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { roomAt, type HomePlan } from '@pasado/core/work/plan/home-plan'
import type { PlacedUnit } from '@pasado/core/work/plan/placed'
import type { Band } from '@pasado/core/values/band'
import { predictedDbm } from '@pasado/core/radio/calibrate'
import { learnFrom, type PlannedReading } from '@pasado/core/work/plan/readings'
import { readNumber } from '@pasado/core/values/number'
import { checkField } from '@pasado/core/record/facts'
import { useMayWrite } from '../../session/facts'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Select, Input } from '../../../ui/Field'

const ReadingsChart = lazy(async () => ({ default: (await import('./ReadingsChart')).ReadingsChart }))

/** Readings taken in this home, beside what was predicted; the prediction learns from them. */
export function Readings({
  plan,
  units,
  band,
  readings,
  readAt,
  onWritten
}: {
  plan: HomePlan
  units: readonly PlacedUnit[]
  band: Band
  readings: readonly PlannedReading[]
  readAt: { storey: string; x: number; y: number } | null
  onWritten: () => void
}) {
  const mayWrite = useMayWrite()
  const { calibration, predicted, doubts } = learnFrom(readings)
  if (units.length === 0 || plan.rooms.length === 0) return null
  return (
    <section aria-label="Readings" className="mt-4 border-t border-rule pt-3">
      <h3>Readings in this home, {band} GHz</h3>
      {mayWrite && <AddReading plan={plan} units={units} band={band} readAt={readAt} onWritten={onWritten} />}
      {readings.length > 0 && (
        <>
          <table className="mt-3 w-full text-left text-sm">
            <thead className="fine">
              <tr>
                <th className="py-1 font-normal">Room</th>
                <th className="font-normal">From</th>
                <th className="font-normal">Read</th>
                <th className="font-normal">Predicted</th>
                <th className="font-normal">Off by</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {readings.map(({ reading, room, unit, compared }, at) => {
                const doubt = doubts[at]
                return (
                  <tr key={reading.id} className="border-t border-rule align-top">
                    <th scope="row" className="py-2 font-bold">
                      {room}
                      {reading.facts.x !== undefined && (
                        <span className="fine block font-normal">
                          at {reading.facts.x.toFixed(1)} / {reading.facts.y?.toFixed(1)} m
                        </span>
                      )}
                      {doubt && (
                        <span role="alert" className="block font-normal">
                          This is {doubt}
                        </span>
                      )}
                    </th>
                    <td className="py-2">{unit}</td>
                    <td className="exact py-2">{compared.readDbm} dBm</td>
                    <td className="exact py-2">
                      {predicted[at]!.toFixed(0)} ± {calibration.bandDb.toFixed(0)} dBm
                    </td>
                    <td className="exact py-2">{(compared.readDbm - predicted[at]!).toFixed(0)} dB</td>
                    <td>
                      {mayWrite && (
                        <button
                          type="button"
                          className="min-h-11 min-w-11 text-lg"
                          aria-label={`Take out the reading: ${room}`}
                          onClick={() => write('thing.removed', { thing: 'reading', id: reading.id })}
                        >
                          ×
                        </button>
                      )}
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
          {readings.length > 1 && (
            <Suspense fallback={null}>
              <ReadingsChart
                points={readings.map(({ room, unit, compared }, at) => ({
                  name: `${room}, from ${unit}`,
                  predicted: predicted[at]!,
                  byTheBook: predictedDbm(compared),
                  read: compared.readDbm
                }))}
                bandDb={calibration.bandDb}
              />
            </Suspense>
          )}
          <p className="mt-2" role="status">
            From {readings.length} {readings.length === 1 ? 'reading' : 'readings'}: signal falls with exponent{' '}
            {calibration.exponent.toFixed(2)} here (the book: 2), walls take {calibration.wallFactor.toFixed(2)} times
            the table’s. Spread {calibration.beforeDb.toFixed(1)} dB before, {calibration.afterDb.toFixed(1)} dB after:
            a prediction is right to about ± {calibration.bandDb.toFixed(0)} dB.
          </p>
        </>
      )}
      {readings.length === 0 && (
        <p className="fine mt-2">
          None yet: predictions are by the book, right to about ± 6 dB. Two or three readings behind different walls
          tell most.
        </p>
      )}
    </section>
  )
}

function AddReading({
  plan,
  units,
  band,
  readAt,
  onWritten
}: {
  plan: HomePlan
  units: readonly PlacedUnit[]
  band: Band
  readAt: { storey: string; x: number; y: number } | null
  onWritten: () => void
}) {
  const [unit, setUnit] = useState('')
  const [room, setRoom] = useState('')
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const id = useId()
  const roomThere = readAt && roomAt(plan, readAt)
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    const dbm = readNumber(typed)
    const checked = Number.isNaN(dbm)
      ? { problem: 'must be a number of dBm, such as -64' }
      : checkField('reading', 'dbm', dbm)
    if ('problem' in checked) {
      setProblem(checked.problem)
      return
    }
    if (readAt && !roomThere) {
      setProblem('cannot be placed: the point lies in no room; press inside one')
      return
    }
    write('reading.set', {
      id: uuidv7(),
      set: {
        unit: unit || units[0]!.id,
        room: roomThere?.id ?? (room || plan.rooms[0]!.id),
        band,
        dbm,
        ...(readAt ? { x: readAt.x, y: readAt.y } : {})
      },
      origin: 'measured'
    })
    setTyped('')
    onWritten()
  }
  return (
    <form onSubmit={add} className="mt-2 grid items-end gap-3 sm:grid-cols-[2fr_2fr_1fr_auto]">
      <div>
        <label className="label" htmlFor={`${id}r`}>
          Read in
        </label>
        <Select
          id={`${id}r`}
          className="mt-1"
          value={roomThere?.id ?? (room || plan.rooms[0]!.id)}
          disabled={readAt !== null}
          onChange={(event) => setRoom(event.target.value)}
        >
          {plan.rooms.map((room) => (
            <option key={room.id} value={room.id}>
              {room.name}
            </option>
          ))}
        </Select>
      </div>
      <div>
        <label className="label" htmlFor={`${id}u`}>
          From the unit
        </label>
        <Select
          id={`${id}u`}
          className="mt-1"
          value={unit || units[0]!.id}
          onChange={(event) => setUnit(event.target.value)}
        >
          {units.map((placed) => (
            <option key={placed.id} value={placed.id}>
              {placed.name}
            </option>
          ))}
        </Select>
      </div>
      <div>
        <label className="label" htmlFor={`${id}d`}>
          Signal, dBm
        </label>
        <Input
          id={`${id}d`}
          exact
          className="mt-1"
          inputMode="text"
          autoComplete="off"
          value={typed}
          aria-invalid={problem !== null}
          onChange={(event) => {
            setTyped(event.target.value)
            setProblem(null)
          }}
        />
      </div>
      <Button type="submit">Write it down</Button>
      {readAt && (
        <p className="fine sm:col-span-4">
          At the point {readAt.x.toFixed(1)} / {readAt.y.toFixed(1)} m.
        </p>
      )}
      {problem && (
        <p role="alert" className="font-bold sm:col-span-4">
          Signal {problem}
        </p>
      )}
    </form>
  )
}
