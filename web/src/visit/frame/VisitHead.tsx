import { format, isToday } from 'date-fns'
import { BookOpen, ChevronLeft } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { callUp } from '../../app/called-up'
import { PersonMenu } from '../../app/PersonMenu'
import { useVisit } from '../session/visit-state'
import { reasonWords } from './reason-words'

/** Whether everything is saved: sealed, without a connection, saved, on its way, or kept on this device. */
function Saved() {
  const seal = useVisit((state) => state.record.seal)
  const saving = useVisit((state) => state.saving)
  const pending = useVisit((state) => state.pending.length)
  const asOf = useVisit((state) => state.asOf)
  const line = useVisit((state) => state.confirmed.record.lastSeq)
  if (seal) return 'sealed'
  if (asOf !== null && pending === 0)
    return (
      <>
        <Wide>no connection · </Wide>as of {format(asOf, isToday(asOf) ? 'HH:mm' : 'd MMM HH:mm')}
      </>
    )
  if (saving === 'saved')
    return (
      <>
        saved<Wide> · line {line}</Wide>
      </>
    )
  if (saving === 'saving') return 'saving …'
  return (
    <>
      <Wide>not saved yet · </Wide>
      {pending} kept here
    </>
  )
}

/** The band above a visit: where, why, and whether everything is saved. */
export function VisitHead() {
  const { street, reason } = useVisit((state) => state.record.brief.facts)
  const saving = useVisit((state) => state.saving)
  const asOf = useVisit((state) => state.asOf)
  return (
    <header className="on-band flex items-center gap-x-3 bg-band px-4 text-onband lg:min-h-13">
      <Link
        to="/"
        aria-label="Pasado, back to the day"
        className="inline-flex min-h-11 min-w-8 items-center text-lg font-bold"
      >
        <ChevronLeft aria-hidden size={22} className="sm:hidden" />
        <span className="hidden sm:inline">Pasado</span>
      </Link>
      <h1 className="min-w-0 grow truncate text-base lg:text-lg">
        {street}
        {reason && <span className="hidden font-normal text-softband sm:inline"> · {reasonWords[reason]}</span>}
      </h1>
      <p
        role="status"
        className={
          saving === 'not saved yet' || asOf !== null
            ? 'whitespace-nowrap border border-onband px-2 font-bold'
            : 'text-sm text-softband'
        }
      >
        <Saved />
      </p>
      <button
        type="button"
        className="inline-flex min-h-11 min-w-11 items-center justify-center"
        aria-label="Logbook"
        onClick={() => callUp('logbook')}
      >
        <BookOpen aria-hidden size={20} />
      </button>
      <button
        type="button"
        className="hidden min-h-11 min-w-11 items-center justify-center lg:inline-flex"
        aria-label="Keys"
        onClick={() => callUp('keys')}
      >
        <span className="key" aria-hidden>
          ?
        </span>
      </button>
      <PersonMenu />
    </header>
  )
}

/** Said to everybody, and shown where there is room. */
function Wide({ children }: { children: ReactNode }) {
  return <span className="max-sm:sr-only">{children}</span>
}
