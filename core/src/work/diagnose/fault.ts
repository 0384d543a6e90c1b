import { z } from 'zod'
import { Refusal, type Problem } from '../../values/problem'
import { likelyCauses, type Observed } from './belief'
import { causes, type CauseId } from './causes'
import { nextStep } from './next-step'
import { mendedId, observationOf, observations, type ObservationId } from './observations'

const look = z.enum(observations.map(({ id }) => id) as [ObservationId, ...ObservationId[]])
const cause = z.enum(causes.map(({ id }) => id) as [CauseId, ...CauseId[]])
const outcome = z.enum(['not', 'partly', 'helped'])

/** One step of a search: looks that the home does not have, what was answered, and what was put right with what came of it. */
export const faultInput = z.strictObject({
  cannot: z.array(look).max(observations.length).default([]),
  looks: z.partialRecord(look, z.string()).default({}),
  mended: z.partialRecord(cause, outcome).default({})
})
export const faultOutput = z.strictObject({
  causes: z.array(z.strictObject({ cause: z.string(), probability: z.number() })),
  next: z.strictObject({
    do: z.enum(['look', 'mend', 'done']),
    id: z.string().nullable(),
    minutes: z.number(),
    answers: z.array(z.string()).optional()
  })
})

/**
 * One step of finding a fault: how likely each cause is to be there, and what to do next.
 * @throws Refusal where a look is answered that the home does not have, or by an answer that it has not
 */
export function fault({ cannot, looks, mended }: z.output<typeof faultInput>): z.output<typeof faultOutput> {
  const problems = Object.entries(looks).flatMap(([id, answer]): Problem[] => {
    if (cannot.includes(id as ObservationId))
      return [{ path: ['looks', id], message: 'is among what this home does not have; take it out of one of them' }]
    const answers = observationOf(id)!.answers.map((possible) => possible.id)
    return answers.includes(answer) ? [] : [{ path: ['looks', id], message: `must be one of ${answers.join(', ')}` }]
  })
  if (problems.length) throw new Refusal(problems)
  const observed: Observed = {
    ...looks,
    ...Object.fromEntries(Object.entries(mended).map(([id, came]) => [mendedId(id), came]))
  }
  const offered = new Set<string>(observations.map(({ id }) => id).filter((id) => !cannot.includes(id)))
  const suspects = likelyCauses(observed, { offered })
  const likely = new Map(suspects.map((suspect) => [suspect.cause.id, suspect.probability]))
  return {
    causes: causes
      .map(({ id }) => ({ cause: id, probability: likely.get(id) ?? 0 }))
      .sort((a, b) => b.probability - a.probability || (a.cause < b.cause ? -1 : 1)),
    next: next(observed, offered)
  }
}

function next(observed: Observed, offered: ReadonlySet<string>): z.output<typeof faultOutput>['next'] {
  const step = nextStep(observed, { offered })
  if (step.do === 'done') return { do: 'done', id: null, minutes: 0 }
  if (step.do === 'mend') return { do: 'mend', id: step.suspect.cause.id, minutes: step.suspect.cause.remedyMin }
  const { id, minutes, answers } = step.test.observation
  return { do: 'look', id, minutes, answers: answers.map((answer) => answer.id) }
}
