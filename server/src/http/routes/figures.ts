import { z } from 'zod'
import { figuresByModel, figuresByMonth } from '../../db/figures'
import { everyRole, route } from '../route'

const query = z.strictObject({
  months: z.coerce.number().int().min(1, 'must be 1 or more').max(60, 'must be at most 60').default(12)
})

/** The first day of the month so many months ago, this one counted. */
export function firstDay(months: number, now: Date): Date {
  return new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - months + 1, 1))
}

/** How rules came out in sealed visits, so that the standard can learn. */
export const figureRoutes = [
  route({
    method: 'get',
    path: '/figures',
    does: 'How each rule came out in the visits sealed in the last months, by rule and month',
    roles: everyRole,
    query,
    run: async ({ services, query: { months } }) => ({
      json: {
        since: firstDay(months, new Date()).toISOString(),
        rules: await services.sparing.ask(`months ${months}`, () =>
          figuresByMonth(services.db, firstDay(months, new Date()))
        )
      }
    })
  }),
  route({
    method: 'get',
    path: '/figures/:rule',
    does: 'How a rule came out by the model of the unit it spoke of, in the visits sealed in the last months',
    roles: everyRole,
    query,
    params: z.strictObject({ rule: z.string().regex(/^[a-z0-9-]{3,60}$/) }),
    run: async ({ services, params, query: { months } }) => ({
      json: {
        models: await services.sparing.ask(`models ${params.rule} ${months}`, () =>
          figuresByModel(services.db, params.rule, firstDay(months, new Date()))
        )
      }
    })
  })
]
