import type { ListedVisit, OpenPart } from '@pasado/core/api/day'
import { format, isBefore, isSameDay, startOfDay } from 'date-fns'
import { lazy, Suspense, useEffect, useState } from 'react'
import { loadVisitAhead } from '../app/visit-script'
import { Link } from 'react-router'
import { ask, download, failureTitle } from '../app/api'
import { useSession } from '../app/session'
import { DayWay } from './DayWay'
import { FaultsFound } from './FaultsFound'
import { LateLines } from './LateLines'
import { WaiversDue } from './WaiversDue'
import { VisitLine } from './VisitLine'
import { Button } from '../ui/Button'
import { useDay, type DayList } from './use-day'
import { Heading, Page } from '../ui/Page'
import { Notice } from '../ui/Notice'
import { List } from '../ui/List'

// Only leads are told, and only they load the rules for it.
const RulesThatCameToday = lazy(async () => ({ default: (await import('./RulesThatCameToday')).RulesThatCameToday }))

/** When a check may begin: today its time, past its day, else weekday and time. */
function fromWords(check: DayList['checks'][number], today: Date): string {
  const from = new Date(check.from)
  if (isSameDay(from, today)) return format(from, 'HH:mm')
  return format(from, isBefore(new Date(check.to), today) ? 'd MMM' : 'EEE HH:mm')
}

/** Day: my visits in order, with what each still lacks. */
export function Day() {
  const me = useSession((state) => state.me)
  const [whose, setWhose] = useState<'mine' | 'all'>(me?.role === 'technician' ? 'mine' : 'all')
  const [refused, setRefused] = useState<string | null>(null)
  const [way, setWay] = useState<string | null>(null)
  const { list, taken, problem: unread, put, again } = useDay(whose)
  const problem = refused ?? unread
  useEffect(loadVisitAhead, [])
  const further = async (part: OpenPart) => {
    try {
      const page = await ask('GET /day/visits', { query: { whose, part, after: list!.more[part]! } })
      put({ ...list!, visits: [...list!.visits, ...page.visits], more: { ...list!.more, [part]: page.next } })
      setRefused(null)
    } catch (error) {
      setRefused(failureTitle(error, 'The further visits could not be loaded.'))
    }
  }
  const today = new Date()
  const groups = list
    ? ([
        [
          'Overdue',
          list.visits.filter((visit) => visit.plannedAt && isBefore(new Date(visit.plannedAt), startOfDay(today)))
        ],
        ['Today', list.visits.filter((visit) => visit.plannedAt && isSameDay(new Date(visit.plannedAt), today))],
        [
          'Later',
          list.visits.filter(
            (visit) =>
              !visit.plannedAt ||
              (!isBefore(new Date(visit.plannedAt), startOfDay(today)) && !isSameDay(new Date(visit.plannedAt), today))
          )
        ]
      ] as const)
    : []
  return (
    <Page title="Day" width="wide">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <Heading>{format(today, 'EEEE, d MMMM')}</Heading>
        <div className="flex flex-wrap gap-2">
          <div role="group" aria-label="Whose visits" className="flex">
            {(['mine', 'all'] as const).map((choice) => (
              <button
                key={choice}
                type="button"
                className="chip"
                aria-pressed={whose === choice}
                data-state={whose === choice ? 'on' : 'off'}
                onClick={() => setWhose(choice)}
              >
                {choice === 'mine' ? 'Mine' : 'Everybody’s'}
              </button>
            ))}
          </div>
          <Button
            onClick={() =>
              void download('GET /day/calendar', { query: { whose } }).catch(() =>
                setRefused('The calendar could not be fetched; try again.')
              )
            }
          >
            As calendar
          </Button>
          <Link to="/visit/new" className="btn btn-plum">
            New visit
          </Link>
        </div>
      </div>
      {problem && (
        <p role="alert" className="mt-4 font-bold">
          {problem} It is tried again.
          {taken &&
            ` This is the day as of ${format(taken.at, isSameDay(taken.at, today) ? 'HH:mm' : 'd MMM HH:mm')}; ${taken.visits} of its ${list?.visits.length ?? 0} visits are on this device and can be worked on.`}
        </p>
      )}
      {!list && !problem && (
        <p className="mt-4 text-soft" role="status">
          Loading the day …
        </p>
      )}
      {(list?.shown ?? []).map(({ person, name, at }) => (
        <Notice key={`${person} ${at}`} role="note" as="p" edge="plum" className="mt-4">
          <b>{name}</b> looked at more than ten secrets within an hour, {format(new Date(at), 'EEEE HH:mm')}, and was
          asked for the password again.
        </Notice>
      ))}
      <FaultsFound faults={list?.faults ?? []} />
      {me?.role === 'lead' && (
        <Suspense>
          <RulesThatCameToday />
        </Suspense>
      )}
      {list && list.review.length > 0 && (
        <Group title="Waits for your review" visits={list.review} showTechnician review />
      )}
      <WaiversDue waivers={list?.waivers ?? []} />
      <LateLines late={list?.late ?? []} />
      {list?.checks && list.checks.length > 0 && (
        <section aria-label="Checks due" className="mt-5">
          <h2 className="text-base text-soft">Checks of homes that have settled</h2>
          <List className="paper mt-1">
            {list.checks.map((check) => (
              <li key={check.id}>
                <Link
                  to={`/check/${check.id}`}
                  className="flex min-h-14 flex-wrap items-center gap-x-4 px-4 py-2 hover:bg-well"
                >
                  <b className="exact w-24 shrink-0">{fromWords(check, today)}</b>
                  <span className="grow">
                    <b>{check.street}</b>{' '}
                    <span className="text-soft">
                      {check.customer}
                      {whose === 'all' ? `, ${check.technician}` : ''}
                    </span>
                  </span>
                  <span className={isBefore(new Date(check.to), today) ? 'font-bold' : 'text-soft'}>
                    {isBefore(new Date(check.to), today) ? 'overdue' : `until ${format(new Date(check.to), 'HH:mm')}`}
                  </span>
                </Link>
              </li>
            ))}
          </List>
        </section>
      )}
      {groups.map(
        ([title, visits]) =>
          visits.length > 0 && (
            <Group key={title} title={title} visits={[...visits]} showTechnician={whose === 'all'}>
              {!taken &&
                list?.more &&
                ({ Overdue: ['overdue'], Today: [], Later: ['upcoming', 'unplanned'] } as const)[title].map(
                  (part) =>
                    list.more[part] !== null && (
                      <p key={part} className="mt-1">
                        <Button onClick={() => void further(part)}>More of them</Button>
                      </p>
                    )
                )}
              {title === 'Today' && !taken && (
                <TheWay
                  visits={visits}
                  chosen={way}
                  onChoose={setWay}
                  mayMove={me?.role !== 'office'}
                  onMoved={() => void again()}
                />
              )}
            </Group>
          )
      )}
      {list?.erasures && list.erasures.length > 0 && (
        <section aria-label="Erasures" className="mt-5">
          <h2 className="text-base text-soft">Secrets that are erased by themselves within a week</h2>
          <List className="paper mt-1">
            {list.erasures.map((erasure) => (
              <li key={erasure.visit}>
                <Link
                  to={`/homes/${erasure.home}`}
                  className="flex min-h-11 flex-wrap items-center gap-x-4 px-4 py-1 hover:bg-well"
                >
                  <b className="exact w-32 shrink-0">{format(new Date(erasure.dueAt), 'EEE d MMM')}</b>
                  <span className="grow">
                    <b>{erasure.street}</b> <span className="text-soft">{erasure.customer}</span>
                  </span>
                </Link>
              </li>
            ))}
          </List>
        </section>
      )}
      {list && list.visits.length === 0 && (
        <p className="mt-6">
          No open visit{whose === 'mine' ? ' of yours' : ''}. Book one with{' '}
          <Link className="underline" to="/visit/new">
            New visit
          </Link>
          .
        </p>
      )}
    </Page>
  )
}

