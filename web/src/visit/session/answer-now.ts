import { ruleKey } from '@pasado/core/record/record'
import type { Outcome } from '@pasado/core/rules/rule'
import { useVisit } from './visit-state'

/** An answer as it counts now. */
export interface AnswerNow {
  /** What was answered; undefined where nobody did, or where it tells no more how it is: then it is answered once more. */
  value: 'yes' | 'no' | undefined
  outcome: Outcome
  /** Why an answer no longer tells how it is. */
  stale: string | null
}

/**
 * Gives a function that tells how the answer to a rule counts now, for the visit or one thing of it; `said` where what answers it is
 * no answer but a fact.
 */
export function useAnswerNow(): (rule: string, subject?: string, said?: 'yes' | 'no') => AnswerNow {
  const findings = useVisit((state) => state.findings)
  const answers = useVisit((state) => state.record.answers)
  const judged = useVisit((state) => state.judgedRecord.answers)
  const judging = useVisit((state) => state.judging)
  return (rule, subject, fact) => {
    const key = ruleKey(rule, subject)
    const said = fact ?? (answers[key]?.answer as 'yes' | 'no' | undefined)
    const finding = findings.find(
      (candidate) => candidate.rule === rule && (candidate.subject?.id ?? undefined) === subject
    )
    // What was answered after the rules were asked last is not what they speak of.
    const isJudged = fact ? !judging : !judging || answers[key]?.seq === judged[key]?.seq
    const isStale = isJudged && said === 'yes' && finding?.outcome === 'unproven'
    return {
      value: isStale ? undefined : said,
      outcome: finding?.outcome ?? 'unproven',
      stale: isStale ? finding.evidence : null
    }
  }
}
