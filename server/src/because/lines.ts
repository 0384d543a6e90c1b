import { Worker } from 'node:worker_threads'
import type { Model } from '@pasado/core/catalogue/model'
import type { Placed } from '@pasado/core/record/entry'
import type { Finding } from '@pasado/core/rules/finding'
import type { Standard } from '@pasado/core/policy/standard'

/** What is asked: which lines of a logbook its findings rest on. */
export interface BecauseAsk {
  entries: readonly Placed[]
  findings: readonly Finding[]
  models: readonly [string, Model][]
  standard: Standard
  /** ISO; what waivers until a day were held against. */
  now: string
}

/** The lines of each finding, in their order; null where there was no time for it, or the logbook does not say so. */
export type BecauseLines = readonly (readonly number[] | null)[]

/** After this long the rest is left out: whoever prints waits for it. */
const FOR_MS = 10_000
/** What was worked out last, of logbooks that do not change any more. */
const MOST_KEPT = 40
const kept = new Map<string, BecauseLines>()

/**
 * Works out beside the thread that serves which lines findings rest on.
 * @param sealed the digest of the seal, where there is one: what it was worked out to be stays so
 */
export async function linesOf(ask: BecauseAsk, sealed: string | null): Promise<BecauseLines> {
  const known = sealed === null ? undefined : kept.get(sealed)
  if (known) return known
  const lines = await asked(ask)
  if (sealed !== null) {
    kept.set(sealed, lines)
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  }
  return lines
}

interface Waiting {
  done: (lines: BecauseLines) => void
  failed: (error: unknown) => void
}

let worker: Worker | null = null
let count = 0
const waiting = new Map<number, Waiting>()

function asked(ask: BecauseAsk): Promise<BecauseLines> {
  return new Promise((done, failed) => {
    const id = ++count
    waiting.set(id, { done, failed })
    const thread = running()
    thread.ref()
    thread.postMessage({ id, ask, forMs: FOR_MS })
  })
}

/** One thread for the process, which is slow to begin; while nobody waits for it, it does not keep the process from ending. */
function running(): Worker {
  if (worker) return worker
  const made = new Worker(new URL('./worker.mjs', import.meta.url))
  made.on('message', ({ id, lines }: { id: number; lines: BecauseLines }) => {
    waiting.get(id)?.done(lines)
    waiting.delete(id)
    if (waiting.size === 0) made.unref()
  })
  made.on('error', (error) => {
    worker = null
    for (const { failed } of waiting.values()) failed(error)
    waiting.clear()
  })
  worker = made
  return made
}
