import { z } from 'zod'
import { textLine } from './fields'
import { origins } from './origin'

/** Somebody of the company, as an entry names them. */
export const author = z.strictObject({
  id: z.string().max(40),
  name: textLine(120),
  role: z.enum(['technician', 'lead', 'office', 'server'])
})
export type Author = z.infer<typeof author>

/** Who said something, and when: by the author's clock and by its place in the logbook. */
export const attributed = { seq: z.int(), at: z.string(), by: author }

/** Where the value of a field comes from. */
export const fieldMeta = z.strictObject({ ...attributed, from: z.string(), origin: z.enum(origins) })
export type FieldMeta = z.infer<typeof fieldMeta>

/** The attribution that a line of the logbook gives to what it says. */
export const attributionOf = ({ seq, at, by }: { seq: number; at: string; by: Author }) => ({ seq, at, by })
