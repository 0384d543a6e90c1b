import { setTimeout as pause } from 'node:timers/promises'
import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type { Entry } from '@pasado/core/record/entry'
import type { VisitRecord } from '@pasado/core/record/record'
import type { Connection } from '../db/pool'
import { insertBecause, readBecause } from '../db/sealed-because'
import { keptVerdicts } from '../logbook/verdicts'
import type { Services } from '../services'
import { workedOut, type BecauseAsk, type BecauseLines } from './lines'

/** Whoever takes a file of a visit, or prints it, waits so long for what its verdicts rest on; begun when it was sealed, it mostly is there. */
export const BECAUSE_WAIT_MS = 5_000
/** So many verdicts are asked about at a time: others ask the same thread. */
const SLICE = 20

/** Which lines the verdicts of a sealed visit rest on, as they are kept; null where they are not. */
async function keptBecause(db: Connection, visit: string): Promise<BecauseLines | null> {
  const kept = await readBecause(db, visit)
  return kept && (JSON.parse(inflateRawSync(kept.packed).toString('utf8')) as BecauseLines)
}

/** Keeps which lines the verdicts of a sealed visit rest on, for good. */
export const keepBecause = (db: Connection, visit: string, lines: BecauseLines): Promise<void> =>
  insertBecause(db, visit, deflateRawSync(JSON.stringify(lines)))

/**
 * Which lines the verdicts under the seal of a visit of ours rest on: worked out once, and the same ever after.
 * @returns null of a visit whose seal vouches for no verdicts, of one that came without them, and where it is not worked out yet
 */
export async function becauseOfSealed(
  { db, logbook: { states }, log }: Pick<Services, 'db' | 'logbook' | 'log'>,
  { entries, record }: { entries: readonly Entry[]; record: VisitRecord }
): Promise<BecauseLines | null> {
  const visit = record.visit.id
  const verdicts = record.seal?.verdicts ? await keptVerdicts(db, visit) : null
  if (!record.seal || !verdicts) return null
  const kept = await keptBecause(db, visit)
  if (kept || (await states.foreignOf(db, visit))) return kept
  const { seq, at: now } = record.seal
  const ask: BecauseAsk = {
    entries: entries.filter((entry) => entry.seq < seq),
    findings: verdicts.findings,
    models: [...(await states.catalogueFor(db, record))],
    standard: await states.standardOf(db, record),
    now,
    forMs: Infinity
  }
  let job = jobs.get(visit)
  if (!job) {
    job = workOutAndKeep(db, visit, ask)
      // The file goes without them; the next export tries anew.
      .catch((error: unknown) => log.error({ err: error, visit }, 'what verdicts rest on could not be worked out'))
      .finally(() => jobs.delete(visit))
    jobs.set(visit, job)
  }
  await Promise.race([job, pause(BECAUSE_WAIT_MS, undefined, { ref: false })])
  // Another process may have been first.
  return keptBecause(db, visit)
}

/** What is being worked out: it goes on where whoever exports waits no longer. */
const jobs = new Map<string, Promise<void>>()

/** Whether what the verdicts of a visit rest on is being worked out. */
export const isBeingWorkedOut = (visit: string): boolean => jobs.has(visit)

async function workOutAndKeep(db: Connection, visit: string, ask: BecauseAsk): Promise<void> {
  const lines: (readonly number[] | null)[] = []
  for (let from = 0; from < ask.findings.length; from += SLICE)
    lines.push(...(await workedOut({ ...ask, findings: ask.findings.slice(from, from + SLICE) })).lines)
  await keepBecause(db, visit, lines)
}
