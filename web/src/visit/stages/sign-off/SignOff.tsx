import { format } from 'date-fns'
import { useState } from 'react'
import { whyNotSeal, whyNotSign } from '@pasado/core/record/may'
import { signedDigest } from '@pasado/core/record/seal'
import { blocks, countOutcomes, sealHindrances } from '@pasado/core/rules/evaluate'
import { ask, download, failureTitle } from '../../../app/api'
import { useSession } from '../../../app/session'
import { Mark } from '../../../ui/Mark'
import { ErasureNote } from '../hand-over/Custody'
import { useConflicts, useFolded, useMayWrite } from '../../session/facts'
import { PackLinks } from '../hand-over/PackLinks'
import { SignaturePad } from './SignaturePad'
import { TakenBack } from './TakenBack'
import { AfterSeal } from './AfterSeal'
import { NotHeardFrom, useUnheard } from './NotHeardFrom'
import { useOutbox } from '../../../outbox/outbox'
import { unheardTold } from '@pasado/core/record/unheard'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { Notice } from '../../../ui/Notice'
import { Input } from '../../../ui/Field'

/** Sign off: what still stands in the way, both signatures, the seal. */
export function SignOff() {
  const folded = useFolded()
  const { record } = folded
  const conflicts = useConflicts()
  const findings = useVisit((state) => state.findings)
  const pending = useVisit((state) => state.pending.length)
  const fourEyes = useVisit((state) => state.standard.policy.fourEyes ?? false)
  const mayWrite = useMayWrite()
  const [signing, setSigning] = useState<'customer' | 'technician' | null>(null)
  const me = useSession((state) => state.me)
  if (record.seal) return <Sealed />
  const counts = countOutcomes(findings)
  const open = findings.filter(blocks)
  const digest = signedDigest(record)
  const hindrances = [
    ...sealHindrances(folded, findings, digest, fourEyes),
    ...(pending ? [`${pending} ${pending === 1 ? 'entry is' : 'entries are'} still on the way to the server`] : [])
  ]
  const whoSigns = me ? whyNotSign(record, me) : null
  const mayNotSign = whoSigns !== null || open.length > 0 || conflicts.length > 0 || pending > 0
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Sign off</h2>
      <ul className="mt-3 flex flex-wrap gap-x-6 gap-y-2" aria-label="Findings">
        {(['breaks', 'unproven', 'waived', 'holds', 'not-here'] as const).map((outcome) => (
          <li key={outcome} className="flex items-center gap-2">
            <Mark outcome={outcome} />
            <span>
              <b>{counts[outcome]}</b> {outcome === 'not-here' ? 'not here' : outcome}
            </span>
          </li>
        ))}
      </ul>
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
          <div className="grow basis-64">
            <label className="label" htmlFor="remark">
              Remark
            </label>
            <Input
              id="remark"
              className="mt-1"
              maxLength={600}
              value={remark}
              onChange={(event) => setRemark(event.target.value)}
            />
          </div>
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

function Strokes({ path }: { path: string }) {
  return (
    <svg viewBox="0 0 600 200" className="mt-2 w-full bg-[#FBF8F1]" role="img" aria-label="Signature">
      <path d={path} fill="none" stroke="#1D1822" strokeWidth="4" strokeLinecap="round" strokeLinejoin="round" />
    </svg>
  )
}

function SealBox({ hindrances, digest }: { hindrances: string[]; digest: string }) {
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

function Sealed() {
  const record = useVisit((state) => state.record)
  const id = useVisit((state) => state.id)
  const [problem, setProblem] = useState<string | null>(null)
  const seal = record.seal!
  const visit = { params: { id: id! } }
  const get = (fetching: Promise<void>) =>
    fetching.then(
      () => setProblem(null),
      (error: unknown) => setProblem(failureTitle(error, 'It could not be fetched; try again.'))
    )
  const prints = [
    ['record', seal.record],
    ['chain', seal.chain],
    ['standard', seal.standard],
    ['catalogue', seal.catalogue],
    ['verdicts', seal.verdicts ?? 'not signed: sealed before they were'],
    ['key', seal.key]
  ] as const
  return (
    <div className="p-4 lg:p-5">
      <h2 className="text-xl">Sealed {format(new Date(seal.at), 'd MMMM yyyy, HH:mm')}</h2>
      <p className="mt-1 text-soft">
        By {seal.by.name}. Nobody changes this visit any more; a later visit at this home starts from it.
      </p>
      {record.unheard && (
        <p className="mt-1">
          Not waited for: {unheardTold(record.unheard.outboxes, (iso) => format(new Date(iso), 'd MMM, HH:mm'))}.{' '}
          {record.unheard.reason}
        </p>
      )}
      <AfterSeal visit={id!} />
      <div className="mt-4 flex flex-wrap gap-3">
        <Button
          kind="main"
          disabled={record.secretsErased}
          onClick={() => void get(download('POST /visits/:id/pack', { ...visit, body: {} }))}
        >
          The customer’s pack (PDF)
        </Button>
        <Button onClick={() => void get(download('GET /visits/:id/record.pdf', visit))}>The record (PDF)</Button>
        <Button onClick={() => void get(download('GET /visits/:id/export', visit))}>
          The record (JSON, for pasado verify)
        </Button>
      </div>
      <Problem message={problem} className="mt-2" />
      <ErasureNote />
      <PackLinks mayMake />
      <div className="mt-5 grid gap-4 md:grid-cols-2">
        {(['customer', 'technician'] as const).map((who) => {
          const given = record.signatures[who]
          return (
            given && (
              <div key={who} className="paper p-4">
                <h3 className="capitalize">{who}</h3>
                <Strokes path={given.strokes} />
                <p className="mt-1">
                  {given.name}, {format(new Date(given.at), 'd MMMM, HH:mm')}
                </p>
              </div>
            )
          )
        })}
      </div>
      <dl className="mt-5 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
        {prints.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="exact break-all">{value}</dd>
          </div>
        ))}
      </dl>
    </div>
  )
}
