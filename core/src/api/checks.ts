import { z } from 'zod'
import { id } from '../record/fields'
import { checkResult, type CheckResult, type checkRooms } from '../work/prove/settled'
import { contract, everyRole, inTheField, shapedAs } from './contract'
import { listedCheck } from './day'

type CheckRooms = ReturnType<typeof checkRooms>

/** Looks at a home when it has settled. */
export const checksApi = {
  readCheck: contract({
    method: 'get',
    path: '/checks/:id',
    does: 'A booked check: its home, the rooms as they were measured in the visit, and its result',
    roles: everyRole,
    params: z.strictObject({ id }),
    answer: z.object({
      check: listedCheck,
      rooms: shapedAs<CheckRooms['rooms']>(),
      floor: shapedAs<CheckRooms['floor']>(),
      sourceMbps: z.number().nullable(),
      result: shapedAs<CheckResult>().nullable()
    })
  }),
  tellCheckResult: contract({
    method: 'post',
    path: '/checks/:id/result',
    does: 'What a check came to, room by room; the first result stands',
    roles: inTheField,
    params: z.strictObject({ id }),
    body: checkResult,
    status: 201,
    answer: z.object({ id })
  })
}
