import { z } from 'zod'
import type { HomeNow } from '../documents/home-now'
import { id } from '../record/fields'
import { contract, everyRole, nextPage, shapedAs } from './contract'
import { listedVisit } from './day'

/** A home as lists show it: who lives there, and the visit that knows it last. */
export const listedHome = z.object({
  id,
  customerId: id,
  customer: z.string(),
  street: z.string(),
  town: z.string(),
  latestVisit: id
})
export type ListedHome = z.output<typeof listedHome>

/** A home that was found, with the terms it was found by where words were given. */
export const foundHome = listedHome.extend({ foundBy: z.array(z.string()).optional() })
export type FoundHome = z.output<typeof foundHome>

/** Homes: found by what stands there, and one with its visits. */
export const homesApi = {
  findHomes: contract({
    method: 'get',
    path: '/homes',
    does: 'Homes, fifty at a time: by street, or those that fit name, street, town, serial, MAC address, model, firmware and how a rule came out there; `next` leads to the next page',
    roles: everyRole,
    query: z
      .strictObject({
        q: z.string().max(120).optional(),
        model: z.string().min(1).max(60).optional(),
        firmware: z.string().min(1).max(40).optional(),
        rule: z
          .string()
          .regex(/^[a-z0-9-]{3,60}$/, 'must be the id of a rule')
          .optional(),
        outcome: z.enum(['breaks', 'waived', 'unproven']).optional(),
        after: z.string().max(600).optional()
      })
      .refine(({ firmware, model }) => firmware === undefined || model !== undefined, {
        path: ['model'],
        message: 'is missing: a version is one of a model'
      }),
    answer: z.object({ homes: z.array(foundHome), next: nextPage })
  }),
  readHome: contract({
    method: 'get',
    path: '/homes/:id',
    does: 'A home, its visits newest first, and what stands there now by the latest sealed one',
    roles: everyRole,
    params: z.strictObject({ id: z.uuid() }),
    answer: z.object({ home: listedHome, visits: z.array(listedVisit), now: shapedAs<HomeNow>().nullable() })
  })
}
