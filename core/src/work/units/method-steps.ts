import type { Model, ModelState } from '../../catalogue/model'
import { pressKind } from '../../catalogue/presses'
import { stepKey, type Unit } from '../../record/record'
import { type LampLook, lookKey } from '../../catalogue/look'

type Method = Model['methods'][number]

/** Whether lamps as they were seen show a state: every lamp of it looks so. */
const shows = (lamps: readonly LampLook[], { lamps: wanted }: Pick<ModelState, 'lamps'>) =>
  wanted.length > 0 &&
  wanted.every((look) => lamps.some((lamp) => lamp.lamp === look.lamp && lookKey(lamp) === lookKey(look)))

/**
 * Which steps of a method are done since the unit's last reset: those that somebody said were seen; and in their order those whose
 * own look was seen after the step before was done. A step that shows what the one before shows is never done by a look, nor is any
 * step by a look that was seen before its turn: what a bare reset shows does no conversion. What was not seen once is done by a look since.
 */
export function stepsDone(unit: Unit, model: Model, method: Method): boolean[] {
  const reset = unit.events.findLast(({ what }) => what === 'reset')?.seq ?? 0
  const stateOf = (name: string | undefined) => model.states.find(({ state }) => state === name)
  // The place in the logbook where the steps so far were done; null from the first that is not.
  let since: number | null = reset
  return method.steps.map(({ expect }, at) => {
    const said = unit.steps?.[stepKey(method.id, at)]
    if (said?.seen === true && said.seq > reset) {
      if (since !== null) since = Math.max(since, said.seq)
      return true
    }
    const [row, before] = [stateOf(expect), at === 0 ? undefined : stateOf(method.steps[at - 1]!.expect)]
    const place = since
    since = null
    if (place === null || !row || (before && shows(before.lamps, row))) return false
    // What somebody did not see may be seen later.
    const after = said?.seen === false ? Math.max(place, said.seq) : place
    const seen = unit.sightings.find(({ seq, lamps }) => seq > after && shows(lamps, row))
    if (!seen) return false
    since = seen.seq
    return true
  })
}

/** The step that the two presses of a push-button pairing belong to: the one that speaks of them, else the last; -1 where the method has none. */
export function pairingStep(model: Model, method: Method): number {
  if (method.kind !== 'push-button') return -1
  const names = model.buttons
    .filter(({ presses }) => presses.some((press) => pressKind(press) === 'pairing'))
    .map(({ name }) => name.split(' ')[0]!)
  const speaks = method.steps.findIndex(
    ({ do: words }) =>
      /press/i.test(words) && (names.some((name) => words.includes(name)) || /two minutes|both/i.test(words))
  )
  return speaks >= 0 ? speaks : method.steps.length - 1
}
