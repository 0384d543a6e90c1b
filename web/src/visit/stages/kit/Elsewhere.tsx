import { useId, useState } from 'react'
import { format } from 'date-fns'
import { Link } from 'react-router'
import { elsewhereNow, type Unit } from '@pasado/core/record/record'
import { useMayWrite } from '../../session/facts'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { useRead } from '../../../app/read'
import { Input } from '../../../ui/Field'

/** The same serial or MAC address stands at another home: where, since when, and the move, if the unit was really brought from there. */
export function Elsewhere({ unit }: { unit: Unit }) {
  const found = elsewhereNow(unit)
  if (found.length === 0) return null
  return (
    <ul className="mt-3">
      {found.map((sighting) => (
        <There
          key={sighting.home}
          unit={unit}
          home={sighting.home}
          by={sighting.by}
          since={sighting.since}
          sealed={sighting.sealed}
        />
      ))}
    </ul>
  )
}

function There({
  unit,
  home,
  by,
  since,
  sealed
}: {
  unit: Unit
  home: string
  by: 'serial' | 'mac'
  since: string
  sealed: boolean
}) {
  const mayWrite = useMayWrite()
  const known = useRead('GET /homes/:id', { params: { id: home } }).value?.home
  const [moving, setMoving] = useState(false)
  const [reason, setReason] = useState('')
  const inputId = useId()
  return (
    <li role="group" aria-label="Recorded at another home" className="bg-inv p-3 text-oninv">
      <p>
        <b>This {by === 'mac' ? 'MAC address' : 'serial'} is recorded at another home</b>,{' '}
        {sealed ? 'live there' : 'in a visit still open'} since {format(new Date(since), 'd MMMM yyyy')}:{' '}
        <Link className="underline" to={`/homes/${home}`}>
          {known ? `${known.street}, ${known.town}` : 'that home'}
        </Link>
        .
      </p>
      <p className="text-sm">Most likely one of the two labels was read wrong. Read this unit’s own label again.</p>
      {mayWrite &&
        (moving ? (
          <form
            className="mt-2"
            onSubmit={(event) => {
              event.preventDefault()
              if (reason.trim()) write('unit.transferred', { unit: unit.id, from: home, reason: reason.trim() })
            }}
          >
            <label className="label" htmlFor={inputId}>
              Why is it here now?
            </label>
            <div className="mt-1 flex flex-wrap gap-2">
              <Input
                id={inputId}
                className="grow basis-56"
                autoFocus
                maxLength={600}
                value={reason}
                onChange={(event) => setReason(event.target.value)}
              />
              <Button type="submit" disabled={!reason.trim()}>
                Record the move
              </Button>
            </div>
          </form>
        ) : (
          <Button className="mt-2" onClick={() => setMoving(true)}>
            It was really brought from there
          </Button>
        ))}
    </li>
  )
}
