import { type OpenPart, dayApi, openParts } from '@pasado/core/api/day'
import { comingErasures } from '../../db/erasures'
import { visitsWithLateLines } from '../../db/lines-after-seal'
import { faultsFound } from '../../db/faults-found'
import { manyShownSince } from '../../db/many-shown'
import { phonesOf } from '../../db/homes'
import { readCursor } from '../../db/page'
import { routesOf } from '../route'
import { visitsInReview, openVisits, openVisitsById } from '../../db/visits'
import { waiversDue } from '../../db/waivers-due'
import { dueChecks } from '../../db/checks'
import { reachWindows, setTravel, setWindows, townTravel, towns, travelBetween } from '../../db/ways'
import { calendarOf } from '../../documents/calendar'
import { estimatesOf } from '../../logbook/estimates'

/** What was planned a day ago or later stands with what is to come: it is today in some zone. */
const pivotOf = (now: Date): Date => new Date(now.getTime() - 24 * 3_600_000)
/** So many of the next visits stand in a calendar with their estimates; the others take a usual time. */
const ESTIMATED = 24

/** The day as a way from home to home: how long visits take, how far it is, when ferries go; and as a calendar. */
export const dayRoutes = routesOf(dayApi, {
  readDay: async ({ services, person, query }) => {
    const technician = query.whose === 'mine' && person.role !== 'office' ? person.id : null
    const parts = await Promise.all(
      openParts.map(async (part) => ({
        part,
        ...(await openVisits(services.db, technician, part, pivotOf(new Date())))
      }))
    )
    return {
      json: {
        visits: parts
          .flatMap(({ visits }) => visits)
          .sort(
            (a, b) =>
              (a.plannedAt?.getTime() ?? Infinity) - (b.plannedAt?.getTime() ?? Infinity) || (a.id < b.id ? -1 : 1)
          ),
        more: Object.fromEntries(parts.map(({ part, next }) => [part, next])) as Record<OpenPart, string | null>,
        review: person.role === 'lead' ? await visitsInReview(services.db, person.id) : [],
        checks: (await dueChecks(services.db, technician, new Date())).map(({ result: _, ...check }) => check),
        shown: person.role === 'lead' ? await manyShownSince(services.db, new Date(Date.now() - 24 * 3_600_000)) : [],
        waivers: person.role === 'lead' ? await waiversDue(services.db, new Date().toISOString().slice(0, 10)) : [],
        late:
          person.role === 'lead'
            ? await visitsWithLateLines(services.db, new Date(Date.now() - 14 * 24 * 3_600_000))
            : [],
        faults: person.role === 'lead' ? await faultsFound(services.db) : [],
        erasures: await comingErasures(services.db, new Date(Date.now() + 7 * 24 * 3_600_000))
      }
    }
  },
  readDayPage: async ({ services, person, query: { whose, part, after } }) => {
    const { visits, next } = await openVisits(
      services.db,
      whose === 'mine' && person.role !== 'office' ? person.id : null,
      part,
      pivotOf(new Date()),
      readCursor(after)
    )
    return { json: { visits, next } }
  },
  readDayPlan: async ({ services, query }) => {
    const estimates = await estimatesOf(services.logbook, query.visits)
    const here = await openVisitsById(services.db, query.visits)
    const places = [...new Set(['depot', ...here.flatMap(({ home, town }) => [`home ${home}`, `town ${town}`])])]
    return {
      json: {
        estimates,
        travel: await travelBetween(services.db, places),
        windows: await reachWindows(services.db),
        phones: await phonesOf(services.db, query.visits)
      }
    }
  },
  readWays: async ({ services }) => ({
    json: {
      towns: await towns(services.db),
      travel: await townTravel(services.db),
      windows: await reachWindows(services.db)
    }
  }),
  setTravel: async ({ services, person, body }) => {
    await setTravel(services.db, body, body.minutes, person.id, new Date())
    return {}
  },
  setWindows: async ({ services, body }) => {
    await setWindows(services.db, body.town, body.windows, body.before)
    return {}
  },
  readCalendar: async ({ services, person, query }) => {
    const whose = query.whose === 'mine' && person.role !== 'office' ? person.id : null
    const { visits } = await openVisits(services.db, whose, 'upcoming', pivotOf(new Date()))
    const soon = visits.filter(({ plannedAt }) => plannedAt !== null).slice(0, ESTIMATED)
    const estimates = new Map(
      (
        await estimatesOf(
          services.logbook,
          soon.map(({ id }) => id)
        )
      ).map((estimate) => [estimate.visit, estimate])
    )
    return {
      file: {
        name: 'pasado-visits.ics',
        bytes: calendarOf(visits, await dueChecks(services.db, whose, new Date()), estimates, new Date())
      }
    }
  }
})
