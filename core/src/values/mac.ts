import { z } from 'zod'

const SHAPES = [
  /^[0-9a-f]{2}(?::[0-9a-f]{2}){5}$/,
  /^[0-9a-f]{2}(?:-[0-9a-f]{2}){5}$/,
  /^[0-9a-f]{4}(?:\.[0-9a-f]{4}){2}$/,
  /^[0-9a-f]{12}$/
]

/** Input of `mac`: the address as it stands on a label. */
export const macInput = z.strictObject({
  text: z.string().superRefine((text, context) => {
    const message = macProblem(text)
    if (message) context.addIssue({ code: 'custom', message })
  })
})

export const macOutput = z.strictObject({
  mac: z.string(),
  oui: z.string(),
  locallyAdministered: z.boolean(),
  multicast: z.boolean()
})

export type MacFacts = z.infer<typeof macOutput>

/** What is wrong with a MAC address as typed, in words; null where it can be read. */
export function macProblem(text: string): string | null {
  const bare = digitsOf(text)
  if (bare === null)
    return 'must be a MAC address: twelve hexadecimal digits, in pairs with : or -, in fours with dots, or bare'
  if (bare === '000000000000') return 'is all zeros; read it again from the label'
  if (bare === 'ffffffffffff') return 'is the broadcast address; read it again from the label'
  return null
}

/** What is wrong with a MAC address as a unit's own, in words: as `macProblem`, and a multicast address is no unit's. */
export function unitMacProblem(text: string): string | null {
  const problem = macProblem(text)
  if (problem) return problem
  return readMac({ text }).multicast
    ? 'is a multicast address, which no unit has; check its second digit on the label'
    : null
}

/**
 * Reads a MAC address and prints it as lower-case pairs with colons.
 * @param input checked by `macInput`
 */
export function readMac({ text }: { text: string }): MacFacts {
  const bare = digitsOf(text)
  if (bare === null) throw new Error('not a MAC address')
  const mac = bare.match(/../g)!.join(':')
  const firstOctet = parseInt(bare.slice(0, 2), 16)
  return {
    mac,
    oui: mac.slice(0, 8),
    locallyAdministered: (firstOctet & 2) !== 0,
    multicast: (firstOctet & 1) !== 0
  }
}

function digitsOf(text: string): string | null {
  const trimmed = text.replace(/^[ \t\r\n]+|[ \t\r\n]+$/g, '').toLowerCase()
  return SHAPES.some((shape) => shape.test(trimmed)) ? trimmed.replace(/[:.-]/g, '') : null
}
