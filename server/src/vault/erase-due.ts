import { dueErasures } from '../db/erasures'
import { endedPackLinks } from '../db/pack-links'
import { serverAuthor } from '../logbook/logbook'
import { eraseAsAnswered } from '../logbook/visits'
import type { Services } from '../services'

const EVERY_MS = 10 * 60_000

/**
 * Erases every secret whose day has come, visit by visit, and says so in each logbook. Several servers may do it at once: a visit is
 * locked while it is erased, and what is gone already is not erased again.
 * @returns how many visits lost secrets
 */
export async function eraseDue(services: Services, now = new Date()): Promise<number> {
  await endedPackLinks(services.db, now)
  let erased = 0
  for (let visits = await dueErasures(services.db, now); visits.length > 0; visits = await dueErasures(services.db, now)) {
    for (const visit of visits) if (await eraseAsAnswered(services.logbook, visit, serverAuthor, now)) erased += 1
  }
  return erased
}

/** Erases what is due now and every ten minutes from here on. @returns a function that ends it */
export function keepErasing(services: Services): () => void {
  const sweep = () => eraseDue(services).then((erased) => { if (erased) services.log.info({ visits: erased }, 'secrets erased as was agreed') }, (error: unknown) => services.log.error({ problem: (error as Error).name, code: (error as { code?: string }).code }, 'secrets that are due could not be erased; it is tried again'))
  void sweep()
  const timer = setInterval(() => void sweep(), EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}
