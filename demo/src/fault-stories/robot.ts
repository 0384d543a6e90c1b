import { likelyCauses, wasMended, type Observed, type SearchedHome } from '@pasado/core/work/diagnose/belief'
import type { CauseId } from '@pasado/core/work/diagnose/causes'
import { nextStep, SURE, type NextStep } from '@pasado/core/work/diagnose/next-step'
import { mendedId, observations } from '@pasado/core/work/diagnose/observations'
import { storyHomes, type FaultStory } from './story'

/** How a search went. */
export interface SearchEnd {
  /** What was mended, in order. */
  mends: CauseId[]
  /** How it ended: it works, it was handed over as none of the list, or nothing of either came of it. */
  how: 'works' | 'handed-over' | 'neither'
  steps: number
  /** Of looking and mending, by the table. */
  minutes: number
}

/** Something that says what to do next, by what was observed so far. */
export type Searcher = (observed: Observed) => NextStep

const MOST_STEPS = 80

/**
 * Whoever answers every question by what is so, and mends what they are told to: each of the causes that is mended helps, the last of them makes it work.
 * Handed over as none of the list a search ends where that is so; else nobody knows, and it goes on.
 */
export function searchBy(
  answer: (look: string) => string | undefined,
  wrong: readonly string[],
  next: Searcher
): SearchEnd {
  const observed: Observed = {}
  const left = new Set(wrong)
  const end: SearchEnd = { mends: [], how: 'neither', steps: 0, minutes: 0 }
  for (; end.steps < MOST_STEPS; end.steps++) {
    const step = next(observed)
    if (step.do === 'done') return { ...end, how: 'works' }
    if (step.do === 'test') {
      const { id, minutes, answers } = step.test.observation
      observed[id] = answer(id) ?? answers[0]!.id
      end.minutes += minutes
      continue
    }
    const { id, remedyMin } = step.suspect.cause
    end.minutes += remedyMin
    end.mends.push(id)
    if (id === 'something-else' && wrong.length === 0) return { ...end, how: 'handed-over', steps: end.steps + 1 }
    const came = left.delete(id) ? 'partly' : 'not'
    if (came === 'partly' && left.size === 0) return { ...end, how: 'works', steps: end.steps + 1 }
    observed[mendedId(id)] = came
  }
  return end
}

/** Looks in ascending minutes by the table, under the same rule of when to mend. */
export function inAscendingMinutes(home: SearchedHome): Searcher {
  const ordered = [...observations]
    .sort((a, b) => a.minutes - b.minutes || a.order - b.order)
    .filter(({ id }) => home.offered?.has(id) ?? true)
  return (observed) => {
    const [top] = likelyCauses(observed, home).filter(({ cause }) => !wasMended(cause.id, observed))
    const open = ordered.find(({ id }) => observed[id] === undefined)
    if (open && !(top!.probability >= SURE)) return { do: 'test', test: { observation: open, bits: 0, perMinute: 0 } }
    return { do: 'mend', suspect: top! }
  }
}

/** What can be looked at in a story. */
export function offeredIn({ home }: FaultStory): Set<string> {
  const without: readonly string[] = storyHomes[home]
  return new Set(observations.map(({ id }) => id as string).filter((id) => !without.includes(id)))
}

/** What is answered in a story: what is seen there; where a place has the trouble another device has it too. */
export const answersOf =
  ({ sees }: FaultStory) =>
  (look: string): string | undefined =>
    sees[look] ?? (look === 'other-device' ? 'same' : undefined)

/** A story, searched by the program. */
export function searched(story: FaultStory): SearchEnd {
  const home = { offered: offeredIn(story) }
  return searchBy(answersOf(story), story.causes, (observed) => nextStep(observed, home))
}

/** Whether a search was right at once: it works without a wrong mend; or, where the fault is none of the list, that was said first. */
export function isRightAtOnce({ causes }: Pick<FaultStory, 'causes'>, { how, mends }: SearchEnd): boolean {
  if (causes.length === 0) return how === 'handed-over' && mends.length === 1
  return how === 'works' && mends.every((cause) => causes.includes(cause))
}
