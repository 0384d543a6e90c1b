import { useState } from 'react'
import { format } from 'date-fns'
import { whyNotCancel } from '@pasado/core/record/may'
import { ask, failureWords } from '../../app/api'
import { useDraft } from '../../app/draft'
import { useSession } from '../../app/session'
import { Button } from '../../ui/Button'
import { Field, Input } from '../../ui/Field'
import { Problem } from '../../ui/Problem'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'

/** Whether this person may cancel the open visit, and reopen it. */
function useMayCancel(): boolean {
  const me = useSession((state) => state.me)
  return useVisit(({ record }) => Boolean(me && record.seal === null && whyNotCancel(record, me) === null))
}

/** Cancels a visit that takes place no more: whoever has it, a lead or the office, with why. */
export function CancelVisit() {
  const mayCancel = useMayCancel()
  const [open, setOpen] = useState(false)
  if (!mayCancel) return null
  return (
    <>
      <button type="button" className="-my-2 min-h-11 underline" onClick={() => setOpen(true)}>
        Cancel it
      </button>
      {open && <WhySheet does="cancel" onClose={() => setOpen(false)} />}
    </>
  )
}

/** That a visit is cancelled, since when and why; nothing is written in it until somebody reopens it. */
export function CancelledNotice() {
  const cancelled = useVisit((state) => state.record.visit.cancelled)
  const mayReopen = useMayCancel()
  const [open, setOpen] = useState(false)
  if (!cancelled) return null
  return (
    <div
      role="note"
      aria-label="This visit is cancelled"
      className="flex flex-wrap items-center gap-3 bg-inv px-4 py-2 text-oninv lg:px-5"
    >
      <p className="grow">
        <b>Cancelled</b> by {cancelled.by.name}, {format(new Date(cancelled.at), 'd MMM HH:mm')}: {cancelled.reason}
      </p>
      {mayReopen && <Button onClick={() => setOpen(true)}>Reopen it</Button>}
      {open && <WhySheet does="reopen" onClose={() => setOpen(false)} />}
    </div>
  )
}

const words = {
  cancel: {
    title: 'Cancel this visit',
    tells:
      'It goes from every day and list; its logbook stays, and it can be reopened. The customer is told by whoever spoke to them.',
    press: 'Cancel the visit',
    failed: 'It could not be cancelled; try again.'
  },
  reopen: {
    title: 'Reopen this visit',
    tells: 'It stands in its technician’s day again, with all that is recorded.',
    press: 'Reopen the visit',
    failed: 'It could not be reopened; try again.'
  }
} as const

function WhySheet({ does, onClose }: { does: 'cancel' | 'reopen'; onClose: () => void }) {
  const id = useVisit((state) => state.id)
  const [reason, setReason] = useDraft(`${does} ${id}`, '')
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const { title, tells, press, failed } = words[does]
  const send = async () => {
    if (!reason.trim()) {
      setProblem('The reason is missing: say why.')
      return
    }
    setBusy(true)
    try {
      const call = { params: { id: id! }, body: { reason: reason.trim() } }
      await (does === 'cancel' ? ask('POST /visits/:id/cancel', call) : ask('POST /visits/:id/reopen', call))
      setReason('')
      onClose()
    } catch (error) {
      setProblem(failureWords(error, failed))
      setBusy(false)
    }
  }
  return (
    <Sheet open onClose={onClose} title={title} description={tells}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          void send()
        }}
      >
        <Field label="Why">
          <Input
            autoComplete="off"
            value={reason}
            maxLength={300}
            onChange={(event) => setReason(event.target.value)}
          />
        </Field>
        <Problem message={problem} />
        <p>
          <Button type="submit" kind="main" disabled={busy}>
            {press}
          </Button>
        </p>
      </form>
    </Sheet>
  )
}
