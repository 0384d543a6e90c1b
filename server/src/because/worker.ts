import { parentPort, workerData } from 'node:worker_threads'
import { becauseOf } from '@pasado/core/rules/because'
import type { BecauseAsk } from './lines'

/** Works out the lines of one finding after another, as long as there is time. */
const { entries, findings, models, standard, now, forMs } = workerData as BecauseAsk & { forMs: number }
const catalogue = new Map(models)
const until = performance.now() + forMs
parentPort!.postMessage(
  findings.map((finding) =>
    finding.outcome === 'not-here' || performance.now() > until
      ? null
      : becauseOf(entries, finding, catalogue, standard, now)
  )
)
