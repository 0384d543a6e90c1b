import { useMemo } from 'react'
import { format } from 'date-fns'
import { lateLines } from '@pasado/core/record/may'
import { describeEntry } from '@pasado/core/documents/describe-entry'
import { Sheet } from '../../ui/Sheet'
import { useVisit } from '../session/visit-state'
import { List } from '../../ui/List'

const moment = (iso: string) => format(new Date(iso), 'd MMM HH:mm')

/** The logbook, newest line first. */
export function LogbookSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const entries = useVisit((state) => state.entries)
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const late = useMemo(() => lateLines(open ? entries : []), [open, entries])
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Logbook"
      description="Every line, newest first. Nothing in it is ever changed."
      wide
    >
      <List as="ol" reversed start={entries.length}>
        {open &&
          entries.toReversed().map((entry) => (
            <li key={entry.id} className="grid grid-cols-[3rem_1fr] gap-x-3 py-2 sm:grid-cols-[3rem_1fr_auto]">
              <span className="exact text-soft">{entry.seq}</span>
              <span className="min-w-0 break-words">{describeEntry(entry, record, catalogue, moment)}</span>
              <span className="fine col-start-2 sm:col-start-auto">
                {entry.by.name}, {moment(entry.at)}
                {late.has(entry.seq) && <b className="block">sent after it was handed on</b>}
              </span>
            </li>
          ))}
      </List>
    </Sheet>
  )
}
