import type { AnswerOf } from '@pasado/core/api/all'
import { format } from 'date-fns'
import { Link } from 'react-router'
import { List } from '../ui/List'

type Late = NonNullable<AnswerOf<'GET /day'>['late']>[number]

/** Sealed visits that lines came for when they were sealed already: for a lead to look at. */
export function LateLines({ late }: { late: readonly Late[] }) {
  if (late.length === 0) return null
  return (
    <section aria-label="Came after the seal" className="mt-5">
      <h2 className="text-base text-soft">Came after the seal: no part of the record</h2>
      <List className="paper mt-1">
        {late.map(({ visit, street, customer, lines, last }) => (
          <li key={visit}>
            <Link
              to={`/visit/${visit}/signoff`}
              className="grid min-h-14 grid-cols-[4.5rem_1fr] items-center gap-x-4 px-4 py-2 hover:bg-well sm:grid-cols-[6rem_1fr_auto]"
            >
              <b className="exact">{format(new Date(last), 'd MMM')}</b>
              <span className="min-w-0">
                <b>{street}</b> <span className="text-soft">{customer}</span>
              </span>
              <span className="col-start-2 text-soft sm:col-start-auto">
                {lines} {lines === 1 ? 'line' : 'lines'}
              </span>
            </Link>
          </li>
        ))}
      </List>
    </section>
  )
}
