import { z } from 'zod'
import { id } from '../record/fields'
import { contract, everyRole } from './contract'

/** How many units run a version of a model now; null for those of which nobody recorded it. */
export const versionInUse = z.object({ firmware: z.string().nullable(), units: z.int(), homes: z.int() })
export type VersionInUse = z.output<typeof versionInUse>

/** A unit that stands at a home now and runs some firmware, with whom to call. */
export const affectedUnit = z.object({
  home: id,
  visit: id,
  unit: id,
  name: z.string().nullable(),
  serial: z.string().nullable(),
  customer: z.string(),
  street: z.string(),
  town: z.string(),
  phone: z.string().nullable()
})
export type AffectedUnit = z.output<typeof affectedUnit>

const params = z.strictObject({ model: z.string().max(60) })

/** Which homes run which firmware now: who has to be called when a version has a hole. */
export const advisoryApi = {
  readVersionsInUse: contract({
    method: 'get',
    path: '/advisory/:model',
    does: 'How many units of a model run each version now, by the last sealed visit of each home and every open one; a null version is one that nobody recorded',
    roles: everyRole,
    params,
    answer: z.object({ versions: z.array(versionInUse) })
  }),
  findAffectedUnits: contract({
    method: 'get',
    path: '/advisory/:model/homes',
    does: 'Units of a model that run a version now, or with `unknown` those of which nobody recorded it, with whom to call, a hundred at a time',
    roles: everyRole,
    params,
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
    answer: z.object({ units: z.array(affectedUnit), more: z.boolean() })
  })
}
