import { format } from 'date-fns'
import { useState } from 'react'
import { unheardTold } from '@pasado/core/record/unheard'
import { download, failureTitle } from '../../../app/api'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { ErasureNote } from '../hand-over/Custody'
import { PackLinks } from '../hand-over/PackLinks'
import { useVisit } from '../../session/visit-state'
import { AfterSeal } from './AfterSeal'
import { FindingCounts } from './FindingCounts'
import { Strokes } from './Strokes'

/** A sealed visit: by whom and when, its papers, its signatures and what the seal vouches for. */
export function Sealed() {
  const record = useVisit((state) => state.record)
  const id = useVisit((state) => state.id)
  const findings = useVisit((state) => state.findings)
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
      <FindingCounts findings={findings} />
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
