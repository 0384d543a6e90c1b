import { z } from 'zod'
import { unitsRunning, versionsInUse } from '../../db/advisory'
import { everyRole, route } from '../route'

/** Which homes run which firmware now: who has to be called when a version has a hole. */
export const advisoryRoutes = [
  route({
    method: 'get',
    path: '/advisory/:model',
    does: 'How many units of a model run each version now, by the last sealed visit of each home and every open one; a null version is one that nobody recorded',
    roles: everyRole,
    params: z.strictObject({ model: z.string().max(60) }),
    run: async ({ services, params }) => ({ json: { versions: await versionsInUse(services.db, params.model) } })
  }),
  route({
    method: 'get',
    path: '/advisory/:model/homes',
    does: 'Units of a model that run a version now, or with `unknown` those of which nobody recorded it, with whom to call, a hundred at a time',
    roles: everyRole,
    params: z.strictObject({ model: z.string().max(60) }),
    query: z
      .strictObject({
        version: z.string().min(1).max(40).optional(),
        unknown: z.literal('true').optional(),
        afterVisit: z.uuid().optional(),
        afterUnit: z.uuid().optional()
      })
      .refine(({ version, unknown }) => (version === undefined) !== (unknown === undefined), {
        path: ['version'],
        message: 'is missing: give the version, or unknown=true'
      }),
    run: async ({ services, params, query }) => {
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
]
