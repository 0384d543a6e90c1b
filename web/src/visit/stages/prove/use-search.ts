import { useMemo } from 'react'
import { believe, testsFor, type Belief, type Observed } from '@pasado/core/work/diagnose/belief'
import { nextStep, type NextStep } from '@pasado/core/work/diagnose/next-step'
import { type CauseId } from '@pasado/core/work/diagnose/causes'
import { knownAnswers, withKnown } from '@pasado/core/work/diagnose/known'
import { applicableLooks } from '@pasado/core/work/diagnose/applicable-looks'
import type { Complaint } from './complaint'
import { type FaultSearch, type Unit } from '@pasado/core/record/record'
import { useFolded } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'

/** A search for a fault as it stands: what is known, what it may be, what to do next, and how to say more. */
export interface SearchNow extends Complaint {
  id: string
  unitThere: Unit | undefined
  known: ReturnType<typeof knownAnswers>
  /** What was answered in this search. */ answered: Observed
  /** What was answered, and what is known without asking. */ observed: Observed
  offered: ReadonlySet<string>
  suspects: Belief['suspects']
  odd: Belief['odd']
  step: NextStep
  others: ReturnType<typeof testsFor>
  tell: (observation: string, answer: string | null) => void
  end: (cause: CauseId, how: 'mended' | 'provider' | 'maker' | 'left') => void
}

/** Follows a search: weighs all that is known of it each time something is added. */
export function useSearch(search: FaultSearch): SearchNow {
  const folded = useFolded()
  const { record } = folded
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const known = useMemo(
    () => knownAnswers(folded, catalogue, policy, search.about),
    [folded, catalogue, policy, search.about]
  )
  const answered: Observed = useMemo(
    () => Object.fromEntries(Object.entries(search.observed).map(([id, { answer }]) => [id, answer])),
    [search.observed]
  )
  const observed = useMemo(() => withKnown(known, answered), [known, answered])
  const offered = useMemo(() => applicableLooks(record, search.about), [record, search.about])
  const { suspects, odd } = useMemo(() => believe(observed, { offered }), [observed, offered])
  const step = useMemo(() => nextStep(observed, { offered }), [observed, offered])
  const others = useMemo(() => testsFor(observed, { offered }), [observed, offered])
  return {
    ...search.about,
    id: search.id,
    unitThere: search.about.unit ? record.units[search.about.unit] : undefined,
    known,
    answered,
    observed,
    offered,
    suspects,
    odd,
    step,
    others,
    tell: (observation, answer) => write('fault.observed', { search: search.id, observation, answer }),
    end: (cause, how) =>
      write('fault.found', {
        search: search.id,
        cause,
        end: how,
        probability: suspects.find((suspect) => suspect.cause.id === cause)!.probability
      })
  }
}
