import type { Model, ModelState } from '@pasado/core/catalogue/model'
import type { LampColour, LampPattern } from '@pasado/core/catalogue/look'

/** A row of a lamp table for a unit with one lamp called status. */
export function status(
  state: string,
  colour: string,
  pattern: LampPattern,
  meaning: string,
  action: string,
  more: Partial<ModelState> = {}
): ModelState {
  return { state, lamps: [{ lamp: 'status', colour, pattern }], meaning, action, good: false, ...more }
}

/** A row of a lamp table for a unit with several lamps, each written `lamp: colour pattern`. */
export function row(
  state: string,
  looks: Record<string, [LampColour | `${LampColour}/${LampColour}`, LampPattern]>,
  meaning: string,
  action: string,
  more: Partial<ModelState> = {}
): ModelState {
  const lamps = Object.entries(looks).map(([lamp, [colour, pattern]]) => ({ lamp, colour, pattern }))
  return { state, lamps, meaning, action, good: false, ...more }
}

export const dark: [LampColour, LampPattern] = ['off', 'off']

/** Moves written `from > to, to` one a line. */
export function movesOf(text: string): Model['moves'] {
  return text
    .trim()
    .split('\n')
    .flatMap((line) => {
      const [from, targets] = line.split('>').map((part) => part.trim())
      return targets!.split(',').map((to) => ({ from: from!, to: to.trim() }))
    })
}

/** Releases written `version date flags`; the flags are `needs:x`, `hole` (fixes a hole) and `withdrawn`. */
export function releasesOf(text: string): Model['firmware']['releases'] {
  return text
    .trim()
    .split('\n')
    .map((line) => {
      const [version, date, ...flags] = line.trim().split(/\s+/)
      const needs = flags.find((flag) => flag.startsWith('needs:'))?.slice(6)
      return {
        version: version!,
        date: date!,
        ...(needs ? { needs } : {}),
        fixesHole: flags.includes('hole'),
        withdrawn: flags.includes('withdrawn')
      }
    })
}

export const countries = ['XS']

/** Radios most home models have: two bands, two streams. */
export const twoBands: Model['radios'] = [
  { band: '2.4', widthsMHz: [20, 40], streams: 2, powerDbm: 20, countries },
  { band: '5', widthsMHz: [20, 40, 80], streams: 2, powerDbm: 23, countries }
]

/** Prompts of an app that asks for everything. */
export const appPrompts: Model['prompts'] = [
  { id: 'usage', text: 'Share usage statistics with the maker' },
  { id: 'crash', text: 'Send crash reports' },
  { id: 'cloud', text: 'Manage the network from the cloud' },
  { id: 'location', text: 'Use the phone’s location all the time' },
  { id: 'mail', text: 'Receive offers by mail' }
]

export const adapter = (volts: number, amps: number): Model['power'] => ({ plug: 'island three-pin', volts, amps })
