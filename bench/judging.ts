import { fold, nothingFolded } from '@pasado/core/history/fold'
import { nextDraft } from '@pasado/core/rules/check-standard'
import { evaluate } from '@pasado/core/rules/evaluate'
import { firstStandard } from '@pasado/core/rules/first-standard'
import { judge, type Judged } from '@pasado/core/rules/judged'
import { catalogue } from '@pasado/testing/logbook'
import { longVisit } from './long-visit'
import { medianMs, report } from './timing'

/** How many lines the visit has, and over how many of its last it is judged after each. */
const LINES = 2_000
const MEASURED = 400

/** Judging a long visit after one more entry, over its last entries, and whole. Baseline: JSON.stringify of its record. */
export async function benchJudging(): Promise<void> {
  const standard = nextDraft(firstStandard)
  const entries = longVisit(LINES)
  const whole = fold(entries)
  const writing = await medianMs(21, () => JSON.stringify(whole.record))
  let folded = fold(entries.slice(0, -MEASURED), nothingFolded)
  let judged: Judged = judge(folded, catalogue, standard)
  const took = entries.slice(-MEASURED).map((entry) => {
    folded = fold([entry], folded)
    const began = performance.now()
    judged = judge(folded, catalogue, standard, {}, judged)
    return performance.now() - began
  })
  took.sort((a, b) => a - b)
  const times = (ms: number) => `${(ms / writing).toFixed(2)} times`
  const [median, longest] = [took[MEASURED >> 1]!, took.at(-1)!]
  const all = await medianMs(11, () => evaluate(whole, catalogue, standard))
  report(
    `judging after one entry, ${LINES} entries, twelve units (baseline: JSON.stringify of its record, ${writing.toFixed(2)} ms)`,
    `median ${median.toFixed(2)} ms, ${times(median)}; longest ${longest.toFixed(1)} ms, ${times(longest)}; whole ${all.toFixed(1)} ms, ${times(all)}`
  )
}
