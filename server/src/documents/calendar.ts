import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import type { CheckRow } from '../db/checks'
import type { ListedVisit } from '../db/visits'
import type { Estimate } from '../logbook/estimates'

const USUAL_MIN = 120

/** Visits that are planned and checks that are booked as a calendar (RFC 5545). Who lives there and where; no secret, no telephone. */
export function calendarOf(
  visits: readonly ListedVisit[],
  checks: readonly Pick<CheckRow, 'id' | 'street' | 'customer' | 'from' | 'to'>[],
  estimates: ReadonlyMap<string, Estimate>,
  now: Date
): string {
  const calendar = ical({
    name: 'Visits',
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Pasado', product: 'Day', language: 'EN' }
  })
  for (const { id, plannedAt, street, town, customer, technicianName, summary } of visits) {
    if (!plannedAt) continue
    const estimate = estimates.get(id)
    const minutes = estimate?.cautiousMin || USUAL_MIN
    calendar.createEvent({
      id: `${id}@pasado`,
      start: plannedAt,
      end: new Date(plannedAt.getTime() + minutes * 60_000),
      stamp: now,
      status: ICalEventStatus.CONFIRMED,
      summary: `${street}: ${summary.reason ? summary.reason.replaceAll('-', ' ') : 'visit'}`,
      location: `${street}, ${town}`,
      description: `${customer}. ${technicianName}.${estimate ? ` Likely ${estimate.likelyMin} min, ${estimate.handsOnMin} of them hands on; ${estimate.cautiousMin} if it takes long.` : ''}`
    })
  }
  for (const { id, from, to, street, customer } of checks)
    calendar.createEvent({
      id: `${id}@pasado`,
      start: from,
      end: to,
      stamp: now,
      summary: `${street}: look again`,
      location: street,
      description: `${customer}. A check when the home has settled.`
    })
  return calendar.toString()
}
