import { checksApi } from '@pasado/core/api/checks'
import { routesOf } from '../route'
import { notFound } from '../../problem'
import { checkRooms, type CheckResult } from '@pasado/core/work/prove/settled'
import { insertResult, readCheck } from '../../db/checks'
import { readVisit } from '../../logbook/read'

/** Looks at a home when it has settled: what was there before, and what it is now. */
export const checksRoutes = routesOf(checksApi, {
  readCheck: async ({ services, params }) => {
    const check = await readCheck(services.db, params.id)
    if (!check) throw notFound('check')
    const { record, history } = await readVisit(services.logbook, check.visit)
    const [catalogue, standard] = [
      await services.logbook.states.catalogueFor(services.db, record),
      await services.logbook.states.standardOf(services.db, record)
    ]
    const { result, ...booked } = check
    return {
      json: {
        check: booked,
        ...checkRooms({ record, history }, catalogue, standard.policy),
        result: result === null ? null : (JSON.parse(result) as CheckResult)
      }
    }
  },
  tellCheckResult: async ({ services, person, params, body }) => {
    const check = await readCheck(services.db, params.id)
    if (!check) throw notFound('check')
    await insertResult(services.db, {
      check: check.id,
      visit: check.visit,
      by: person,
      at: new Date(),
      result: JSON.stringify(body)
    })
    return { json: { id: check.id } }
  }
})
