import type { AnswerOf } from '@pasado/core/api/all'
import { format } from 'date-fns'
import { Link } from 'react-router'
import { List } from '../ui/List'

type Waiver = NonNullable<AnswerOf<'GET /day'>['waivers']>[number]

/** What a lead let pass until a day that has passed, at homes that nobody has been to since: it is still to be put right. */
export function WaiversDue({ waivers }: { waivers: readonly Waiver[] }) {
  if (waivers.length === 0) return null
  return (
    <section aria-label="Waivers whose day has passed" className="mt-5">
      <h2 className="text-base text-soft">Waivers whose day has passed: still to be put right</h2>
      <List className="paper mt-1">
        {waivers.map((waiver) => (
          <li key={`${waiver.visit} ${waiver.rule} ${waiver.subject}`}>
            <Link
              to={`/homes/${waiver.home}`}
              className="grid min-h-14 grid-cols-[4.5rem_1fr] items-center gap-x-4 px-4 py-2 hover:bg-well sm:grid-cols-[6rem_1fr_auto]"
            >
              <b className="exact">{format(new Date(waiver.until), 'd MMM')}</b>
              <span className="min-w-0">
                <b>{waiver.street}</b> <span className="text-soft">{waiver.customer}</span>
                <span className="block">{waiver.about}</span>
              </span>
              <span className="col-start-2 text-soft sm:col-start-auto">waived by {waiver.by}</span>
            </Link>
          </li>
        ))}
      </List>
    </section>
  )
}
