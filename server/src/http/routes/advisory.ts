import { z } from 'zod'
import { unitsRunning, versionsInUse } from '../../db/advisory'
import { everyRole, route } from '../route'

/** Which homes run which firmware now: who has to be called when a version has a hole. */
export const advisoryRoutes = [
  route({
    method: 'get', path: '/advisory/:model', does: 'How many units of a model run each version now, by the latest visit of each home', roles: everyRole,
    params: z.strictObject({ model: z.string().max(60) }),
    run: async ({ services, params }) => ({ json: { versions: await versionsInUse(services.db, params.model) } })
  }),
  route({
    method: 'get', path: '/advisory/:model/homes', does: 'Units of a model that run a version now, with whom to call, a hundred at a time', roles: everyRole,
    params: z.strictObject({ model: z.string().max(60) }),
    query: z.strictObject({ version: z.string().min(1).max(40), afterVisit: z.uuid().optional(), afterUnit: z.uuid().optional() }),
    run: async ({ services, params, query }) => {
      const units = await unitsRunning(services.db, params.model, query.version, query.afterVisit !== undefined && query.afterUnit !== undefined ? { visit: query.afterVisit, unit: query.afterUnit } : null)
      return { json: { units, more: units.length === 100 } }
    }
  })
]
