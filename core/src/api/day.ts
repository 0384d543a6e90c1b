import { z } from 'zod'
import type { VisitSummary } from '../documents/visit-summary'
import { id } from '../record/fields'
import { contract, everyRole, moment, nextPage, shapedAs } from './contract'

const place = z
  .string()
  .max(100)
  .regex(/^(?:depot|town .{1,80}|home [0-9a-f-]{36})$/, 'must be the depot, a town or a home')
const minuteOfDay = z.int().min(0, 'must be a time of the day').max(1440, 'must be a time of the day')
/** As many as the day lists: whatever stands there can be planned. */
const MOST_A_DAY = 200

/** Parts of the open visits: from a moment on in their order, before it the latest first, and those without a time. */
export const openParts = ['upcoming', 'overdue', 'unplanned'] as const
export type OpenPart = (typeof openParts)[number]
const whose = z.enum(['mine', 'all']).default('mine')

/** A visit as lists show it. */
export const listedVisit = z.object({
  id,
  home: id,
  technician: id,
  technicianName: z.string(),
  customer: z.string(),
  street: z.string(),
  town: z.string(),
  plannedAt: moment.nullable(),
  openedAt: moment,
  sealedAt: moment.nullable(),
  /** Left out by servers from before. */
  cancelledAt: moment.nullable().optional(),
  review: z.enum(['none', 'asked', 'returned']),
  /** The last line of its logbook. */
  seq: z.int(),
  summary: shapedAs<VisitSummary>()
})
export type ListedVisit = z.output<typeof listedVisit>

/** A booked look at a home as the day lists it. */
export const listedCheck = z.object({
  id,
  visit: id,
  home: id,
  street: z.string(),
  customer: z.string(),
  technician: z.string(),
  from: moment,
  to: moment,
  done: moment.nullable(),
  by: z.string().nullable()
})
export type ListedCheck = z.output<typeof listedCheck>

/** A sealed visit whose secrets are erased by themselves, and when. */
export const listedErasure = z.object({ visit: id, home: id, customer: z.string(), street: z.string(), dueAt: moment })
export type ListedErasure = z.output<typeof listedErasure>

/** A waiver of a sealed visit whose day has passed: what was let pass is still to be put right. */
export const listedWaiver = z.object({
  visit: id,
  home: id,
  street: z.string(),
  customer: z.string(),
  rule: z.string(),
  subject: z.string(),
  about: z.string(),
  until: z.iso.date(),
  by: z.string()
})

/** A sealed visit that lines came for when it was sealed already. */
export const listedLate = z.object({
  visit: id,
  street: z.string(),
  customer: z.string(),
  lines: z.int(),
  last: moment
})

/** A visit of which the last look at everything found that something does not hold. */
export const listedFault = z.object({
  visit: id,
  street: z.string(),
  customer: z.string(),
  what: z.string(),
  foundAt: moment
})

const travel = z.array(z.object({ a: z.string(), b: z.string(), minutes: z.number() }))
const windows = z.array(z.object({ town: z.string(), fromMin: z.int(), toMin: z.int() }))

/** The day: what is to be done, and as a way from home to home; how far it is, when ferries go. */
export const dayApi = {
  readDay: contract({
    method: 'get',
    path: '/day',
    does: 'Visits that are not sealed: mine, or everybody’s, those to come, then the overdue and the unplanned ones, each part a page with where it goes on in `more`; checks that are due; secrets that are erased within a week; and for a lead what waits for review, who looked at many secrets, waivers whose day has passed, and sealed visits that lines came for within a fortnight',
    roles: everyRole,
    query: z.strictObject({ whose }),
    answer: z.object({
      visits: z.array(listedVisit),
      more: z.object({ upcoming: nextPage, overdue: nextPage, unplanned: nextPage }),
      review: z.array(listedVisit),
      checks: z.array(listedCheck),
      shown: z.array(z.object({ person: id, name: z.string(), at: moment })),
      erasures: z.array(listedErasure),
      /** Left out by servers from before. */
      waivers: z.array(listedWaiver).optional(),
      late: z.array(listedLate).optional(),
      faults: z.array(listedFault).optional()
    })
  }),
  readDayPage: contract({
    method: 'get',
    path: '/day/visits',
    does: 'A further page of one part of the visits that are not sealed',
    roles: everyRole,
    query: z.strictObject({ whose, part: z.enum(openParts), after: z.string().max(600) }),
    answer: z.object({ visits: z.array(listedVisit), next: nextPage })
  }),
  readDayPlan: contract({
    method: 'get',
    path: '/day/plan',
    does: 'What planning a day needs: estimates of these visits by their run plans, what goes out for each, travel times between their homes and towns, ferry windows',
    roles: everyRole,
    query: z.strictObject({
      visits: z
        .string()
        .max(MOST_A_DAY * 37)
        .transform((text) => text.split(',').filter(Boolean))
        .pipe(z.array(z.uuid()).max(MOST_A_DAY))
    }),
    answer: z.object({
      estimates: z.array(
        z.object({
          visit: id,
          handsOnMin: z.number(),
          likelyMin: z.number(),
          cautiousMin: z.number(),
          load: z.array(z.string()),
          atHand: z.array(z.string())
        })
      ),
      travel,
      windows,
      /** Under which number each customer is called, where one is known. */
      phones: z.array(z.object({ visit: id, phone: z.string() }))
    })
  }),
  readWays: contract({
    method: 'get',
    path: '/ways',
    does: 'Towns, travel times between them, and when each can be reached',
    roles: everyRole,
    answer: z.object({ towns: z.array(z.string()), travel, windows })
  }),
  setTravel: contract({
    method: 'post',
    path: '/ways/travel',
    does: 'Set how long it takes between two places, either way; null forgets it',
    roles: everyRole,
    body: z
      .strictObject({
        a: place,
        b: place,
        minutes: z.int().min(0, 'must be 0 or more').max(600, 'must be at most 600 min').nullable()
      })
      .refine(({ a, b }) => a !== b || a.startsWith('town '), { path: ['b'], message: 'must be another place' }),
    answer: 'nothing'
  }),
  setWindows: contract({
    method: 'post',
    path: '/ways/windows',
    does: 'Set when a town can be reached and left again; no window means at any time. With `before`, what stood there when it was changed, it is refused (409) where something else stands there by now',
    roles: ['lead', 'office'],
    body: z.strictObject({
      town: z.string().min(1).max(80),
      before: z
        .array(z.strictObject({ fromMin: minuteOfDay, toMin: minuteOfDay }))
        .max(12)
        .optional(),
      windows: z
        .array(
          z.strictObject({ fromMin: minuteOfDay, toMin: minuteOfDay }).refine(({ fromMin, toMin }) => fromMin < toMin, {
            path: ['toMin'],
            message: 'must be later than its beginning'
          })
        )
        .max(12, 'must be at most 12')
        .refine(
          (list) =>
            [...list]
              .sort((x, y) => x.fromMin - y.fromMin)
              .every((candidate, at, all) => at === 0 || candidate.fromMin > all[at - 1]!.toMin),
          'must not overlap'
        )
    }),
    answer: 'nothing'
  }),
  readCalendar: contract({
    method: 'get',
    path: '/day/calendar',
    does: 'Planned visits and booked checks as an iCalendar file (RFC 5545): mine, or everybody’s',
    roles: everyRole,
    query: z.strictObject({ whose }),
    answer: 'text/calendar; charset=utf-8'
  })
}
