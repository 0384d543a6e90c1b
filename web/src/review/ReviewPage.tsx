import { format } from 'date-fns'
import { useEffect, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { judgeRooms, roomFloor, sourceOf } from '@pasado/core/work/prove/rooms'
import { bottleneckOf } from '@pasado/core/work/prove/bottleneck'
import { photosOf, standing, type VisitRecord } from '@pasado/core/record/record'
import { changesBetween, differing } from '@pasado/core/documents/changes'
import { fold } from '@pasado/core/history/fold'
import { useFolded } from '../visit/session/facts'
import { entriesUpTo } from '@pasado/core/record/moments'
import { nameOfStage, stageNames, stages } from '@pasado/core/record/stages'
import type { Finding } from '@pasado/core/rules/finding'
import { blocks, heaviestFirst } from '@pasado/core/rules/weigh'
import { useSession } from '../app/session'
import { useWhyNotWaive } from '../visit/frame/use-why-not-waive'
import { Mark } from '../ui/Mark'
import { ChangesView } from '../revisions/ChangesView'
import type { Grant } from '../visit/frame/GrantSheet'
import { GrantSheet } from '../visit/frame/later-sheets'
import { RestsOn } from '../visit/frame/RestsOn'
import { Photos } from '../visit/frame/Photos'
import { closeVisit, openVisit } from '../visit/session/session'
import { useVisit } from '../visit/session/visit-state'
import { useGoTo } from '../visit/session/place'
import { Button } from '../ui/Button'
import { Instead } from '../ui/Instead'
import { Decide } from './Decide'
import { useTitle } from '../app/use-title'
import { Heading, Page } from '../ui/Page'
import { Notice } from '../ui/Notice'
import { List } from '../ui/List'

const stateWords: Record<string, string> = { asked: 'asked', approved: 'approved it', returned: 'sent it back' }

/** What photos are of, in words. */
function subjectWords(subject: { thing: string; id: string }, record: VisitRecord): string {
  if (subject.thing === 'unit') return record.units[subject.id]?.facts.name ?? 'A unit'
  return subject.thing === 'stage' ? nameOfStage(subject.id) : subject.id
}

/** A lead judges a visit on one page: what stands in the way with its evidence, what was waived, measurements, photos; and decides. */
export function ReviewPage() {
  const { id = '' } = useParams()
  const lead = useSession((state) => state.me?.role === 'lead')
  const opened = useVisit((state) => state.id)
  const loaded = useVisit((state) => state.record.lastSeq > 0)
  const problem = useVisit((state) => state.problem)
  useTitle('Review')
  useEffect(() => {
    void openVisit(id)
    return closeVisit
  }, [id])
  if (!lead)
    return (
      <main className="p-6">
        <p>
          Only a lead reviews.{' '}
          <Link className="underline" to="/">
            Back to your day
          </Link>
        </p>
      </main>
    )
  if (problem && !loaded) return <Instead message={problem} alert />
  if (opened !== id || !loaded)
    return (
      <p className="p-6 text-soft" role="status">
        Opening the visit …
      </p>
    )
  return <Judged />
}

function Judged() {
  const folded = useFolded()
  const { record } = folded
  const findings = useVisit((state) => state.findings)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const id = useVisit((state) => state.id)
  const [grant, setGrant] = useState<Grant | null>(null)
  const ordered = useMemo(() => heaviestFirst(findings), [findings])
  const open = ordered.filter(blocks)
  const settled = ordered.filter(({ outcome, granted }) => outcome === 'waived' || granted !== null)
  const rooms = useMemo(() => judgeRooms(folded, catalogue, policy), [folded, catalogue, policy])
  const source = useMemo(() => sourceOf(folded, catalogue), [folded, catalogue])
  const floor = roomFloor(policy, source)
  const photos = photosOf(record).filter(({ label }) => !label)
  const { street, town, customerName, reason } = record.brief.facts
  const { review } = record
  const unsent = useVisit((state) => state.pending.some(({ kind }) => kind.startsWith('review.')))
  const about = [...new Map(photos.map((photo) => [`${photo.about.thing} ${photo.about.id}`, photo.about])).values()]
  return (
    <Page width="wide">
      <Heading>Review: {street}</Heading>
      <p className="text-soft">
        {town} · {customerName} · {reason?.replace('-', ' ')} · {record.visit.technician.name}.{' '}
        <Link className="underline" to={`/visit/${id}/brief`}>
          The visit
        </Link>
      </p>
      {review && (
        <Notice as="p" edge="plum" className="mt-2">
          <b>
            {review.by.name} {stateWords[review.state]}
          </b>
          , {format(new Date(review.at), 'd MMM HH:mm')}: {review.remark || 'no remark'}
          {unsent && (
            <b className="block">Not sent yet: the server has not taken it. Leave this device on until it has.</b>
          )}
        </Notice>
      )}
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
        <section aria-label="What stands in the way">
          <h2 className="text-lg">{open.length === 0 ? 'Nothing stands in the way' : `${open.length} in the way`}</h2>
          <List framed className="mt-1">
            {open.map((finding) => (
              <Line
                key={`${finding.rule} ${finding.subject?.id ?? ''} ${finding.subject?.name ?? ''}`}
                finding={finding}
                onGrant={setGrant}
              />
            ))}
          </List>
          {settled.length > 0 && (
            <>
              <h2 className="mt-4 text-lg">Settled with a reason</h2>
              <List framed className="mt-1">
                {settled.map((finding) => (
                  <Line
                    key={`${finding.rule} ${finding.subject?.id ?? ''} ${finding.subject?.name ?? ''}`}
                    finding={finding}
                    onGrant={setGrant}
                  />
                ))}
              </List>
            </>
          )}
          <p className="fine mt-3">
            {stages
              .map((stage) => {
                const count = findings.filter(
                  (finding) => finding.stage === stage && finding.outcome === 'holds'
                ).length
                return count ? `${stageNames[stage]} ${count}` : null
              })
              .filter(Boolean)
              .join(' · ')}{' '}
            hold.
          </p>
        </section>
        <div className="flex min-w-0 flex-col gap-4">
          <Decide />
          <section aria-label="Measured" className="paper p-4">
            <h2 className="text-lg">Measured</h2>
            <p>
              {source?.down
                ? `The source gives ${Math.round(source.down.median)} Mbit/s${record.brief.facts.speedDownMbps ? ` of ${record.brief.facts.speedDownMbps} paid for` : ''}.`
                : 'The source was not measured.'}{' '}
              Floor {Math.round(floor.mbps)} Mbit/s, {floor.dbm} dBm.
            </p>
            <List className="mt-1">
              {rooms.map(({ room, outcome, message, bands: [best] }) => {
                const way = best ? bottleneckOf(folded, catalogue, best, source, floor.dbm) : null
                return (
                  <li key={room.id} className="grid grid-cols-[34px_1fr] gap-x-3 py-2">
                    <span className="pt-1">
                      <Mark outcome={outcome} />
                    </span>
                    <span>
                      <b>{room.facts.name}</b> <span className="text-sm">{message}</span>
                      {way?.finding && outcome !== 'holds' && (
                        <span className="block text-sm font-bold">{way.finding}</span>
                      )}
                    </span>
                  </li>
                )
              })}
            </List>
          </section>
          {about.length > 0 && (
            <section aria-label="Photos of the visit" className="paper flex flex-col gap-3 p-4">
              {about.map((note) => (
                <Photos key={`${note.thing} ${note.id}`} about={note} label={subjectWords(note, record)} />
              ))}
            </section>
          )}
        </div>
      </div>
      <FromPlan />
      <GrantSheet grant={grant} onClose={() => setGrant(null)} />
    </Page>
  )
}

function Line({ finding, onGrant }: { finding: Finding; onGrant: (grant: Grant) => void }) {
  const goTo = useGoTo()
  const whyNot = useWhyNotWaive(finding)
  const title = finding.subject ? `${finding.subject.name}: ${finding.name.toLowerCase()}` : finding.name
  return (
    <li className="grid grid-cols-[34px_minmax(0,1fr)] gap-x-3 py-3">
      <span className="pt-1">
        <Mark outcome={finding.outcome} />
      </span>
      <div>
        <b>{title}</b>{' '}
        <span className="fine">
          {finding.level}, {stageNames[finding.stage]}
        </span>
        <p className="text-sm">
          {finding.evidence}{' '}
          {finding.granted ? (
            <b>
              {finding.granted.kind === 'waived' ? 'Waived' : 'Acknowledged'} by {finding.granted.by}
              {finding.granted.until ? ` until ${finding.granted.until}` : ''}: {finding.granted.reason}
            </b>
          ) : (
            `${finding.mend}${finding.lapsed ? ` ${finding.lapsed}` : ''}`
          )}
        </p>
        <p className="text-sm text-soft">{finding.says}</p>
        <RestsOn finding={finding} />
        <div className="mt-2 flex flex-wrap gap-2">
          {blocks(finding) && !whyNot && (
            <Button aria-label={`Waive: ${title}`} onClick={() => onGrant({ kind: 'waive', finding })}>
              Waive
            </Button>
          )}
          {finding.outcome === 'waived' && (
            <Button
              kind="quiet"
              aria-label={`Withdraw the waiver: ${title}`}
              onClick={() => onGrant({ kind: 'withdraw', finding })}
            >
              Withdraw the waiver
            </Button>
          )}
          {blocks(finding) && whyNot && <span className="fine">{whyNot}</span>}
          {finding.place && (
            <Button kind="quiet" aria-label={`Look at ${title}`} onClick={() => goTo(finding.place!)}>
              Look
            </Button>
          )}
        </div>
      </div>
    </li>
  )
}

/** What was left that is not as it was planned, with who changed it and why. */
function FromPlan() {
  const entries = useVisit((state) => state.entries)
  const folded = useFolded()
  const catalogue = useVisit((state) => state.catalogue)
  const standard = useVisit((state) => state.standard)
  const changes = useMemo(() => {
    const planned = fold(entriesUpTo(entries, 'planned'))
    if (standing(planned.record.units).length === 0) return null
    return differing(changesBetween({ ...planned, catalogue, standard }, { ...folded, catalogue, standard }))
  }, [entries, folded, catalogue, standard])
  return (
    <section aria-label="Differences from the plan" className="mt-6">
      <h2 className="mb-2 text-lg">Different from the plan</h2>
      {changes ? (
        <ChangesView changes={changes} />
      ) : (
        <p className="paper p-4">No unit was planned before the visit: there is nothing to differ from.</p>
      )}
      <p className="fine mt-2">
        <Link className="underline" to={`/homes/${folded.record.visit.home}/compare`}>
          Compare with the visit before, or as found with as left
        </Link>
      </p>
    </section>
  )
}
