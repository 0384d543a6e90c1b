import { useState } from 'react'
import { Link } from 'react-router'
import { clock } from '@pasado/core/work/day/day-plan'
import { ApiProblem, ask, failureWords } from '../app/api'
import { useSession } from '../app/session'
import { MinutesField } from './MinutesField'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Waiting } from '../ui/Waiting'
import { useRead } from '../app/read'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { List } from '../ui/List'
import { Field, Input } from '../ui/Field'

interface Window {
  fromMin: number
  toMin: number
}
const minutesOf = (time: string) => {
  const [hours = '0', minutes = '0'] = time.split(':')
  return Number(hours) * 60 + Number(minutes)
}

/** How far towns are from each other, and when their ferries go: typed once, used by every day. */
export function WaysPage() {
  const role = useSession((state) => state.me?.role)
  const [refused, setProblem] = useState<string | null>(null)
  const { value: ways, problem: unread, again } = useRead('GET /ways', {})
  const problem = refused ?? unread
  useTitle('Ways and ferries')
  const keep = async (sending: Promise<unknown>) => {
    try {
      await sending
      setProblem(null)
      await again()
      return true
    } catch (error) {
      setProblem(failureWords(error, 'It could not be saved; try again.'))
      // What somebody else changed meanwhile stands here now.
      if (error instanceof ApiProblem && error.status === 409) await again()
      return false
    }
  }
  if (!ways) return <Waiting message={problem ?? 'Loading …'} className="p-6" />
  const places = ['depot', ...ways.towns.map((town) => `town ${town}`)]
  const nameOf = (place: string) => (place === 'depot' ? 'the depot' : place.slice(5))
  const minutes = (a: string, b: string) =>
    ways.travel.find(
      (candidate) => (candidate.a === a && candidate.b === b) || (candidate.a === b && candidate.b === a)
    )?.minutes
  const pairs = places.flatMap((a, at) =>
    places
      .slice(at)
      .filter((b) => a !== 'depot' || b !== 'depot')
      .map((b) => [a, b] as const)
  )
  return (
    <Page width="list">
      <Heading>Ways and ferries</Heading>
      <p className="text-soft">
        Minutes door to door, either way. Between two homes of one town a day’s own way counts first.{' '}
        <Link className="underline" to="/">
          Back to the day
        </Link>
      </p>
      <Problem message={problem} className="mt-3" />
      {ways.towns.length === 0 && <p className="paper mt-4 p-4">No home yet: towns come with the first visits.</p>}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] items-start gap-5 lg:grid-cols-2">
        <section aria-label="How far it is" className="paper p-4">
          <h2 className="text-lg">How far it is</h2>
          <List className="mt-1">
            {pairs.map(([a, b]) => (
              <li key={`${a} ${b}`} className="grid grid-cols-[minmax(0,1fr)_7.5rem] items-center gap-3 py-1">
                <span>{a === b ? `Within ${nameOf(a)}` : `${nameOf(a).replace(/^t/, 'T')} – ${nameOf(b)}`}</span>
                <span className="flex flex-wrap items-center gap-2">
                  <MinutesField
                    key={String(minutes(a, b))}
                    label={a === b ? `Minutes within ${nameOf(a)}` : `Minutes between ${nameOf(a)} and ${nameOf(b)}`}
                    minutes={minutes(a, b) ?? null}
                    onSet={(value) => void keep(ask('POST /ways/travel', { body: { a, b, minutes: value } }))}
                  />
                  min
                </span>
              </li>
            ))}
          </List>
        </section>
        <section aria-label="When it is reached" className="paper p-4">
          <h2 className="text-lg">When it can be reached and left</h2>
          <List className="mt-1">
            {ways.towns.map((town) => (
              <Ferries
                key={town}
                town={town}
                windows={ways.windows.filter((window) => window.town === town)}
                mayWrite={role !== 'technician'}
                onSet={(windows, before) => keep(ask('POST /ways/windows', { body: { town, windows, before } }))}
              />
            ))}
          </List>
          {role === 'technician' && <p className="fine mt-2">A lead or the office changes these.</p>}
        </section>
      </div>
    </Page>
  )
}

function Ferries({
  town,
  windows,
  mayWrite,
  onSet
}: {
  town: string
  windows: Window[]
  mayWrite: boolean
  /** Whether it was taken; what was not is told above. */ onSet: (
    windows: Window[],
    before: Window[]
  ) => Promise<boolean>
}) {
  const [adding, setAdding] = useState<{ from: string; to: string } | null>(null)
  // A town's hours are sent as one list: while one is on its way a second would be made of what stood before it.
  const [busy, setBusy] = useState(false)
  const plain = windows.map(({ fromMin, toMin }) => ({ fromMin, toMin }))
  const set = async (next: Window[]) => {
    setBusy(true)
    const taken = await onSet(next, plain)
    setBusy(false)
    return taken
  }
  const add = async (event: React.FormEvent) => {
    event.preventDefault()
    const more = { fromMin: minutesOf(adding!.from), toMin: minutesOf(adding!.to) }
    if (await set([...plain, more].sort((a, b) => a.fromMin - b.fromMin))) setAdding(null)
  }
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <b>{town}</b>
        {windows.length === 0 && <span className="text-soft">at any time</span>}
        {mayWrite && !adding && (
          <Button
            kind="quiet"
            aria-label={`Add hours for ${town}`}
            onClick={() => setAdding({ from: '08:00', to: '12:00' })}
          >
            Add hours
          </Button>
        )}
      </div>
      <ul>
        {plain.map((ferry, at) => (
          <li key={ferry.fromMin} className="flex items-center justify-between gap-3">
            <span className="exact">
              {clock(ferry.fromMin)} to {clock(ferry.toMin)}
            </span>
            {mayWrite && (
              <Button
                kind="quiet"
                aria-label={`Take ${clock(ferry.fromMin)} to ${clock(ferry.toMin)} of ${town} out`}
                disabled={busy}
                onClick={() => void set(plain.filter((_, other) => other !== at))}
              >
                Take out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {adding && (
        <form onSubmit={(event) => void add(event)} className="mt-1 flex flex-wrap items-end gap-2">
          <Field label="From">
            <Input
              type="time"
              required
              className="w-32"
              value={adding.from}
              onChange={(event) => setAdding({ ...adding, from: event.target.value })}
            />
          </Field>
          <Field label="To">
            <Input
              type="time"
              required
              className="w-32"
              value={adding.to}
              onChange={(event) => setAdding({ ...adding, to: event.target.value })}
            />
          </Field>
          <Button type="submit" kind="main" disabled={busy}>
            Add
          </Button>
          <Button onClick={() => setAdding(null)}>Not now</Button>
        </form>
      )}
    </li>
  )
}
