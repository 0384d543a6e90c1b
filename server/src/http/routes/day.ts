import { z } from 'zod'
import { dueChecks } from '../../db/checks'
import { openVisits, openVisitsById } from '../../db/visits'
import { reachWindows, setTravel, setWindows, townTravel, towns, travelBetween } from '../../db/ways'
import { calendarOf } from '../../documents/calendar'
import { estimatesOf } from '../../logbook/estimates'
import { everyRole, route } from '../route'
import { pivotOf } from './lists'

const place = z
  .string()
  .max(100)
  .regex(/^(?:depot|town .{1,80}|home [0-9a-f-]{36})$/, 'must be the depot, a town or a home')
const minuteOfDay = z.int().min(0, 'must be a time of the day').max(1440, 'must be a time of the day')
/** As many as the day lists: whatever stands there can be planned. */
const MOST_A_DAY = 200
/** So many of the next visits stand in a calendar with their estimates; the others take a usual time. */
const ESTIMATED = 24

/** The day as a way from home to home: how long visits take, how far it is, when ferries go; and as a calendar. */
export const dayRoutes = [
  route({
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
    run: async ({ services, query }) => {
      const estimates = await estimatesOf(services.logbook, query.visits)
      const here = await openVisitsById(services.db, query.visits)
      const places = [...new Set(['depot', ...here.flatMap(({ home, town }) => [`home ${home}`, `town ${town}`])])]
      return {
        json: { estimates, travel: await travelBetween(services.db, places), windows: await reachWindows(services.db) }
      }
    }
  }),
  route({
    method: 'get',
    path: '/ways',
    does: 'Towns, travel times between them, and when each can be reached',
    roles: everyRole,
    run: async ({ services }) => ({
      json: {
        towns: await towns(services.db),
        travel: await townTravel(services.db),
        windows: await reachWindows(services.db)
      }
    })
  }),
  route({
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
    run: async ({ services, person, body }) => {
      await setTravel(services.db, body, body.minutes, person.id, new Date())
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/ways/windows',
    does: 'Set when a town can be reached and left again; no window means at any time',
    roles: ['lead', 'office'],
    body: z.strictObject({
      town: z.string().min(1).max(80),
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
              .every((one, at, all) => at === 0 || one.fromMin > all[at - 1]!.toMin),
          'must not overlap'
        )
    }),
    run: async ({ services, body }) => {
      await setWindows(services.db, body.town, body.windows)
      return {}
    }
  }),
  route({
    method: 'get',
    path: '/day/calendar',
    does: 'Planned visits and booked checks as an iCalendar file (RFC 5545): mine, or everybody’s',
    roles: everyRole,
    query: z.strictObject({ whose: z.enum(['mine', 'all']).default('mine') }),
    run: async ({ services, person, query }) => {
      const whose = query.whose === 'mine' && person.role !== 'office' ? person.id : null
      const { visits } = await openVisits(services.db, whose, 'upcoming', pivotOf(new Date()))
      const soon = visits.filter(({ plannedAt }) => plannedAt !== null).slice(0, ESTIMATED)
      const estimates = new Map(
        (
          await estimatesOf(
            services.logbook,
            soon.map(({ id }) => id)
          )
        ).map((one) => [one.visit, one])
      )
      return {
        file: {
          name: 'pasado-visits.ics',
          type: 'text/calendar; charset=utf-8',
          bytes: calendarOf(visits, await dueChecks(services.db, whose, new Date()), estimates, new Date())
        }
      }
    }
  })
]
