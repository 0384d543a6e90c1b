import type { AnswerOf } from '@pasado/core/api/all'
import { format } from 'date-fns'
import { Link } from 'react-router'
import { Notice } from '../ui/Notice'

type Fault = NonNullable<AnswerOf<'GET /day'>['faults']>[number]

/** What the nightly look at everything found that does not hold: for a lead, before anything else. */
export function FaultsFound({ faults }: { faults: readonly Fault[] }) {
  const [first] = faults
  if (!first) return null
  return (
    <Notice as="section" edge="ink" aria-label="Does not hold" className="mt-4">
      <h2 className="text-base">
        {faults.length === 1 ? 'A record does' : `${faults.length} records do`} not hold, as was found on{' '}
        {format(new Date(first.foundAt), 'd MMM, HH:mm')}
      </h2>
      <p className="text-soft">
        Somebody or something altered the database. Keep it as it is, tell whoever looks after it, and believe these
        records no further than their papers and files.
      </p>
      <ul className="mt-2">
        {faults.map(({ visit, street, customer, what }) => (
          <li key={visit}>
            <Link to={`/visit/${visit}/signoff`} className="block min-h-11 py-2 hover:underline">
              <b>{street}</b> <span className="text-soft">{customer}</span>
              <span className="block">{what}</span>
            </Link>
          </li>
        ))}
      </ul>
    </Notice>
  )
}
