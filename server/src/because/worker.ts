import { parentPort } from 'node:worker_threads'
import { becauseOf } from '@pasado/core/rules/because'
import type { BecauseAnswer, BecauseAsk } from './lines'

/** Works out the lines of one finding after another, as long as there is time. */
function linesOfEach({ entries, findings, models, standard, now, forMs }: BecauseAsk): BecauseAnswer {
  const catalogue = new Map(models)
  const until = performance.now() + forMs
  let isWhole = true
  const lines = findings.map((finding) => {
    if (finding.outcome === 'not-here') return null
    isWhole &&= performance.now() < until
    return isWhole ? becauseOf(entries, finding, catalogue, standard, now) : null
  })
  return { lines, isWhole }
}

parentPort!.on('message', ({ id, what }: { id: number; what: BecauseAsk }) =>
  parentPort!.postMessage({ id, answer: linesOfEach(what) })
)
