import { useMemo, useState } from 'react'
import { format } from 'date-fns'
import { Undo2 } from 'lucide-react'
import { lateLines } from '@pasado/core/record/may'
import { describeEntry } from '@pasado/core/documents/describe-entry'
import { takenBackBy } from '@pasado/core/history/slips'
import type { Entry } from '@pasado/core/record/entry'
import { useSession } from '../../app/session'
import { Button } from '../../ui/Button'
import { List } from '../../ui/List'
import { Sheet } from '../../ui/Sheet'
import { useMayWrite } from '../session/facts'
import { takeBackAsSlip } from '../session/write'
import { useVisit } from '../session/visit-state'

const moment = (iso: string) => format(new Date(iso), 'd MMM HH:mm')

/** The logbook, newest line first. */
export function LogbookSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Logbook"
      description="Every line, newest first. Nothing in it is ever changed. What you wrote by mistake you can take back."
      wide
    >
      {open && <Lines />}
    </Sheet>
  )
}

function Lines() {
  const entries = useVisit((state) => state.entries)
  const history = useVisit((state) => state.history)
  const me = useSession((state) => state.me)
  const mayWrite = useMayWrite()
  const [asked, setAsked] = useState<string | null>(null)
  const late = useMemo(() => lateLines(entries), [entries])
  const mine = useMemo(() => (me && mayWrite ? takenBackBy(history, me) : new Set<string>()), [me, mayWrite, history])
  return (
    <List as="ol" reversed start={entries.length}>
      {entries.toReversed().map((entry) => (
        <Line
          key={entry.id}
          entry={entry}
          isLate={late.has(entry.seq)}
          isUndone={history.undone.has(entry.seq)}
          mayTakeBack={mine.has(entry.id)}
          isAsked={asked === entry.id}
          onAsk={setAsked}
        />
      ))}
    </List>
  )
}

function Line({
  entry,
  isLate,
  isUndone,
  mayTakeBack,
  isAsked,
  onAsk
}: {
  entry: Entry
  isLate: boolean
  isUndone: boolean
  mayTakeBack: boolean
  isAsked: boolean
  onAsk: (id: string | null) => void
}) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  return (
    <li className="grid grid-cols-[3rem_1fr_2.75rem] gap-x-3 py-2 sm:grid-cols-[3rem_1fr_auto_2.75rem]">
      <span className="exact text-soft">{entry.seq}</span>
      <span className={`min-w-0 break-words ${isUndone ? 'line-through' : ''}`}>
        {describeEntry(entry, record, catalogue, moment)}
      </span>
      <span className="fine col-start-2 row-start-2 sm:col-start-auto sm:row-start-auto">
        {entry.by.name}, {moment(entry.at)}
        {isLate && <b className="block">sent after it was handed on</b>}
        {isUndone && <b className="block">taken back: it was never so</b>}
      </span>
      {mayTakeBack && (
        <button
          type="button"
          className="col-start-3 row-start-1 -my-2.5 flex size-11 items-center justify-center sm:col-start-4"
          aria-label={`It was never so: line ${entry.seq}`}
          aria-expanded={isAsked}
          onClick={() => onAsk(isAsked ? null : entry.id)}
        >
          <Undo2 aria-hidden size={18} />
        </button>
      )}
      {mayTakeBack && isAsked && (
        <div className="col-span-full mt-2 border-l-4 border-plum bg-well p-3">
          <p>
            Was this never so? Then it counts for nothing, and what it undid stands again. Both lines stay here, and
            whoever approves or signs sees them. If it was so and is otherwise now, write how it is instead.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button
              kind="main"
              onClick={() => {
                takeBackAsSlip(entry)
                onAsk(null)
              }}
            >
              It was never so
            </Button>
            <Button kind="quiet" onClick={() => onAsk(null)}>
              Leave it
            </Button>
          </div>
        </div>
      )}
    </li>
  )
}
