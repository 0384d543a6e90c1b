import { advisoryApi } from '@pasado/core/api/advisory'
import { routesOf } from '../route'
import { unitsRunning } from '../../db/advisory'
import { versionsInUse } from '../../db/standing'

/** Which homes run which firmware now: who has to be called when a version has a hole. */
export const advisoryRoutes = routesOf(advisoryApi, {
  readVersionsInUse: async ({ services, params }) => ({
    json: { versions: await services.reads.ask((db) => versionsInUse(db, params.model)) }
  }),
  findAffectedUnits: async ({ services, params, query }) => {
    const after =
      query.afterVisit !== undefined && query.afterUnit !== undefined
        ? { visit: query.afterVisit, unit: query.afterUnit }
        : null
    const units = await services.reads.ask((db) => unitsRunning(db, params.model, query.version ?? null, after))
    return { json: { units, more: units.length === 100 } }
  }
})
