import type { VisitRecord } from '@pasado/core/record/record'
import type { Connection } from '../db/pool'
import { unheardOf, type Unheard } from '../db/taken-along'

/** A device that has a visit open says so each minute: one that was there this long ago is there now. */
const THERE_MS = 75_000

/** What devices of whoever works on a visit may still hold of it: outboxes that took it along and were not heard from since, but for one. */
export async function unheardFrom(
  db: Connection,
  { visit }: VisitRecord,
  asking: string | undefined,
  now: Date
): Promise<Unheard[]> {
  const people = [visit.technician.id, ...(visit.joined ?? []).map(({ id }) => id)]
  const found = await unheardOf(db, visit.id, people, new Date(now.getTime() - THERE_MS))
  return found.filter(({ outbox }) => outbox !== asking)
}