/** The way through today of one technician: the only one there is, or the one that is chosen. */
function TheWay({
  visits,
  chosen,
  onChoose,
  mayMove,
  onMoved
}: {
  visits: readonly ListedVisit[]
  chosen: string | null
  onChoose: (technician: string | null) => void
  mayMove: boolean
  onMoved: () => void
}) {
  const people = [...new Map(visits.map((visit) => [visit.technician, visit.technicianName])).entries()]
  const whose = people.length === 1 ? people[0]![0] : chosen
  return (
    <>
      {people.length > 1 && (
        <div className="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="Whose way">
          {people.map(([id, name]) => (
            <button
              key={id}
              type="button"
              className="chip"
              aria-pressed={whose === id}
              data-state={whose === id ? 'on' : 'off'}
              onClick={() => onChoose(whose === id ? null : id)}
            >
              The way of {name}
            </button>
          ))}
        </div>
      )}
      {whose !== null && (
        <DayWay
          visits={visits.filter(({ technician }) => technician === whose)}
          day={new Date()}
          mayMove={mayMove}
          onMoved={onMoved}
        />
      )}
    </>
  )
}

function Group({
  title,
  visits,
  showTechnician,
  review = false,
  children
}: {
  title: string
  visits: ListedVisit[]
  showTechnician: boolean
  review?: boolean
  children?: React.ReactNode
}) {
  return (
    <section aria-label={title} className="mt-5">
      <h2 className="text-base text-soft">{title}</h2>
      <List className="paper mt-1">
        {visits.map((visit) => (
          <VisitLine key={visit.id} visit={visit} showTechnician={showTechnician} review={review} />
        ))}
      </List>
      {children}
    </section>
  )
}
