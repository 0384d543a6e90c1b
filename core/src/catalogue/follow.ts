import { z } from 'zod'
import { lampLooks, lookKey, type LampLook } from './look'

const stateName = z.string().min(1)

/** Input of `lamp`: a model's table of states and moves, where the unit started, and what was seen. */
export const followInput = z
  .strictObject({
    states: z.array(z.strictObject({ state: stateName, lamps: lampLooks, maxMin: z.number().min(0).optional() })),
    moves: z.array(z.strictObject({ from: stateName, to: stateName })),
    start: stateName,
    seen: z.array(z.strictObject({ atMin: z.number(), lamps: lampLooks }))
  })
  .superRefine((input, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
    const known = new Set<string>()
    input.states.forEach(({ state }, index) => {
      if (known.has(state)) say(['states', index, 'state'], `the state ${state} is listed twice`)
      known.add(state)
    })
    input.moves.forEach((move, index) => {
      for (const end of ['from', 'to'] as const) {
        if (!known.has(move[end])) say(['moves', index, end], `no state is called ${move[end]}`)
      }
    })
    if (!known.has(input.start)) say(['start'], `no state is called ${input.start}`)
    input.seen.forEach((sighting, index) => {
      const before = input.seen[index - 1]
      if (before && sighting.atMin < before.atMin)
        say(['seen', index, 'atMin'], 'is before the sighting above it; sightings come in order of time')
    })
  })

export type FollowInput = z.infer<typeof followInput>

export const followOutput = z.strictObject({
  state: z.string().nullable(),
  candidates: z.array(z.string()),
  overdue: z.boolean(),
  impossible: z.array(z.number())
})

export type FollowOutput = z.infer<typeof followOutput>

/** How far over a state's longest time counts as over, in minutes. */
const SLACK_MIN = 1e-6

/**
 * Follows what a unit's lamps were seen to do through its model's table of states.
 * @param input checked by `followInput`; times in minutes
 * @returns the states the unit may be in, the single one if there is one, whether it has lasted too long,
 *   and the sightings that no reachable state explains
 */
export function followLamps(input: FollowInput): FollowOutput {
  const nextOf = new Map<string, string[]>(input.states.map(({ state }) => [state, []]))
  for (const { from, to } of input.moves) nextOf.get(from)!.push(to)
  const looksOf = input.states.map((row) => new Map(row.lamps.map((look) => [look.lamp, lookKey(look)])))

  let candidates = [input.start]
  let run: { state: string; sinceMin: number; untilMin: number } | null = null
  const impossible: number[] = []
  for (const [index, sighting] of input.seen.entries()) {
    const reachable = reach(candidates, nextOf)
    const fitting = input.states
      .filter((row, at) => reachable.has(row.state) && fits(looksOf[at]!, sighting.lamps))
      .map((row) => row.state)
    if (fitting.length === 0) {
      impossible.push(index)
      continue
    }
    candidates = fitting
    const goesOn: number = run !== null && run.state === fitting[0] ? run.sinceMin : sighting.atMin
    run = fitting.length > 1 ? null : { state: fitting[0]!, sinceMin: goesOn, untilMin: sighting.atMin }
  }

  const lasted = run
  const longest = lasted ? input.states.find((row) => row.state === lasted.state)!.maxMin : undefined
  return {
    state: candidates.length === 1 ? candidates[0]! : null,
    candidates,
    overdue: lasted !== null && longest !== undefined && lasted.untilMin - lasted.sinceMin - longest > SLACK_MIN,
    impossible
  }
}

function fits(state: Map<string, string>, seen: readonly LampLook[]): boolean {
  const shared = seen.filter((look) => state.has(look.lamp))
  return shared.length > 0 && shared.every((look) => state.get(look.lamp) === lookKey(look))
}

function reach(from: readonly string[], nextOf: Map<string, string[]>): Set<string> {
  const reached = new Set(from)
  for (const state of reached) for (const next of nextOf.get(state)!) reached.add(next)
  return reached
}
