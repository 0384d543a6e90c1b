import { changesSince, restsOnCable, type Rests } from '../history/stands'
import { exchangeOf, restsOfPlace } from '../work/prove/rests'
import { hasEndAt, ruleKey, thingsOf, unitName, type VisitRecord } from '../record/record'
import type { Folded } from '../history/fold'
import type { Finding } from './finding'
import type { Verdict } from './rule'

/** What a rule said when something was let pass, by the line that did. */
export type SaidThen = (line: number) => readonly Verdict[]

interface Given {
  seq: number
  by: { name: string }
  reason: string
  until?: string | undefined
}

/**
 * A finding with what was let pass: a waiver or an acknowledgement covers what its author had before them, the same case of the same thing,
 * with figures that are no worse, while the thing stands where it stood. What has ended or no longer fits is told beside it.
 */
export function withGrants(finding: Finding, folded: Folded, now: string | undefined, saidThen: SaidThen): Finding {
  if (finding.outcome !== 'breaks' && finding.outcome !== 'unproven') return finding
  const { record } = folded
  const { rule, subject } = finding
  const given = (table: VisitRecord['waivers']) =>
    (subject && table[ruleKey(rule, subject.id, subject.name)]) ?? table[ruleKey(rule, subject?.id)] ?? table[rule]
  const waiver = given(record.waivers)
  const why = waiver && whyNotCovered(finding, waiver, folded, now, saidThen)
  if (waiver && why === null) {
    const until = waiver.until === undefined ? {} : { until: waiver.until }
    return {
      ...finding,
      outcome: 'waived',
      granted: { by: waiver.by.name, reason: waiver.reason, kind: 'waived', ...until }
    }
  }
  const noted = given(record.acknowledged)
  const whyNot = noted && whyNotCovered(finding, noted, folded, now, saidThen)
  if (noted && whyNot === null)
    return { ...finding, granted: { by: noted.by.name, reason: noted.reason, kind: 'acknowledged' } }
  if (waiver) return { ...finding, lapsed: `Waived by ${waiver.by.name}, but ${why!}` }
  return noted ? { ...finding, lapsed: `Acknowledged by ${noted.by.name}, but ${whyNot!}` } : finding
}

/** A day is over everywhere so long after it began. */
const DAY_MS = 36 * 3_600_000

/** Why something that was let pass does not cover a finding, to be read after “but”; null where it does. */
function whyNotCovered(
  finding: Finding,
  { seq, until }: Given,
  folded: Folded,
  now: string | undefined,
  saidThen: SaidThen
): string | null {
  if (until !== undefined && now !== undefined && Date.parse(now) >= Date.parse(until) + DAY_MS)
    return `only until ${until}.`
  const ofUnit = saidThen(seq).filter(({ subject }) => subject?.id === finding.subject?.id)
  // Of one unit a rule may have said several things, one a band, told apart by name; of one that was renamed since, the one that is like this.
  const named = ofUnit.filter(({ subject }) => subject?.name === finding.subject?.name)
  const ofIt = named.length > 0 ? named : ofUnit
  const isAlike = (said: Verdict) => said.outcome === finding.outcome && codeOf(said) === codeOf(finding)
  const then = ofIt.find(isAlike) ?? ofIt.find(({ outcome }) => outcome === finding.outcome) ?? ofIt[0]
  if (!then || then.outcome !== finding.outcome) return 'it came out otherwise then.'
  if (codeOf(then) !== codeOf(finding)) return `of something else: ${then.evidence}`
  const worse = (finding.figures ?? []).find(({ name, value, better }) => {
    const figure = then.figures?.find((candidate) => candidate.name === name)
    // What falls short now and did not then was not let pass.
    return !figure || (better === 'more' ? value < figure.value : value > figure.value)
  })
  if (worse) return `when it was better: ${then.evidence}`
  const [change] = changesSince(folded.history, seq, standsAsItStood(folded.record, finding.subject?.id))
  return change ? `${change.message[0]!.toLowerCase()}${change.message.slice(1)}` : null
}

/** The case of a verdict: its code; of one that goes by no figures its sentence, letter by letter. */
const codeOf = ({ code, evidence }: Pick<Verdict, 'code' | 'evidence'>): string => code ?? evidence

/** A unit that was moved, exchanged or cabled otherwise is another case. */
function standsAsItStood(record: VisitRecord, subject: string | undefined): Rests[] {
  const unit = record.units[subject ?? '']
  if (!unit) return []
  const cables = Object.values(thingsOf(record, 'cable')).filter((cable) => hasEndAt(cable, unit.id))
  return [
    ...restsOfPlace(unit),
    ...exchangeOf(unit),
    ...cables.flatMap(({ id }) => restsOnCable(id, `a cable of ${unitName(unit)}`, false))
  ]
}
