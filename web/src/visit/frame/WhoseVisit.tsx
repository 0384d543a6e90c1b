import { useState } from 'react'
import { useSession } from '../../app/session'
import { useDraft } from '../../app/draft'
import { Button } from '../../ui/Button'
import { Field, Input } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { useWorksOn } from '../session/facts'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'

/** That somebody else has the visit: a technician reads it, and joins it with why to write in it as well. */
export function WhoseVisit() {
  const me = useSession((state) => state.me)
  const { technician, joined = [] } = useVisit((state) => state.record.visit)
  const sealed = useVisit((state) => state.record.seal !== null)
  const works = useWorksOn()
  const [asking, setAsking] = useState(false)
  const [reason, setReason] = useDraft(`join ${useVisit((state) => state.id)}`, '')
  const [problem, setProblem] = useState<string | null>(null)
  if (sealed || works || me?.role !== 'technician') return null
  const join = (event: React.FormEvent) => {
    event.preventDefault()
    if (!reason.trim()) {
      setProblem('The reason is missing: say why.')
      return
    }
    write('visit.joined', { reason: reason.trim() })
    setReason('')
  }
  return (
    <div
      role="note"
      aria-label="Somebody else has this visit"
      className="border-b border-rule bg-well px-4 py-2 lg:px-5"
    >
      <div className="flex flex-wrap items-center gap-3">
        <p className="grow">
          <b>{technician.name} has this visit.</b>{' '}
          {joined.length > 0 && `With them: ${joined.map(({ name }) => name).join(', ')}. `}
          You read it; who works on it as well joins it.
        </p>
        {!asking && <Button onClick={() => setAsking(true)}>Join it</Button>}
      </div>
      {asking && (
        <form onSubmit={join} aria-label="Join the visit" className="mt-2 flex flex-wrap items-end gap-3 pb-1">
          <Field label="Why" className="grow basis-60">
            <Input
              autoFocus
              autoComplete="off"
              maxLength={300}
              value={reason}
              placeholder="two pairs of hands, next door anyway …"
              onChange={(event) => setReason(event.target.value)}
            />
          </Field>
          <Button type="submit" kind="main">
            Join
          </Button>
          <Button kind="quiet" onClick={() => setAsking(false)}>
            Not now
          </Button>
          <Problem message={problem} className="basis-full" />
        </form>
      )}
    </div>
  )
}
