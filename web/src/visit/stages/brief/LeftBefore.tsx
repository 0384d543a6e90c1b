import { format } from 'date-fns'
import { useRead } from '../../../app/read'
import { Notice } from '../../../ui/Notice'
import { useVisit } from '../../session/visit-state'

const DAY_MS = 86_400_000

/** What the visit before left with a reason: first of all what was let pass until a day that has passed. */
export function LeftBefore() {
  const home = useVisit(({ record }) => (record.visit.startedFrom && !record.seal ? record.visit.home : null))
  return home ? <OfHome home={home} /> : null
}

function OfHome({ home }: { home: string }) {
  const now = useRead('GET /homes/:id', { params: { id: home } }).value?.now
  if (!now || now.left.length === 0) return null
  const hasPassed = (until: string | null) => until !== null && Date.now() >= Date.parse(until) + DAY_MS
  const left = now.left.toSorted((a, b) => Number(hasPassed(b.until)) - Number(hasPassed(a.until)))
  return (
    <Notice as="section" aria-label="Left by the visit before" edge="plum" className="mt-3">
      <h3 className="font-bold">Left by the visit of {format(new Date(now.sealedAt), 'd MMM yyyy')}</h3>
      <ul className="mt-1 list-disc pl-5">
        {left.map(({ rule, about, kind, reason, until }) => (
          <li key={`${rule} ${about}`}>
            <b>{about}</b>, {kind}: {reason}
            {until && (
              <span className={hasPassed(until) ? 'font-bold' : 'text-soft'}>
                {' '}
                {hasPassed(until)
                  ? `Its day has passed: ${format(new Date(until), 'd MMM')}.`
                  : `Until ${format(new Date(until), 'd MMM')}.`}
              </span>
            )}
          </li>
        ))}
      </ul>
    </Notice>
  )
}
