import { format, isToday } from 'date-fns'
import { BookOpen, ChevronLeft } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { callUp } from '../../app/called-up'
import { PersonMenu } from '../../app/Shell'
import { useVisit } from '../session/store'
import { reasonWords } from './reason-words'

/** The band above a visit: where, why, and whether everything is saved. */
export function VisitHead() {
  const { street, reason } = useVisit((state) => state.record.brief.facts)
  const seal = useVisit((state) => state.record.seal)
  const saving = useVisit((state) => state.saving)
  const pending = useVisit((state) => state.pending.length)
  const asOf = useVisit((state) => state.asOf)
  const line = useVisit((state) => state.confirmed.lastSeq)
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
        {seal ? (
          'sealed'
        ) : asOf !== null && pending === 0 ? (
          <>
            <Wide>no connection · </Wide>as of {format(asOf, isToday(asOf) ? 'HH:mm' : 'd MMM HH:mm')}
          </>
        ) : saving === 'saved' ? (
          <>
            saved<Wide> · line {line}</Wide>
          </>
        ) : saving === 'saving' ? (
          'saving …'
        ) : (
          <>
            <Wide>not saved yet · </Wide>
            {pending} kept here
          </>
        )}
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
