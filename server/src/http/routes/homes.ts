import { findHomes } from '../../db/home-search'
import { homeNow } from '../../logbook/home-now'
import { homesApi } from '@pasado/core/api/homes'
import { notFound } from '../../problem'
import { readCursor } from '../../db/page'
import { readHome } from '../../db/homes'
import { routesOf } from '../route'
import { searchWords } from '../../db/terms'
import { visitsOfHome } from '../../db/visits'

/** Homes: found by what stands there, and one with its visits. */
export const homesRoutes = routesOf(homesApi, {
  findHomes: async ({ services, query: { q, after, ...query } }) => ({
    json: await findHomes(
      services.db,
      { ...query, words: searchWords(q ?? '') },
      after === undefined ? null : readCursor(after)
    )
  }),
  readHome: async ({ services, params }) => {
    const home = await readHome(services.db, params.id)
    if (!home) throw notFound('home')
    return {
      json: {
        home,
        visits: await visitsOfHome(services.db, params.id),
        now: await homeNow(services.logbook, params.id)
      }
    }
  }
})
