import { startTransition, Suspense, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { Link, Navigate, useParams } from 'react-router'
import { stages, type Stage } from '@pasado/core/record/stages'
import { callUp, useCalledUp } from '../../app/called-up'
import { useTitle } from '../../app/use-title'
import { closeVisit, openVisit } from '../session/session'
import { useVisit } from '../session/visit-state'
import { Docket, DocketSheet } from './Docket'
import { UndoSheet } from './UndoSheet'
import { LogbookSheet, RunPlanSheet } from './later-sheets'
import { Photos } from './Photos'
import { OutboxBar } from '../../outbox/OutboxBar'
import { BrokenNotice, ForeignNotice } from './ForeignNotice'
import { loadStage, loadStagesAhead, stageWork } from './stage-work'
import { Strand } from './Strand'
import { useArriveAtPlace } from '../session/place'
import { useVisitKeys } from './keys'
import { VisitHead } from './VisitHead'
import { useAgenda, useKeepPlanned } from './use-agenda'
import { Waits } from './Waits'
import { CancelledNotice } from './Cancel'
import { WhoseVisit } from './WhoseVisit'
import { AskedRules } from './AskedRules'
import { NewerStandard } from './NewerStandard'

/** So long a stage is waited for before it is said, ms. */
const SLOW_MS = 800

/** A visit: the strand above, the stage's work in the middle, the docket beside, the waits at the foot. */
export function Visit() {
  const { id, stage } = useParams<{ id: string; stage: string }>()
  const opened = useVisit((state) => state.id)
  const problem = useVisit((state) => state.problem)
  const loaded = useVisit((state) => state.record.lastSeq > 0)
  const title = useVisit((state) => state.record.brief.facts.street)
  const calledUp = useCalledUp((state) => state.what)
  const isHere = useIsHere(stage as Stage)
  const isOpen = opened === id && loaded && isHere
  // Its first drawing is long: it gives way to whatever else is pressed meanwhile, and comes part by part.
  const isShown = useDeferredValue(isOpen)
  const parts = useParts(isShown && isOpen)
  useEffect(() => (isShown ? loadStagesAhead() : undefined), [isShown])
  useEffect(() => {
    if (!id) return
    void openVisit(id)
    return () => {
      closeVisit()
      callUp(null)
    }
  }, [id])
  useTitle(title ?? '')
  useArriveAtPlace()
  useVisitKeys(id ?? '')
  if (!stages.includes(stage as Stage)) return <Navigate to={`/visit/${id}/brief`} replace />
  if (problem && !loaded)
    return (
      <main className="p-6">
        <p role="alert" className="font-bold">
          {problem}
        </p>
        <p className="mt-2">
          <Link className="underline" to="/">
            Back to your day
          </Link>
        </p>
      </main>
    )
  if (!isOpen || !isShown)
    return (
      <p className="p-6 text-soft" role="status">
        Opening the visit …
      </p>
    )
  return (
    <div className="flex min-h-dvh flex-col lg:h-dvh">
      <VisitHead />
      <Strand visit={id} here={stage as Stage} />
      <div className="grid grow grid-cols-[minmax(0,1fr)] lg:min-h-0 lg:grid-cols-[minmax(0,1fr)_322px]">
        <main className="relative min-w-0 bg-sheet lg:overflow-y-auto" key={stage}>
          <OutboxBar visit={id} />
          <BrokenNotice />
          <ForeignNotice />
          <CancelledNotice />
          <WhoseVisit />
          <NewerStandard />
          {parts > 0 && (
            <Suspense fallback={<Slow />}>
              <OfStage stage={stage as Stage} />
            </Suspense>
          )}
        </main>
        <aside aria-label="Docket" className="relative hidden border-l border-rule bg-well lg:block lg:overflow-y-auto">
          {parts > 1 && <Docket />}
        </aside>
      </div>
      {parts > 2 && <Foot />}
      <DocketSheet open={calledUp === 'docket'} onClose={() => callUp(null)} />
      <LogbookSheet open={calledUp === 'logbook'} onClose={() => callUp(null)} />
      <UndoSheet />
    </div>
  )
}

/** The stage, the docket, the foot: each is drawn once what was drawn before it is on the screen. @returns how many of them are to be drawn */
function useParts(isShown: boolean): number {
  const [parts, setParts] = useState(0)
  const isNext = isShown && parts < 3
  useEffect(() => {
    if (!isNext) return
    const timer = setTimeout(() => startTransition(() => setParts((drawn) => drawn + 1)))
    return () => clearTimeout(timer)
  }, [isNext, parts])
  if (!isShown && parts > 0) setParts(0)
  return parts
}

/** Whether the script of the stage that a visit is opened at is here, or did not come: then the visit is shown without. */
function useIsHere(stage: Stage): boolean {
  const [isHere, setHere] = useState(false)
  useEffect(() => {
    let isOver = false
    const here = () => {
      if (!isOver) setHere(true)
    }
    loadStage(stage).then(here, here)
    return () => {
      isOver = true
    }
  }, [stage])
  return isHere
}

/** What is done at a stage, with the rules of the house and the photos. */
function OfStage({ stage }: { stage: Stage }) {
  const [Work] = useState(() => stageWork(stage))
  return (
    <>
      <Work />
      <OwnRules stage={stage} />
      {stage !== 'signoff' && (
        <div className="border-t border-rule p-4 lg:px-5">
          <Photos about={{ thing: 'stage', id: stage }} label="Photos of this stage" add="Add one of this stage" />
        </div>
      )}
    </>
  )
}

/** Said where the script of a stage is long in coming: mostly it is there at once. */
function Slow() {
  const [isSlow, setSlow] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), SLOW_MS)
    return () => clearTimeout(timer)
  }, [])
  return (
    <div className="min-h-dvh p-6 text-soft" role="status">
      {isSlow && 'This stage is still being loaded: it needs a connection this once.'}
    </div>
  )
}

/** Rules of the company's own at this stage, answered with one tap. */
function OwnRules({ stage }: { stage: Stage }) {
  const own = useVisit((state) => state.standard.own)
  const ids = useMemo(
    () => (own ?? []).filter((candidate) => candidate.stage === stage).map(({ id }) => id),
    [own, stage]
  )
  if (ids.length === 0) return null
  return (
    <section aria-label="Rules of the house" className="px-4 pb-4 lg:px-5">
      <AskedRules stage={stage} only={ids} />
    </section>
  )
}

/** The waits and the run plan, which is made anew by itself and so stands apart. */
function Foot() {
  useKeepPlanned()
  const found = useAgenda()
  const planned = useCalledUp((state) => state.what === 'plan')
  return (
    <>
      <Waits found={found} onDocket={() => callUp('docket')} onPlan={() => callUp('plan')} />
      <RunPlanSheet found={found} open={planned} onClose={() => callUp(null)} />
    </>
  )
}
