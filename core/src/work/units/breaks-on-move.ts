import type { Model } from '../../catalogue/model'
import type { Unit } from '../../record/record'
import { lookKey } from '../../catalogue/look'

/**
 * What a unit's record holds that another version of its model no longer knows: moving to that version would leave it
 * without a role, a method or a lamp that means something.
 */
export function breaksOnMove(unit: Unit, to: Model): string[] {
  const { role, method } = unit.facts
  const broken: string[] = []
  if (role !== undefined && !to.roles.includes(role))
    broken.push(`it is a ${role.replace('-', ' ')} here, which the model can no longer be`)
  if (method !== undefined && !to.methods.some(({ id }) => id === method))
    broken.push(`it is set up by the method ${method}, which the model no longer has`)
  const gone = Object.keys(unit.prompts).filter((prompt) => !to.prompts.some(({ id }) => id === prompt))
  if (gone.length)
    broken.push(
      `answers to ${gone.length === 1 ? 'a consent prompt' : 'consent prompts'} the model no longer has: ${gone.join(', ')}`
    )
  const last = unit.sightings.at(-1)
  if (
    last &&
    !to.states.some(
      (state) =>
        last.lamps.some((look) => state.lamps.some((lamp) => lamp.lamp === look.lamp)) &&
        state.lamps.every((candidate) => {
          const seen = last.lamps.find(({ lamp }) => lamp === candidate.lamp)
          return !seen || lookKey(seen) === lookKey(candidate)
        })
    )
  ) {
    broken.push('its last sighting fits no state of the model any more')
  }
  return broken
}
