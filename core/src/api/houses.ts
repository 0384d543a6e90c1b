import { z } from 'zod'
import { houseAction, houseDefinition, houseFile } from '../house/definition'
import { id } from '../record/fields'
import { contract, everyRole, inTheField, moment } from './contract'

/** What a wait was of, as the run plan names it. */
const durationOf = z.string().regex(/^[\x20-\x7e]{1,160}$/, 'must be a model and what of its work, in plain letters')
const house = z.strictObject({ id })

/** What past waits of a kind took, minutes. */
export const pastDuration = z.object({
  of: z.string(),
  count: z.int(),
  least: z.number(),
  usual: z.number(),
  most: z.number()
})
export type PastDuration = z.output<typeof pastDuration>

/** A house as the list of houses shows it. */
export const listedHouse = z.object({
  id,
  name: z.string(),
  says: z.string().optional(),
  /** Whether others begin from it. */
  template: z.boolean(),
  madeAt: moment,
  units: z.array(z.string())
})
export type ListedHouse = z.output<typeof listedHouse>

/** Simulated houses, what was done in them, and reading their units; what past waits took. */
export const housesApi = {
  readDurations: contract({
    method: 'get',
    path: '/durations',
    does: 'What past waits took, by model and what of its work: how many, least, median and ninth of ten, minutes',
    roles: everyRole,
    query: z.strictObject({
      of: z.union([durationOf.transform((duration) => [duration]), z.array(durationOf).max(120)]).default([])
    }),
    answer: z.object({ durations: z.array(pastDuration) })
  }),
  listHouses: contract({
    method: 'get',
    path: '/houses',
    does: 'The houses that others begin from, and the newest of one’s own',
    roles: everyRole,
    answer: z.object({ houses: z.array(listedHouse) })
  }),
  readHouseLabel: contract({
    method: 'get',
    path: '/houses/:id/units/:unit/label',
    does: 'What stands on the label of a unit of a house: its login as well, which is made up',
    roles: everyRole,
    params: z.strictObject({ id, unit: z.string().max(60) }),
    answer: z.object({
      model: z.string(),
      serial: z.string(),
      mac: z.string(),
      login: z.object({ user: z.string(), password: z.string() }).nullable()
    })
  }),
  putUpHouse: contract({
    method: 'post',
    path: '/houses',
    does: 'Put up a simulated house: from its definition, or like another one',
    roles: everyRole,
    body: z.union([z.strictObject({ id, definition: houseDefinition }), z.strictObject({ id, from: id })]),
    status: 201,
    answer: z.object({ id })
  }),
  readHouse: contract({
    method: 'get',
    path: '/houses/:id',
    does: 'A simulated house with all that was done in it: pasado.house-run/1',
    roles: everyRole,
    params: house,
    answer: houseFile
  }),
  actInHouse: contract({
    method: 'post',
    path: '/houses/:id/actions',
    does: 'Do things in a house; `after` is how many were done before',
    roles: everyRole,
    params: house,
    body: z.strictObject({ after: z.int().min(0), actions: z.array(houseAction).min(1).max(100) }),
    answer: z.object({ count: z.int() })
  }),
  readUnit: contract({
    method: 'post',
    path: '/visits/:id/units/:unit/read',
    does: 'Read what a unit’s own page tells, over HTTP with the login of its label or its admin password; nothing is written',
    roles: inTheField,
    params: z.strictObject({ id, unit: id }),
    body: z.strictObject({}),
    answer: z.object({ values: z.record(z.string(), z.string()) })
  })
}
