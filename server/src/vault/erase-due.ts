import { dueErasures } from '../db/erasures'
import { endedPackLinks } from '../db/pack-links'
import { isAway } from '../db/pool'
import { serverAuthor } from '../logbook/server-author'
import { eraseAsAnswered } from '../logbook/secrets'
import type { Services } from '../services'
import { renewEpochs } from './epochs'

const EVERY_MS = 10 * 60_000
const AT_ONCE = 100

/**
 * Erases every secret whose day has come, visit by visit, and says so in each logbook. Several servers may do it at once: a visit is
 * locked while it is erased, and what is gone already is not erased again.
 * @returns how many visits lost secrets
 */
export async function eraseDue(services: Services, now = new Date()): Promise<number> {
  await endedPackLinks(services.db, now)
  let erased = 0
  // One that cannot be erased must not keep the others.
  const failed = new Set<string>()
  for (;;) {
    const visits = (await dueErasures(services.db, now, AT_ONCE + failed.size)).filter((visit) => !failed.has(visit))
    if (visits.length === 0) return erased
    for (const visit of visits) {
      try {
        if (await eraseAsAnswered(services.logbook, visit, serverAuthor, now)) erased += 1
      } catch (error) {
        if (isAway(error)) throw error
        failed.add(visit)
        services.log.error(
          { visit, problem: (error as Error).name, code: (error as { code?: string }).code },
          'secrets that are due could not be erased; it is tried again'
        )
      }
    }
  }
}

/** Ends by the day after that copies of what was erased can be opened. */
async function renewed(services: Services): Promise<void> {
  const { db, config, epochs: store, log } = services
  try {
    const done = await renewEpochs({
      db,
      url: config.MIGRATE_URL ?? config.DATABASE_URL,
      store,
      mayBegin: config.KEY_NODES === ''
    })
    if (done.begun || done.destroyed.length > 0) log.info(done, 'data keys were wrapped anew')
    if (done.othersHold > 0 && config.KEY_NODES === '')
      log.warn(
        { machines: done.othersHold + 1 },
        'several machines hold epoch keys, and none begins an epoch by itself: set KEY_NODES, and run npx pasado keys renew each night'
      )
  } catch (error) {
    log.error(
      { problem: (error as Error).name, code: (error as { code?: string }).code },
      'the keys that wrap data keys could not be changed; it is tried again. Where one is missing, take it over from another node'
    )
  }
}

/** Erases what is due now and every ten minutes from here on. @returns a function that ends it */
export function keepErasing(services: Services): () => void {
  const sweep = () =>
    eraseDue(services).then(
      (erased) => {
        if (erased) services.log.info({ visits: erased }, 'secrets erased as was agreed')
        return renewed(services)
      },
      (error: unknown) =>
        services.log.error(
          { problem: (error as Error).name, code: (error as { code?: string }).code },
          'secrets that are due could not be erased; it is tried again'
        )
    )
  void sweep()
  const timer = setInterval(() => void sweep(), EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}
