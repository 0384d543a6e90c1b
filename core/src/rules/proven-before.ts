import { changesSince, type Rests } from '../history/stands'
import { standing, thingsOf, type VisitRecord } from '../record/record'
import type { ProvenBefore } from '../record/proven-before'
import { laterFigures, type Policy } from '../policy/standard'
import type { Finding } from './finding'
import type { Home, Rule, Verdict } from './rule'

/** Which case of a rule it is: nothing is asked, as it was proven before and nothing changed that it rests on. */
const CODE = 'proven-before'

/**
 * What a rule says of what was proven when the home was last left, and of which nothing was found in this visit: nothing is asked of it
 * while all that it rests on is as it was; else it says what changed.
 */
export function withoutWhatWasProven(rule: Rule, home: Home, verdicts: Verdict[]): Verdict[] {
  const { restsOfBefore } = rule
  const { provenBefore } = home.record
  if (!restsOfBefore || !provenBefore) return verdicts
  return verdicts.map((verdict) => {
    const before = provenBefore.proven.find(
      (proven) => proven.rule === rule.id && proven.subject === verdict.subject?.id
    )
    if (!before || verdict.outcome !== 'unproven' || verdict.wasProven) return verdict
    const rests = restsOfBefore(home, before, provenBefore.seq)
    return rests === null
      ? verdict
      : asItWasLeft(verdict, before, changedSince(home, provenBefore.seq, rests) ?? otherFigures(rule, before, home))
  })
}

const changedSince = ({ history }: Home, line: number, rests: readonly Rests[]): string | null =>
  changesSince(history, line, rests)[0]?.message ?? null

/** The figures that a rule goes by. */
const figuresOf = ({ figuresOfBefore = [] }: Rule, policy: Policy): Record<string, number> =>
  Object.fromEntries(figuresOfBefore.map((name) => [name, policy[name] ?? laterFigures[name]]))

function otherFigures(rule: Rule, { figures = {} }: ProvenBefore, { policy }: Home): string | null {
  const isSame = Object.entries(figuresOf(rule, policy)).every(([name, figure]) => figures[name] === figure)
  return isSame ? null : 'The standard wants other figures now.'
}

function asItWasLeft(verdict: Verdict, { at }: ProvenBefore, changed: string | null): Verdict {
  const last = `last proven on ${at.slice(0, 10)}`
  if (changed !== null) return { ...verdict, evidence: `${verdict.evidence} It was ${last}. ${changed}` }
  return {
    outcome: 'not-here',
    subject: verdict.subject,
    evidence: `It stood here before, ${last}, and nothing that this rests on was changed since.`,
    remedy: '',
    place: null,
    code: CODE
  }
}

/**
 * What the next visit at a home may take for proven, of a visit that was sealed.
 * @param verdicts what the rules said of it then
 * @param policy what it was checked by
 */
export function provenOf(
  record: VisitRecord,
  verdicts: readonly Finding[],
  rules: readonly Rule[],
  policy: Policy
): ProvenBefore[] {
  const at = record.seal?.at
  if (at === undefined) return []
  const asked = new Map(rules.filter(({ restsOfBefore }) => restsOfBefore).map((rule) => [rule.id, rule]))
  // It may hold only as the provider was told, which says nothing of what its line gives now.
  if (record.brief.facts.providerReference !== undefined) asked.delete('prove-source')
  return verdicts.flatMap(({ rule, subject, outcome, code }): ProvenBefore[] => {
    const known = asked.get(rule)
    if (!known) return []
    const about = { rule, ...(subject ? { subject: subject.id } : {}) }
    if (outcome === 'holds')
      return [{ ...about, at, ...throughOne(record, rule, subject?.id), figures: figuresOf(known, policy) }]
    // What was taken for proven then as well is as old as it was.
    const older = record.provenBefore?.proven.find((proven) => proven.rule === rule && proven.subject === subject?.id)
    return outcome === 'not-here' && code === CODE && older ? [older] : []
  })
}

/** The one unit that a room was measured through; nothing where there were several, or nobody said. */
function throughOne(record: VisitRecord, rule: string, room: string | undefined): { unit?: string } {
  if (rule !== 'prove-rooms') return {}
  const units = new Set(
    standing(thingsOf(record, 'measurement'))
      .filter(({ facts }) => facts.at === 'room' && facts.room === room)
      .map(({ facts }) => facts.unit)
  )
  const [unit] = units
  return units.size === 1 && unit !== undefined ? { unit } : {}
}
