import { z } from 'zod'
import { stages, type Stage } from '../record/stages'
import type { Figure } from '../values/figure'
import type { Outcome, Place, Subject } from './rule'
import { levels, type Level } from '../policy/standard'

/** What a rule says of this record about one subject, after waivers and acknowledgements. */
export interface Finding {
  rule: string
  /** What the rule is called in a few words. */
  name: string
  stage: Stage
  level: Level
  outcome: Outcome
  subject: Subject | null
  says: string
  evidence: string
  mend: string
  place: Place | null
  asks: string | null
  /** Who waived or acknowledged it, and why. */
  granted: {
    by: string
    reason: string
    kind: 'waived' | 'acknowledged'
    /** Until when it is to be put right, ISO date. */ until?: string
  } | null
  /** Which case of the rule it is, and the figures it goes by. */
  code?: string
  figures?: readonly Figure[]
  /** That it was proven once, and something changed since. */
  wasProven?: true
  /** Changes and proofs that did not know of each other, by the ids of their lines: whoever was there may say which came first. */
  unordered?: readonly { change: string; proof: string }[]
  /** What was recorded since it was found: whoever was there may say that it stood there then. */
  recordedSince?: readonly { thing: 'unit' | 'stays'; id: string }[]
  /** By whose word it holds: which came first is known from them alone. */
  byWordOf?: readonly string[]
  /** That it was let pass once, and why that does not cover it any more. */
  lapsed?: string
}

/** A finding as it is kept with a sealed visit and in its file. */
export const frozenVerdict = z.looseObject({
  rule: z.string().max(60),
  name: z.string(),
  stage: z.enum(stages),
  level: z.enum(levels),
  outcome: z.enum(['holds', 'breaks', 'unproven', 'waived', 'not-here']),
  subject: z.looseObject({ id: z.string(), name: z.string() }).nullable(),
  says: z.string(),
  evidence: z.string(),
  mend: z.string(),
  place: z.looseObject({ stage: z.enum(stages), kind: z.string(), id: z.string(), field: z.string() }).nullable(),
  asks: z.string().nullable(),
  granted: z
    .looseObject({
      by: z.string(),
      reason: z.string(),
      kind: z.enum(['waived', 'acknowledged']),
      until: z.string().optional()
    })
    .nullable()
}) as unknown as z.ZodType<Finding>
