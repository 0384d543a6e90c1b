import { useState } from 'react'
import { format } from 'date-fns'
import { describeEntry } from '@pasado/core/documents/describe-entry'
import { titleOf } from '@pasado/core/agenda/title'
import type { Finding } from '@pasado/core/rules/finding'
import { askBecause } from '../../workers/because'
import { useVisit } from '../session/visit-state'

type Found = 'unasked' | 'being worked out' | 'nothing' | readonly number[]

const unsent = 'Something written here is not in the logbook yet. Look again once it is.'
const otherwise = 'The logbook as this version of the program reads it does not say so.'

/** The lines of the logbook that a finding rests on, worked out when they are asked for, anew where it says something else. */
export const RestsOn = ({ finding }: { finding: Finding }) => (
  <Asked key={`${finding.outcome} ${finding.evidence}`} finding={finding} />
)

function Asked({ finding }: { finding: Finding }) {
  const [found, setFound] = useState<Found>('unasked')
  const waits = useVisit((state) => state.pending.length > 0)
  const look = () => {
    const { entries, catalogue, standard, record } = useVisit.getState()
    // A sealed visit is asked as it stood when it was sealed.
    const until = entries.findIndex(({ kind }) => kind === 'sealed')
    setFound('being worked out')
    askBecause({
      entries: until < 0 ? entries : entries.slice(0, until),
      finding,
      catalogue,
      standard,
      now: record.seal?.at ?? new Date().toISOString()
    }).then(
      (lines) => setFound(lines ?? 'nothing'),
      // The bar tells that it broke off.
      () => setFound('unasked')
    )
  }
  return (
    <details className="text-sm" onToggle={(event) => event.currentTarget.open && found === 'unasked' && look()}>
      <summary className="min-h-11 py-2 underline underline-offset-2" aria-label={`Rests on: ${titleOf(finding)}`}>
        Rests on
      </summary>
      <div aria-live="polite" className="pb-3">
        {found === 'being worked out' && <p className="fine">being worked out</p>}
        {found === 'nothing' && <p>{waits ? unsent : otherwise}</p>}
        {typeof found === 'object' && <Lines lines={found} />}
      </div>
    </details>
  )
}

const moment = (iso: string) => format(new Date(iso), 'd MMM HH:mm')

function Lines({ lines }: { lines: readonly number[] }) {
  const entries = useVisit((state) => state.entries)
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  return (
    <ol>
      {entries
        .filter(({ seq }) => lines.includes(seq))
        .map((entry) => (
          <li key={entry.seq} className="grid grid-cols-[2.5rem_minmax(0,1fr)] gap-x-2 py-1">
            <span className="exact text-soft">{entry.seq}</span>
            <span className="min-w-0 break-words">
              {describeEntry(entry, record, catalogue, moment)}{' '}
              <span className="fine">
                {entry.by.name}, {moment(entry.at)}
              </span>
            </span>
          </li>
        ))}
    </ol>
  )
}
