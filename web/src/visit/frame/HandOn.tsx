import { useDraft } from '../../app/draft'
import { useState } from 'react'
import { ask, failureWords } from '../../app/api'
import { useSession } from '../../app/session'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'
import { Button } from '../../ui/Button'
import { Problem } from '../../ui/Problem'
import { CancelVisit } from './Cancel'
import { useRead } from '../../app/read'
import { Field, Select, Input } from '../../ui/Field'

/** Whose visit it is, and handing it on: one's own, or to oneself; a lead and the office any. */
export function HandOn() {
  const me = useSession((state) => state.me)
  const { technician, before, joined, cancelled } = useVisit((state) => state.record.visit)
  const sealed = useVisit((state) => state.record.seal !== null)
  const [open, setOpen] = useState(false)
  return (
    <p className="flex flex-wrap items-center gap-x-3">
      <span className="text-soft">
        {technician.name}
        {joined && joined.length > 0 ? `, with ${joined.map(({ name }) => name).join(', ')}` : ''}
        {before && before.length > 0 ? `, before ${before.map(({ name }) => name).join(', ')}` : ''}
      </span>
      {!sealed && (
        <button type="button" className="-my-2 min-h-11 underline" onClick={() => setOpen(true)}>
          {me?.role === 'technician' && me.id !== technician.id ? 'Take it over' : 'Hand it on'}
        </button>
      )}
      {!cancelled && <CancelVisit />}
      {open && <HandOnSheet onClose={() => setOpen(false)} />}
    </p>
  )
}

function HandOnSheet({ onClose }: { onClose: () => void }) {
  const me = useSession((state) => state.me)
  const id = useVisit((state) => state.id)
  const has = useVisit((state) => state.record.visit.technician)
  const takes = me?.role === 'technician' && me.id !== has.id
  const { value, problem: unread } = useRead('GET /technicians', {}, { when: !takes })
  const people = value?.technicians.filter((technician) => technician.id !== has.id) ?? []
  const [to, setTo] = useState(takes ? me.id : '')
  const [reason, setReason] = useDraft(`hand on ${useVisit((state) => state.id)}`, '')
  const [refused, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const problem =
    refused ?? (unread === null ? null : 'The technicians could not be loaded; try again with a connection.')
  const hand = async () => {
    if (!to) {
      setProblem('Choose who goes on.')
      return
    }
    if (!reason.trim()) {
      setProblem('The reason is missing: say why.')
      return
    }
    setBusy(true)
    try {
      await ask('POST /visits/:id/technician', { params: { id: id! }, body: { technician: to, reason: reason.trim() } })
      onClose()
    } catch (error) {
      setProblem(failureWords(error, 'It could not be handed on; try again.'))
      setBusy(false)
    }
  }
  return (
    <Sheet
      open
      onClose={onClose}
      title={takes ? 'Take this visit over' : 'Hand this visit on'}
      description="It moves to another’s day with all that is recorded; the logbook says since when and why. Whoever had it does not approve it, and who signed signs again."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          void hand()
        }}
      >
        {!takes && (
          <Field label="Who goes on">
            <Select value={to} onChange={(event) => setTo(event.target.value)}>
              <option value="">choose</option>
              {people.map((person) => (
                <option key={person.id} value={person.id}>
                  {person.name}
                </option>
              ))}
            </Select>
          </Field>
        )}
        <Field label="Why">
          <Input
            autoComplete="off"
            value={reason}
            maxLength={300}
            onChange={(event) => setReason(event.target.value)}
            placeholder="ill, another isle, the customer asked …"
          />
        </Field>
        <Problem message={problem} />
        <p>
          <Button type="submit" kind="main" disabled={busy}>
            {takes ? 'Take it over' : 'Hand it on'}
          </Button>
        </p>
      </form>
    </Sheet>
  )
}
