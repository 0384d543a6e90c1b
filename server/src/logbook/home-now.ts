import { homeNowOf, type HomeNow } from '@pasado/core/documents/home-now'
import { latestSealed } from '../db/visits'
import type { Logbook } from './logbook'
import { judgedVisit } from './read'

/** What stands at a home now, by its latest sealed visit; null where none is sealed yet. */
export async function homeNow(logbook: Logbook, home: string): Promise<HomeNow | null> {
  const visit = await latestSealed(logbook.db, home)
  if (visit === null) return null
  const { record, findings } = await judgedVisit(logbook, visit)
  return homeNowOf(record, findings, await logbook.states.catalogueFor(logbook.db, record))
}
