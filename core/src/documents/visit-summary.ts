import type { VisitRecord } from '../record/record'
import { stages, type Stage } from '../record/stages'
import type { Finding } from '../rules/finding'
import { blocks, heaviestFirst, stageOutcome } from '../rules/weigh'
import type { Outcome } from '../rules/rule'

/** What lists show of a visit: how each stage stands, and what is heaviest. */
export interface VisitSummary {
  reason: string | null
  /** Findings that stand between the visit and sign-off. */
  open: number
  stages: Record<Stage, Outcome>
  /** The heaviest open findings, in words. */
  heaviest: { rule: string; outcome: Outcome; text: string }[]
  units: number
  /** Who set its time, where that was somebody else than who has it, after it was booked. */
  movedBy?: string
  /** Since when it waits for a lead; left out where it does not. */
  reviewAskedAt?: string
}

const SHOWN = 3

/** Sums up a record and its findings for lists. */
export function summarise(record: VisitRecord, findings: readonly Finding[]): VisitSummary {
  const open = heaviestFirst(findings).filter(blocks)
  return {
    reason: record.brief.facts.reason ?? null,
    open: open.length,
    stages: Object.fromEntries(stages.map((stage) => [stage, stageOutcome(stage, findings)])) as VisitSummary['stages'],
    heaviest: open.slice(0, SHOWN).map(({ rule, name, outcome, subject, evidence }) => ({
      rule,
      outcome,
      text: `${subject?.name ?? name}: ${evidence}`
    })),
    units: Object.values(record.units).filter(({ removedSeq }) => removedSeq === null).length,
    ...movedOf(record),
    ...(record.review?.state === 'asked' ? { reviewAskedAt: record.review.at } : {})
  }
}

/** Whoever has the visit sees that somebody else moved it; its booking is no move. */
function movedOf({ brief, visit }: VisitRecord): Pick<VisitSummary, 'movedBy'> {
  const planned = brief.meta.plannedAt
  return planned && planned.seq > 1 && planned.by.id !== visit.technician.id ? { movedBy: planned.by.name } : {}
}
