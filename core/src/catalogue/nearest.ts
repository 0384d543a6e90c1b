import type { Model, ModelState } from './model'
import { lookKey, type LampLook, type LampPattern } from './look'

/** Colours that are taken for one another in a dim cupboard, or said for one another on the telephone. */
const alikeColours: readonly (readonly string[])[] = [
  ['amber', 'orange'],
  ['orange', 'red'],
  ['blue', 'cyan'],
  ['cyan', 'green'],
  ['blue', 'purple'],
  ['white', 'cyan'],
  ['amber', 'white']
]
/** Patterns that are: nobody counts how often a lamp blinks. */
const alikePatterns: readonly (readonly LampPattern[])[] = [
  ['blink', 'pulse'],
  ['blink', 'fast-blink']
]

const alike = (groups: readonly (readonly string[])[], a: string, b: string) =>
  a === b || groups.some((group) => group.includes(a) && group.includes(b))

/** How far two looks of a lamp are apart: 0 the same, 1 where the colour or the pattern is one that is taken for the other, null where they are something else. */
function apart(seen: LampLook, look: LampLook): number | null {
  if (lookKey(seen) === lookKey(look)) return 0
  if (
    lookKey(seen) === 'dark' ||
    lookKey(look) === 'dark' ||
    seen.pattern === 'alternate' ||
    look.pattern === 'alternate'
  )
    return null
  if (!alike(alikeColours, seen.colour, look.colour) || !alike(alikePatterns, seen.pattern, look.pattern)) return null
  return Number(seen.colour !== look.colour) + Number(seen.pattern !== look.pattern)
}

/**
 * The states of a model that look most like what was seen, where none looks just so: amber for orange, a slow pulse for a blink.
 * @returns the nearest first; none where a state looks just so, or none is near
 */
export function nearestStates(model: Model, seen: readonly LampLook[]): ModelState[] {
  const found = model.states.flatMap((state) => {
    const both = seen.flatMap((look) => {
      const own = state.lamps.find(({ lamp }) => lamp === look.lamp)
      return own ? [apart(look, own)] : []
    })
    const total = both.length === 0 || both.includes(null) ? null : both.reduce<number>((sum, value) => sum + value!, 0)
    return total === null ? [] : [{ state, total }]
  })
  if (found.some(({ total }) => total === 0)) return []
  return found
    .sort((a, b) => a.total - b.total)
    .map(({ state }) => state)
    .slice(0, 3)
}
