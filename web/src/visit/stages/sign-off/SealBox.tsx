import { useState } from 'react'
import { whyNotSeal } from '@pasado/core/record/may'
import { ask, failureTitle } from '../../../app/api'
import { useSession } from '../../../app/session'
import { useOutbox } from '../../../outbox/outbox'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { NotHeardFrom, useUnheard } from './NotHeardFrom'

/** What stands before the seal, and sealing. */
export function SealBox({ hindrances, digest }: { hindrances: string[]; digest: string }) {
  const id = useVisit((state) => state.id)
  const mayWrite = useMayWrite()
  const [sure, setSure] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const record = useVisit((state) => state.record)
  const me = useSession((state) => state.me)
  const whoSeals = me ? whyNotSeal(record, me) : null
  const outbox = useOutbox((state) => state.id)
  const unheard = useUnheard(id!)
  const [reason, setReason] = useState('')
  const without = unheard.value?.length ? reason.trim() : ''
  const seal = async () => {
    setBusy(true)
    setProblem(null)
    try {
      const body = { digest, ...(outbox ? { outbox } : {}), ...(without ? { without } : {}) }
      await ask('POST /visits/:id/seal', { params: { id: id! }, body })
    } catch (error) {
      setProblem(failureTitle(error, 'It could not be sealed; try again.'))
      void unheard.again()
    } finally {
      setBusy(false)
      setSure(false)
    }
  }
  return (
    <section aria-label="Seal" className="mt-5 border-t-2 border-ink pt-4">
      <h3 className="text-lg">Seal</h3>
      {hindrances.length > 0 && (
        <>
          <p className="mt-1">Before it can be sealed:</p>
          <ul className="mt-1 list-disc pl-5">
            {hindrances.map((hindrance) => (
              <li key={hindrance}>{hindrance}</li>
            ))}
          </ul>
        </>
      )}
      {hindrances.length === 0 && sure && (
        <div className="mt-2 bg-inv p-4 text-oninv">
          <p className="font-bold">
            Sealing is final. Nobody, you included, changes this visit afterwards; a later visit starts from it.
          </p>
          <div className="mt-3 flex flex-wrap gap-2">
            <Button disabled={busy} onClick={() => void seal()}>
              Seal it for good
            </Button>
            <Button onClick={() => setSure(false)}>Not yet</Button>
          </div>
        </div>
      )}
      {hindrances.length === 0 && !sure && (
        <>
          <p className="mt-1">
            Everything holds or is waived, and both have signed.{mayWrite && whoSeals && ` ${whoSeals}`}
          </p>
          {unheard.value && unheard.value.length > 0 && (
            <NotHeardFrom
              unheard={unheard.value}
              onLookAgain={() => void unheard.again()}
              reason={reason}
              onReason={setReason}
            />
          )}
          {mayWrite && !whoSeals && (
            <Button
              kind="main"
              className="mt-3"
              disabled={(unheard.value?.length ?? 0) > 0 && !without}
              onClick={() => setSure(true)}
            >
              Seal this visit
            </Button>
          )}
        </>
      )}
      <Problem message={problem} className="mt-2" />
    </section>
  )
}
