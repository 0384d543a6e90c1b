import { format } from 'date-fns'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { readNumber } from '@pasado/core/values/number'
import { compareCheck, type CheckResult, type CheckRoom } from '@pasado/core/work/prove/settled'
import { ApiProblem, ask } from '../app/api'
import { useSession } from '../app/session'
import { Mark } from '../ui/Mark'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { useRead } from '../app/read'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'
import { Field, Input } from '../ui/Field'

type Typed = Partial<Record<string, { dbm: string; down: string; idle: string }>>

/** A look at a home that has settled: each room as it was, as it is now, and what moved. */
export function CheckPage() {
  const { id = '' } = useParams()
  const mayWrite = useSession((state) => state.me?.role !== 'office')
  const [typed, setTyped] = useState<Typed>({})
  const [refused, setProblem] = useState<string | null>(null)
  const {
    value: whole,
    problem: unread,
    again
  } = useRead(
    'GET /checks/:id',
    { params: { id } },
    { otherwise: 'The check could not be loaded; load the page again.' }
  )
  const problem = refused ?? unread
  useTitle('Check')
  if (!whole)
    return (
      <main className="p-6">
        {problem ? (
          <p role="alert" className="font-bold">
            {problem}
          </p>
        ) : (
          <p role="status" className="text-soft">
            Loading the check …
          </p>
        )}
      </main>
    )
  const { check, rooms, floor, result } = whole
  const measuredNow = (room: CheckRoom): CheckResult['rooms'][number] | undefined => {
    if (result) return result.rooms.find((candidate) => candidate.room === room.room)
    const figures = typed[room.room]
    if (!figures || (figures.dbm === '' && figures.down === '' && figures.idle === '')) return undefined
    const number = (text: string) => (text.trim() === '' ? undefined : readNumber(text.replace('−', '-')))
    const [dbm, downMbps, idleMs] = [number(figures.dbm), number(figures.down), number(figures.idle)]
    return {
      room: room.room,
      ...(dbm === undefined ? {} : { dbm }),
      run: { ...(downMbps === undefined ? {} : { downMbps }), ...(idleMs === undefined ? {} : { idleMs }) }
    }
  }
  const send = async () => {
    const now = rooms.flatMap((room) => measuredNow(room) ?? [])
    const wrong = now.find(({ dbm, run }) =>
      [dbm, run.downMbps, run.idleMs].some((value) => value !== undefined && Number.isNaN(value))
    )
    if (wrong) {
      setProblem(`${rooms.find(({ room }) => room === wrong.room)!.name}: what was entered must be numbers.`)
      return
    }
    try {
      await ask('POST /checks/:id/result', { params: { id: check.id }, body: { rooms: now } })
      setProblem(null)
      await again()
    } catch (error) {
      setProblem(
        error instanceof ApiProblem
          ? (error.document.errors?.[0]?.detail ?? error.document.title)
          : 'It could not be sent; it is kept on this page, send it again.'
      )
    }
  }
  return (
    <Page width="text">
      <Heading>Check at {check.street}</Heading>
      <p className="text-soft">
        {check.customer}. {format(new Date(check.from), 'EEEE, d MMMM HH:mm')} to {format(new Date(check.to), 'HH:mm')}.{' '}
        {check.done
          ? `Done ${format(new Date(check.done), 'd MMM HH:mm')} by ${check.by}.`
          : `Booked by ${check.technician}.`}{' '}
        <Link className="underline" to={`/visit/${check.visit}/prove`}>
          The visit
        </Link>
      </p>
      <p className="mt-2">
        Each room at least {floor.dbm} dBm and {Math.round(floor.mbps)} Mbit/s down: {floor.reason}. Measure where it
        was measured then.
      </p>
      {rooms.length === 0 && <p className="mt-4 font-bold">No room was measured at that visit.</p>}
      <List className="paper mt-4">
        {rooms.map((room) => {
          const now = measuredNow(room)
          const verdict = compareCheck(room, now, floor)
          const set = (field: 'dbm' | 'down' | 'idle', value: string) =>
            setTyped({
              ...typed,
              [room.room]: { ...(typed[room.room] ?? { dbm: '', down: '', idle: '' }), [field]: value }
            })
          return (
            <li key={room.room} aria-label={`Room ${room.name}`} className="p-4">
              <div className="flex flex-wrap items-center gap-3">
                <Mark outcome={verdict.outcome} />
                <b className="grow">{room.name}</b>
                <span className="text-sm text-soft">
                  then {room.dbm === null ? 'no signal noted' : `${room.dbm} dBm`},{' '}
                  {room.downMbps === null ? 'no speed' : `${Math.round(room.downMbps)} Mbit/s`}
                  {room.idleMs === null ? '' : `, ${Math.round(room.idleMs)} ms`}
                  {room.band ? `, ${room.band} GHz` : ''}
                </span>
              </div>
              {!result && mayWrite && (
                <div className="mt-2 grid grid-cols-3 gap-2">
                  {(
                    [
                      ['dbm', 'Signal, dBm'],
                      ['down', 'Down, Mbit/s'],
                      ['idle', 'Latency, ms']
                    ] as const
                  ).map(([field, label]) => (
                    <Field key={field} label={label}>
                      <Input
                        exact
                        className="text-lg"
                        inputMode="text"
                        autoComplete="off"
                        aria-label={`${label} in ${room.name} now`}
                        value={typed[room.room]?.[field] ?? ''}
                        onChange={(event) => set(field, event.target.value)}
                      />
                    </Field>
                  ))}
                </div>
              )}
              <p className={`mt-1 ${verdict.outcome === 'breaks' ? 'font-bold' : ''}`}>
                {verdict.message}
                {result && now ? (
                  <span className="text-soft">
                    {' '}
                    Now {now.dbm === undefined ? '' : `${now.dbm} dBm, `}
                    {now.run.downMbps === undefined ? 'no speed' : `${now.run.downMbps} Mbit/s`}
                    {now.run.idleMs === undefined ? '' : `, ${now.run.idleMs} ms`}.
                  </span>
                ) : (
                  ''
                )}
              </p>
            </li>
          )
        })}
      </List>
      <Problem message={problem} className="mt-3" />
      {!result && mayWrite && rooms.length > 0 && (
        <p className="mt-4 flex flex-wrap items-center gap-3">
          <Button
            kind="main"
            disabled={rooms.every((room) => measuredNow(room) === undefined)}
            onClick={() => void send()}
          >
            The check is done
          </Button>
          <span className="fine">A room that falls short is worth a fault visit: book it under New visit.</span>
        </p>
      )}
    </Page>
  )
}
