import { useState } from 'react'
import { whyNotApprove } from '@pasado/core/record/may'
import { signedDigest } from '@pasado/core/record/seal'
import { blocks } from '@pasado/core/rules/weigh'
import { useDraft } from '../app/draft'
import { useSession } from '../app/session'
import { useConflicts } from '../visit/session/facts'
import { useVisit } from '../visit/session/visit-state'
import { write } from '../visit/session/write'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Problem'
import { Field, TextArea } from '../ui/Field'

/** Send back with remarks, or approve what is on the page. */
export function Decide() {
  const record = useVisit((state) => state.record)
  const pending = useVisit((state) => state.pending.length)
  const findings = useVisit((state) => state.findings)
  const conflicts = useConflicts()
  const me = useSession((state) => state.me)
  const whyNot = me
    ? whyNotApprove(
        record,
        {
          mustsOpen: findings.filter((finding) => finding.level === 'must' && blocks(finding)).length,
          unsettled: conflicts.length
        },
        me
      )
    : null
  const [remark, setRemark] = useDraft(`remark ${record.visit.id}`, '')
  const [problem, setProblem] = useState<string | null>(null)
  if (record.seal) return <p className="paper p-4">Sealed: nobody changes it any more.</p>
  const back = () => {
    if (!remark.trim()) {
      setProblem('A remark is missing: say what is to be done.')
      return
    }
    write('review.returned', { remark: remark.trim() })
    setRemark('')
    setProblem(null)
  }
  return (
    <section aria-label="Decide" className="paper p-4">
      <Field label="Remark">
        <TextArea
          className="min-h-20"
          maxLength={600}
          value={remark}
          onChange={(event) => {
            setRemark(event.target.value.replace(/\n/g, ' '))
            setProblem(null)
          }}
        />
      </Field>
      <Problem message={problem} className="mt-1" />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={back}>Send it back</Button>
        <Button
          kind="main"
          disabled={pending > 0 || whyNot !== null}
          onClick={() => {
            write('review.approved', { remark: remark.trim(), digest: signedDigest(record) })
            setRemark('')
            setProblem(null)
          }}
        >
          Approve what is here
        </Button>
      </div>
      {whyNot && <p className="fine mt-1">{whyNot}</p>}
    </section>
  )
}
