import { z } from 'zod'

/** Every colour a lamp can be seen in. */
export const lampColours = ['off', 'white', 'blue', 'cyan', 'green', 'amber', 'orange', 'red', 'purple'] as const
export type LampColour = (typeof lampColours)[number]

/** Every pattern a lamp can be seen in. */
export const lampPatterns = ['off', 'solid', 'blink', 'fast-blink', 'pulse', 'alternate'] as const
export type LampPattern = (typeof lampPatterns)[number]

const pair = new RegExp(`^(${lampColours.join('|')})/(${lampColours.join('|')})$`)

/** One lamp as it looks: its name on the unit, a colour (a pair joined by `/` where it alternates) and a pattern. */
export const lampLook = z
  .strictObject({ lamp: z.string().min(1).max(40), colour: z.string().max(20), pattern: z.enum(lampPatterns) })
  .superRefine((look, context) => {
    const say = (message: string) => context.addIssue({ code: 'custom', path: ['colour'], message })
    const two = pair.exec(look.colour)
    if (look.pattern === 'alternate') {
      if (!two || two[1] === two[2]) say('must be two different colours joined by / where the pattern is alternate')
    } else if (two) {
      say('two colours go with the pattern alternate only')
    } else if (!(lampColours as readonly string[]).includes(look.colour)) {
      say(`must be one of ${lampColours.join(', ')}`)
    }
  })

export type LampLook = z.infer<typeof lampLook>

/** A set of lamps seen at one moment, or that make up one state; a lamp may be named once. */
export const lampLooks = z
  .array(lampLook)
  .max(24)
  .superRefine((looks, context) => {
    const names = new Set<string>()
    looks.forEach((look, index) => {
      if (names.has(look.lamp))
        context.addIssue({ code: 'custom', path: [index, 'lamp'], message: `the lamp ${look.lamp} is named twice` })
      names.add(look.lamp)
    })
  })

/** A dark lamp looks like any other dark lamp, and the two colours of an alternating one have no order. */
export function lookKey(look: { colour: string; pattern: LampPattern }): string {
  if (look.pattern === 'off' || look.colour === 'off') return 'dark'
  return `${look.pattern} ${look.colour.split('/').sort().join('/')}`
}

const PATTERN_WORDS: Record<LampPattern, string> = {
  off: 'dark',
  solid: 'steady',
  blink: 'blinking',
  'fast-blink': 'blinking fast',
  pulse: 'slow pulse',
  alternate: 'in turn'
}

/** A look in words: "blue, slow pulse". */
export function lookWords(look: { colour: string; pattern: LampPattern }): string {
  if (lookKey(look) === 'dark') return 'dark'
  return `${look.colour.replace('/', ' and ')}, ${PATTERN_WORDS[look.pattern]}`
}

/** A whole sighting in words; the lamps' names are left out where a unit has one only. */
export function sightingWords(lamps: readonly LampLook[], ofSeveral: boolean): string {
  return lamps.map((look) => (ofSeveral ? `${look.lamp} ${lookWords(look)}` : lookWords(look))).join('; ')
}
