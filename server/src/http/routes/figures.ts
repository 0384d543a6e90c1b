import { figuresApi } from '@pasado/core/api/figures'
import { routesOf } from '../route'
import { figuresByModel, figuresByMonth } from '../../db/figures'

/** The first day of the month so many months ago, this one counted. */
export function firstDay(months: number, now: Date): Date {
  return new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - months + 1, 1))
}

/** How rules came out in sealed visits, so that the standard can learn. */
export const figuresRoutes = routesOf(figuresApi, {
  readFigures: async ({ services, query: { months } }) => ({
    json: {
      since: firstDay(months, new Date()).toISOString(),
      rules: await services.sparing.ask(`months ${months}`, () =>
        services.reads.ask((db) => figuresByMonth(db, firstDay(months, new Date())))
      )
    }
  }),
  readFiguresOfRule: async ({ services, params, query: { months } }) => ({
    json: {
      models: await services.sparing.ask(`models ${params.rule} ${months}`, () =>
        services.reads.ask((db) => figuresByModel(db, params.rule, firstDay(months, new Date())))
      )
    }
  })
})
