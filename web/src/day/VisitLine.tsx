import type { ListedVisit } from '@pasado/core/api/day'
import { format, formatDistanceToNowStrict, isSameDay, isTomorrow } from 'date-fns'
import { Link } from 'react-router'
import { stages } from '@pasado/core/record/stages'
import { Mark } from '../ui/Mark'
import { reasonWords } from '../visit/frame/reason-words'

/** A whole visit as a small strand. */
function SmallStrand({ visit }: { visit: ListedVisit }) {
  const outcomes = stages.slice(0, 8).map((stage) => visit.summary.stages?.[stage] ?? 'not-here')
  const tell = visit.sealedAt ? 'sealed' : `${visit.summary.open} between here and sign-off`
  return (
    <span role="img" aria-label={tell} className="flex gap-0.5">
      {outcomes.map((outcome, index) => (
        <span
          key={index}
          aria-hidden
          className={outcome === 'unproven' || outcome === 'not-here' ? 'text-edge' : 'text-ink'}
        >
          <Mark outcome={outcome} width={26} />
        </span>
      ))}
    </span>
  )
}

function whenWords(visit: ListedVisit): { time: string; day: string | null } {
  if (!visit.plannedAt) return { time: '', day: 'not planned' }
  const at = new Date(visit.plannedAt)
  const now = new Date()
  return {
    time: format(at, 'HH:mm'),
    day: dayWords(at, now)
  }
}

/** The day where it is not today. */
function dayWords(at: Date, now: Date): string | null {
  if (isSameDay(at, now)) return null
  return isTomorrow(at) ? 'tomorrow' : format(at, 'd MMM')
}

/** How a visit stands: sealed and when, how much is open, or nothing is. */
function standWords({ sealedAt, cancelledAt, summary }: ListedVisit): string {
  if (cancelledAt) return `cancelled ${format(new Date(cancelledAt), 'd MMM yyyy')}`
  if (sealedAt) return `sealed ${format(new Date(sealedAt), 'd MMM yyyy')}`
  return summary.open ? `${summary.open} open` : 'ready to sign'
}

/** One visit in a list: when, where, how it stands, and what is heaviest. */
export function VisitLine({
  visit,
  showTechnician = false,
  atHome = false,
  review = false
}: {
  visit: ListedVisit
  showTechnician?: boolean
  atHome?: boolean
  /** For a lead: the line leads to the page of the review. */ review?: boolean
}) {
  const { time, day } = whenWords(visit)
  const { summary } = visit
  const reason = summary.reason ? reasonWords[summary.reason as keyof typeof reasonWords] : ''
  return (
    <li>
      <Link
        to={review ? `/review/${visit.id}` : `/visit/${visit.id}/${visit.sealedAt ? 'signoff' : 'brief'}`}
        className="grid grid-cols-[4.6rem_1fr] gap-x-4 gap-y-1 px-4 py-3 hover:bg-well md:grid-cols-[4.6rem_minmax(0,17rem)_minmax(0,1fr)]"
      >
        <span>
          <b className="exact text-xl">{time}</b>
          {day && <span className="fine block">{day}</span>}
        </span>
        {atHome ? (
          <span className="min-w-0">
            <b className="block truncate text-lg">{reason}</b>
            <span className="fine block">{visit.technicianName}</span>
          </span>
        ) : (
          <span className="min-w-0">
            <b className="block truncate text-lg">{visit.street}</b>
            <span className="fine block">
              {visit.town} · {visit.customer}
            </span>
            <span className="fine block">
              {reason}
              {showTechnician ? ` · ${visit.technicianName}` : ''}
            </span>
            {summary.movedBy && !visit.sealedAt && (
              <span className="fine block font-bold text-ink">moved by {summary.movedBy}</span>
            )}
          </span>
        )}
        <span className="col-span-2 min-w-0 md:col-span-1">
          <span className="flex flex-wrap items-center gap-x-4">
            <SmallStrand visit={visit} />
            <b>{standWords(visit)}</b>
            {visit.review !== 'none' && !visit.sealedAt && (
              <span className="border-2 border-plum px-2 text-sm font-bold">
                {visit.review === 'asked'
                  ? `in review${summary.reviewAskedAt ? ` for ${formatDistanceToNowStrict(new Date(summary.reviewAskedAt))}` : ''}`
                  : 'back from review'}
              </span>
            )}
          </span>
          {!visit.sealedAt &&
            summary.heaviest?.slice(0, 2).map((finding) => (
              <span key={finding.rule + finding.text} className="mt-0.5 block truncate text-sm text-soft">
                {finding.text}
              </span>
            ))}
        </span>
      </Link>
    </li>
  )
}
