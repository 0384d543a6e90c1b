import { z } from 'zod'

/** What held of something in an earlier visit. */
export const provenBefore = z.strictObject({
  rule: z.string().max(60),
  /** What it was about; left out where the rule speaks of the home. */
  subject: z.string().max(60).optional(),
  /** When that visit was sealed. */
  at: z.iso.datetime(),
  /** The unit it was found through, where it was one. */
  unit: z.string().max(40).optional(),
  /** The figures of the standard that it held by. */
  figures: z.record(z.string(), z.number()).optional()
})
export type ProvenBefore = z.infer<typeof provenBefore>
