import { parentPort } from 'node:worker_threads'
import { becauseOf } from '@pasado/core/rules/because'
import type { BecauseAsk } from './lines'

/** Works out the lines of one finding after another, as long as there is time. */
function linesOfEach({ entries, findings, models, standard, now }: BecauseAsk, forMs: number) {
  const catalogue = new Map(models)
  const until = performance.now() + forMs
  return findings.map((finding) =>
    finding.outcome === 'not-here' || performance.now() > until
      ? null
      : becauseOf(entries, finding, catalogue, standard, now)
  )
}

parentPort!.on('message', ({ id, ask, forMs }: { id: number; ask: BecauseAsk; forMs: number }) =>
  parentPort!.postMessage({ id, lines: linesOfEach(ask, forMs) })
)
