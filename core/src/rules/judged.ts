import type { Catalogue } from '../catalogue/model'
import { conflictsOf } from '../history/conflicts'
import type { Folded } from '../history/fold'
import { historyChanges, historyThrough, isAsItWas, isPlain } from '../history/history-through'
import { readBy, Reads } from '../record/reads'
import { changedParts, readThrough } from '../record/read-through'
import type { Standard } from '../policy/standard'
import type { Finding } from './finding'
import { Judging, rulesInForce, type JudgeOptions } from './judging'

/** What a rule said, and what it looked at. */
interface Asked {
  findings: Finding[]
  reads: Reads
}

/** A logbook that was judged, with what each rule looked at: after more lines only those whose rule looked at what changed are asked again. */
export interface Judged {
  folded: Folded
  catalogue: Catalogue
  standard: Standard
  findings: Finding[]
  /** By rule; null where rules could not be followed in what they look at. */
  asked: ReadonlyMap<string, Asked> | null
}

/**
 * Judges a logbook as `evaluate` does, asking only rules that looked at what is otherwise than it was. Where values stand unsettled, something was taken
 * back or somebody said what came first, all are asked.
 * @param before what was judged last of this visit, whatever became of it since
 */
export function judge(
  folded: Folded,
  catalogue: Catalogue,
  standard: Standard,
  options: JudgeOptions = {},
  before: Judged | null = null
): Judged {
  const { record, history } = folded
  const rules = rulesInForce(standard)
  if (!isPlain(history) || conflictsOf(history).length > 0) {
    const judging = new Judging(folded, catalogue, standard, options)
    const findings = rules.flatMap((inForce) => judging.withGrants(inForce.rule, judging.findingsOf(inForce)))
    return { folded, catalogue, standard, findings: asBefore(findings, before), asked: null }
  }
  const judging = new Judging(folded, catalogue, standard, options, {
    record: readThrough(record),
    history: historyThrough(history)
  })
  const known = before?.catalogue === catalogue && before.standard === standard ? before : null
  const parts = known && changedParts(known.folded.record, record)
  const changes = known && historyChanges(known.folded.history, history)
  const asked = new Map<string, Asked>()
  for (const inForce of rules) {
    const { id } = inForce.rule
    const last = known?.asked?.get(id)
    if (last && isAsItWas(last.reads, parts!, changes!)) {
      asked.set(id, last)
      continue
    }
    const reads = new Reads()
    asked.set(id, { findings: readBy(reads, () => judging.findingsOf(inForce)), reads })
  }
  const findings = rules.flatMap(({ rule }) => judging.withGrants(rule, asked.get(rule.id)!.findings))
  return { folded, catalogue, standard, findings: asBefore(findings, before), asked }
}

/** The findings of before where they say the same, one by one or all: whoever shows them sees that nothing changed. */
function asBefore(findings: Finding[], before: Judged | null): Finding[] {
  if (!before) return findings
  const said = findings.map((finding, at) => {
    const was = before.findings[at]
    // Both were made by the same hand, field after field: what reads the same is the same.
    const isAgain = was === finding || (was?.rule === finding.rule && JSON.stringify(was) === JSON.stringify(finding))
    return isAgain ? was : finding
  })
  const isAll = said.length === before.findings.length && said.every((finding, at) => finding === before.findings[at])
  return isAll ? before.findings : said
}
