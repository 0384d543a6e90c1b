import { z } from 'zod'
import { stages } from '../record/stages'

/** A rule of the company's own, that a person answers. */
export const ownRule = z.strictObject({
  id: z.string().regex(/^own-[a-z0-9-]{2,40}$/, 'must be own- and 2 to 40 lower-case letters, digits or hyphens'),
  stage: z.enum(stages),
  level: z.enum(['must', 'should', 'note']),
  /** The question, answered yes where all is well. */
  asks: z.string().min(5, 'is missing: write the question').max(200),
  /** Whether a photo has to prove the answer. */
  photo: z.boolean()
})
export type OwnRule = z.infer<typeof ownRule>
