import { advisoryApi } from '@pasado/core/api/advisory'
import { routesOf } from '../route'
import { unitsRunning, versionsInUse } from '../../db/advisory'

/** Which homes run which firmware now: who has to be called when a version has a hole. */
export const advisoryRoutes = routesOf(advisoryApi, {
  readVersionsInUse: async ({ services, params }) => ({
    json: { versions: await versionsInUse(services.db, params.model) }
  }),
  findAffectedUnits: async ({ services, params, query }) => {
    const units = await unitsRunning(
      services.db,
      params.model,
      query.version ?? null,
      query.afterVisit !== undefined && query.afterUnit !== undefined
        ? { visit: query.afterVisit, unit: query.afterUnit }
        : null
    )
    return { json: { units, more: units.length === 100 } }
  }
})
