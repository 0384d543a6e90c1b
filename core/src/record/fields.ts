import { z } from 'zod'
import { isWellFormed } from '../values/unicode'

/** A check of Zod's from a function that tells what is wrong in words. */
export function checked(problem: (text: string) => string | null, most = 200) {
  return z
    .string()
    .max(most)
    .superRefine((text, context) => {
      const message = problem(text)
      if (message) context.addIssue({ code: 'custom', message })
    })
}

/** A line of text a person types: well formed, without control characters, of limited length. */
export function textLine(most: number) {
  return checked((text) => {
    if (!isWellFormed(text)) return 'is not well-formed text; type it again'
    if (/[\u0000-\u001f\u007f]/.test(text)) return 'holds a line end or control character; write it on one line'
    return text.trim() === '' ? 'must not be blank' : null
  }, most)
}

export const id = z.uuid()

/** A SHA-256, in lower-case hexadecimal. */
export const digest = z.string().regex(/^[0-9a-f]{64}$/)

export const yes = z.boolean()

/** The number of a VLAN (IEEE 802.1Q): 0 and 4095 are the standard's own. */
export const vlan = z.int().min(1, 'must be 1 to 4094').max(4094, 'must be 1 to 4094')

export const metres = (least: number, most: number) =>
  z.number().min(least, `must be ${least} m or more`).max(most, `must be at most ${most} m`)

export const thickness = z.number().positive('must be above 0').max(3000, 'must be at most 3000 mm: enter millimetres')

/** A place in the plan: metres from its upper left corner. A home with its outbuildings fits into 300 m. */
export const across = metres(-300, 300)
