import type { Work } from '@pasado/core/agenda/work'
import { worksOf } from '@pasado/core/agenda/works'
import { catalogueOf, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import { fold, nothingFolded, type Folded } from '@pasado/core/history/fold'
import type { Standard } from '@pasado/core/policy/standard'
import type { Entry, Placed } from '@pasado/core/record/entry'
import type { Finding } from '@pasado/core/rules/finding'
import { docketRules, type DocketRules } from '@pasado/core/rules/docket-rules'
import { judge, type Judged } from '@pasado/core/rules/judged'
import type { Durations, PastWait } from '@pasado/core/work/run/duration-keys'

/** What is asked of the visit that is open. */
export interface JudgeAsk {
  /** That it begins anew, by these models and this standard; left out: it goes on from what was asked before. */
  begin?: { models: readonly Model[]; standard: Standard }
  /** Lines of the logbook that came since. */
  fresh: readonly Entry[]
  /** Lines that are still on their way to it, all of them. */
  pending: readonly Placed[]
  now: string
  /** What past visits took, where more of it is known than when it was told last. */
  durations?: readonly (readonly [string, PastWait])[]
}

/** A work as it is sent: what it settles by the places of the findings in the same answer. */
export type SentWork = Omit<Work, 'findings'> & { findings: readonly number[] }

export interface JudgeAnswer {
  /** What the rules say, in their order; a number: what stood at this place of the answer before. */
  findings: readonly (Finding | number)[]
  /** All work that is left of it. */
  works: readonly SentWork[]
  /** What the docket goes by; told at the beginning. */
  rules?: DocketRules
}

/** Judges one visit, line after line, as it is asked: each time only the rules that looked at what changed. */
export function visitJudge(): (asked: JudgeAsk) => JudgeAnswer {
  let by: { catalogue: Catalogue; standard: Standard } | null = null
  let confirmed: Folded = nothingFolded
  let judged: Judged | null = null
  let durations: Durations = new Map()
  return ({ begin, fresh, pending, now, durations: past }) => {
    if (past) durations = new Map(past)
    if (begin) {
      by = { catalogue: catalogueOf([...begin.models]), standard: begin.standard }
      confirmed = nothingFolded
    }
    if (!by) throw new Error('A visit is judged from its beginning')
    confirmed = fold(fresh, confirmed)
    const places = new Map(judged?.findings.map((finding, at) => [finding, at]))
    const folded = fold(pending, confirmed)
    judged = judge(folded, by.catalogue, by.standard, { now }, judged)
    const at = new Map(judged.findings.map((finding, place) => [finding, place]))
    const works = worksOf({
      folded,
      catalogue: by.catalogue,
      findings: judged.findings,
      rules: docketRules,
      nowMs: Date.parse(now),
      durations
    }).map((work): SentWork => ({ ...work, findings: work.findings.map((finding) => at.get(finding)!) }))
    const findings = judged.findings.map((finding) => places.get(finding) ?? finding)
    return begin ? { findings, works, rules: docketRules } : { findings, works }
  }
}
