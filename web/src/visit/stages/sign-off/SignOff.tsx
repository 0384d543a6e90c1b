import { format } from 'date-fns'
import { useState } from 'react'
import { whyNotSign } from '@pasado/core/record/may'
import { signedDigest } from '@pasado/core/record/seal'
import { blocks } from '@pasado/core/rules/weigh'
import { sealHindrances } from '@pasado/core/rules/seal-hindrances'
import { useSession } from '../../../app/session'
import { useConflicts, useFolded, useMayWrite } from '../../session/facts'
import { SignaturePad } from './SignaturePad'
import { FindingCounts } from './FindingCounts'
import { SealBox } from './SealBox'
import { Sealed } from './Sealed'
import { Strokes } from './Strokes'
import { TakenBack } from './TakenBack'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Notice } from '../../../ui/Notice'
import { Field, Input } from '../../../ui/Field'

/** Sign off: what still stands in the way, both signatures, the seal. */
export function SignOff() {
  const folded = useFolded()
  const { record } = folded
  const conflicts = useConflicts()
  const findings = useVisit((state) => state.findings)
  const pending = useVisit((state) => state.pending.length)
  const judging = useVisit((state) => state.judging)
  const fourEyes = useVisit((state) => state.standard.policy.fourEyes ?? false)
  const mayWrite = useMayWrite()
  const [signing, setSigning] = useState<'customer' | 'technician' | null>(null)
  const me = useSession((state) => state.me)
  if (record.seal) return <Sealed />
  const open = findings.filter(blocks)
  const digest = signedDigest(record)
  const hindrances = [
    ...sealHindrances(folded, findings, digest, fourEyes),
    ...(pending ? [`${pending} ${pending === 1 ? 'entry is' : 'entries are'} still on the way to the server`] : []),
    ...(judging ? ['the rules are being asked of what was written last'] : [])
  ]
  const whoSigns = me ? whyNotSign(record, me) : null
  const mayNotSign = whoSigns !== null || open.length > 0 || conflicts.length > 0 || pending > 0 || judging
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Sign off</h2>
      <FindingCounts findings={findings} />
      {(open.length > 0 || fourEyes || record.review !== null) && <Review />}
      {mayWrite && whoSigns && (
        <Notice as="p" edge="edge" className="mt-4">
          {whoSigns}
        </Notice>
      )}
      <TakenBack />
      <section aria-label="Signatures" className="mt-5 grid gap-4 md:grid-cols-2">
        {(['customer', 'technician'] as const).map((who) => {
          const signature = record.signatures[who]
          const stale = signature !== null && signature.digest !== digest
          return (
            <div key={who} className="paper p-4">
              <h3 className="capitalize">{who}</h3>
              {signature && <Strokes path={signature.strokes} />}
              <p className="mt-1">
                {!signature && 'Not signed yet.'}
                {signature && stale && <b>The record changed after {signature.name} signed. Sign again.</b>}
                {signature && !stale && `${signature.name}, ${format(new Date(signature.at), 'd MMMM, HH:mm')}`}
              </p>
              {mayWrite && (
                <Button className="mt-3" disabled={mayNotSign} onClick={() => setSigning(who)}>
                  {signature ? `Sign again as ${who}` : `Sign as ${who}`}
                </Button>
              )}
            </div>
          )
        })}
      </section>
      <SealBox hindrances={hindrances} digest={digest} />
      {signing && (
        <SignaturePad
          who={signing}
          suggested={signing === 'customer' ? (record.brief.facts.customerName ?? '') : (me?.name ?? '')}
          onClose={() => setSigning(null)}
          onSign={(name, strokes) => {
            write('signature.given', { who: signing, name, strokes, digest })
            setSigning(null)
          }}
        />
      )}
    </div>
  )
}

const reviewWords = { asked: 'asked for a review', approved: 'approved it', returned: 'sent it back' } as const

/** Asking a lead to look, and sending back. */
function Review() {
  const review = useVisit((state) => state.record.review)
  const lead = useSession((state) => state.me?.role === 'lead')
  const mayWrite = useMayWrite()
  const [remark, setRemark] = useState('')
  return (
    <Notice aria-label="Review" as="section" edge="plum" className="mt-4">
      {review && (
        <p>
          <b>
            {review.by.name} {reviewWords[review.state]}:
          </b>{' '}
          {review.remark || 'no remark'} <span className="fine">{format(new Date(review.at), 'd MMM HH:mm')}</span>
        </p>
      )}
      {!review && <p>Mend what the docket lists. What cannot be mended, a lead can waive with a reason.</p>}
      {mayWrite && (
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <Field label="Remark" className="grow basis-64">
            <Input maxLength={600} value={remark} onChange={(event) => setRemark(event.target.value)} />
          </Field>
          {lead && review?.state === 'asked' ? (
            <Button
              disabled={!remark.trim()}
              onClick={() => {
                write('review.returned', { remark: remark.trim() })
                setRemark('')
              }}
            >
              Send it back
            </Button>
          ) : (
            <Button
              onClick={() => {
                write('review.asked', { remark: remark.trim() })
                setRemark('')
              }}
            >
              Ask a lead to look
            </Button>
          )}
        </div>
      )}
    </Notice>
  )
}
