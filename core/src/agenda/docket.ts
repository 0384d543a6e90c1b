import type { Stage } from '../record/stages'
import type { DocketRules } from '../rules/docket-rules'
import type { Finding } from '../rules/finding'
import { weightOfFinding } from '../rules/weigh'
import { titleInside } from './title'
import type { Work } from './work'

/** What is settled by one work, with everything that stands against it. */
export interface DocketGroup {
  /** The work. */
  key: string
  /** What it is about: a unit, a network, a room; null where it is the visit. */
  subject: string | null
  stage: Stage
  /** Heaviest first. */
  findings: readonly Finding[]
  /** Minutes of hands that it takes, about. */
  minutes: number
  /** Why it had better wait: what has to be done before, in words; null where nothing has. */
  after: string | null
}

/**
 * What stands between a visit and sign-off, grouped by the work that settles it: the heaviest first, and with it what it waits for; of one
 * weight in the order of the plan.
 * @param start when each work begins in the plan, minutes; without it they stand in the order of the list
 */
export function docketOf(
  works: readonly Work[],
  rules: DocketRules,
  start: Readonly<Record<string, number>> = {}
): DocketGroup[] {
  const asked = works.filter(({ findings }) => findings.length > 0)
  const weights = liftedWeights(asked, rules)
  const places = new Map(works.map(({ id }, at) => [id, at]))
  const planned = ({ id }: Work) => start[id] ?? 0
  return asked
    .sort((a, b) => {
      const weight = weights.get(a.id)! - weights.get(b.id)!
      return weight || planned(a) - planned(b) || places.get(a.id)! - places.get(b.id)!
    })
    .map((work) => ({
      key: work.id,
      subject: work.findings.find(({ subject }) => subject)?.subject?.name ?? null,
      stage: work.stage,
      findings: work.findings,
      minutes: Math.round(work.handsOn.usual),
      after: firstBefore(work, asked, rules)
    }))
}

/** How heavy each work is: as the heaviest that it settles, or that waits for that. */
function liftedWeights(works: readonly Work[], rules: DocketRules): ReadonlyMap<string, number> {
  const weights = new Map<string, number>()
  const lift = (work: Work, weight: number) => {
    if (weight >= (weights.get(work.id) ?? Infinity)) return
    weights.set(work.id, weight)
    for (const finding of work.findings)
      for (const before of works)
        if (before !== work && before.findings.some((other) => isBefore(other, finding, rules))) lift(before, weight)
  }
  for (const work of works) for (const finding of work.findings) lift(work, weightOfFinding(finding))
  return weights
}

/** Whether one has to be put right before the other: by the rule of that, of the same thing or of anything here. */
export function isBefore(other: Finding, finding: Finding, rules: DocketRules): boolean {
  const { after = [], afterAnywhere = [] } = rules[finding.rule] ?? {}
  return (after.includes(other.rule) && other.subject?.id === finding.subject?.id) || afterAnywhere.includes(other.rule)
}

/** What has to be put right before, in words: only where all that a work settles has to wait, else there is something to do in it now. */
function firstBefore(work: Work, works: readonly Work[], rules: DocketRules): string | null {
  const others = works.filter(({ id }) => id !== work.id).flatMap(({ findings }) => findings)
  const waiting = work.findings.map((finding) => {
    const before = others.filter((other) => isBefore(other, finding, rules))
    return before.find(({ subject }) => subject?.id === finding.subject?.id) ?? before[0]
  })
  return waiting.every((before) => before !== undefined) && waiting[0] ? titleInside(waiting[0]) : null
}
