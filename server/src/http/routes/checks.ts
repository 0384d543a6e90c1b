import { notFound } from '../../problem'
import { z } from 'zod'
import { checkResult, checkRooms } from '@pasado/core/work/prove/settled'
import { id } from '@pasado/core/record/fields'
import { insertResult, readCheck } from '../../db/checks'
import { readVisit } from '../../logbook/read'
import { everyRole, route } from '../route'

/** Looks at a home when it has settled: what was there before, and what it is now. */
export const checkRoutes = [
  route({
    method: 'get',
    path: '/checks/:id',
    does: 'A booked check: its home, the rooms as they were measured in the visit, and its result',
    roles: everyRole,
    params: z.strictObject({ id }),
    run: async ({ services, params }) => {
      const check = await readCheck(services.db, params.id)
      if (!check) throw notFound('check')
      const { record } = await readVisit(services.logbook, check.visit)
      const [catalogue, standard] = [
        await services.logbook.states.catalogueFor(services.db, record),
        await services.logbook.states.standardOf(services.db, record)
      ]
      const { result, ...one } = check
      return {
        json: {
          check: one,
          ...checkRooms(record, catalogue, standard.policy),
          result: result === null ? null : (JSON.parse(result) as unknown)
        }
      }
    }
  }),
  route({
    method: 'post',
    path: '/checks/:id/result',
    does: 'What a check came to, room by room; the first result stands',
    roles: ['technician', 'lead'],
    params: z.strictObject({ id }),
    body: checkResult,
    run: async ({ services, person, params, body }) => {
      const check = await readCheck(services.db, params.id)
      if (!check) throw notFound('check')
      await insertResult(services.db, {
        check: check.id,
        visit: check.visit,
        by: person,
        at: new Date(),
        result: JSON.stringify(body)
      })
      return { status: 201, json: { id: check.id } }
    }
  })
]
