import type { AnswerOf } from '@pasado/core/api/all'
import { format } from 'date-fns'
import { Link } from 'react-router'
import { Notice } from '../ui/Notice'

type Fault = NonNullable<AnswerOf<'GET /day'>['faults']>[number]

/** What the nightly look at everything found that is not as it should be: for a lead, before anything else. */
export function FaultsFound({ faults }: { faults: readonly Fault[] }) {
  const [first] = faults
  if (!first) return null
  return (
    <Notice as="section" edge="ink" aria-label="Does not hold" className="mt-4">
      <h2 className="text-base">
        {faults.length === 1 ? 'A visit is not as it should be' : `${faults.length} visits are not as they should be`},
        found on {format(new Date(first.foundAt), 'd MMM, HH:mm')}
      </h2>
      <p className="text-soft">
        Where a line, the end of a logbook or a seal does not hold, somebody or something altered the database: keep it
        as it is, tell whoever looks after it, and believe that record no further than its paper and its file.
      </p>
      <ul className="mt-2">
        {faults.map(({ visit, street, customer, what }) => (
          <li key={visit}>
            <Link to={`/visit/${visit}/signoff`} className="block min-h-11 py-2">
              <b className="underline underline-offset-2">{street}</b> <span className="text-soft">{customer}</span>
              <span className="block">{what}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Notice>
  )
}
