import { format } from 'date-fns'
import { useReading } from '../../../app/read'
import { ask } from '../../../app/api'
import { useOutbox } from '../../../outbox/outbox'
import { Button } from '../../../ui/Button'
import { Field, Input } from '../../../ui/Field'
import { Notice } from '../../../ui/Notice'

/** Devices that took the visit along and were not heard from since; undefined while it is not known. */
export function useUnheard(visit: string) {
  const outbox = useOutbox((state) => state.id)
  return useReading(
    ['not heard from', visit, outbox],
    () =>
      ask('GET /visits/:id/not-heard-from', { params: { id: visit }, query: outbox ? { outbox } : {} }).then(
        ({ outboxes }) => outboxes
      ),
    { otherwise: 'It could not be looked up which devices still have this visit.' }
  )
}

interface Props {
  unheard: readonly { outbox: string; person: string; since: string }[]
  onLookAgain: () => void
  reason: string
  onReason: (reason: string) => void
}

/** What devices may still hold of this visit: they are waited for, or it is said why not. */
export function NotHeardFrom({ unheard, onLookAgain, reason, onReason }: Props) {
  return (
    <Notice as="section" edge="edge" aria-label="Not heard from" className="mt-3">
      <ul>
        {unheard.map(({ outbox, person, since }) => (
          <li key={outbox}>
            <b>
              A device of {person} has this visit and was last heard from {format(new Date(since), 'd MMM, HH:mm')}.
            </b>{' '}
            It may hold lines that are not here.
          </li>
        ))}
      </ul>
      <p className="mt-1">
        Open Pasado there while it has a connection, then look again. Or seal without it and say why; what comes later
        is kept beside the seal.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <Button onClick={onLookAgain}>Look again</Button>
        <Field label="Why without" className="grow basis-64">
          <Input maxLength={300} value={reason} onChange={(event) => onReason(event.target.value)} />
        </Field>
      </div>
    </Notice>
  )
}
