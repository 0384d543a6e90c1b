import { z } from 'zod'
import { catalogueFile } from '../catalogue/file'
import { model } from '../catalogue/model'
import { standard } from '../policy/standard'
import { contract, everyRole } from './contract'

/** What publishing a version of a model means for an open visit. */
export const modelEffect = z.object({
  visit: z.uuid(),
  customer: z.string(),
  street: z.string(),
  technician: z.string(),
  units: z.array(z.object({ name: z.string(), version: z.int(), breaks: z.array(z.string()) }))
})
export type ModelEffect = z.output<typeof modelEffect>

/** Models: what there is, publishing, taking in. */
export const catalogueApi = {
  readCatalogue: contract({
    method: 'get',
    path: '/catalogue',
    does: 'Every model in every version, the ids of those that are no longer offered, and the standard in force',
    roles: everyRole,
    answer: z.object({ models: z.array(model), retired: z.array(z.string()), standard })
  }),
  publishModel: contract({
    method: 'post',
    path: '/models',
    does: 'Publish a model, or the next version of one',
    roles: ['lead'],
    body: z.strictObject({ model }),
    status: 201,
    answer: z.object({ id: z.string(), version: z.int() })
  }),
  offerModel: contract({
    method: 'post',
    path: '/models/:id/offered',
    does: 'Take a model out of what is offered for new visits, or put it back; records keep the versions that they name',
    roles: ['lead'],
    params: z.strictObject({ id: z.string().max(60) }),
    body: z.strictObject({ offered: z.boolean() }),
    answer: 'nothing'
  }),
  readModelEffect: contract({
    method: 'post',
    path: '/models/effect',
    does: 'Open visits with units of a model, and what of their records this version would no longer know',
    roles: ['lead'],
    body: z.strictObject({ model }),
    answer: z.object({ visits: z.array(modelEffect) })
  }),
  importModels: contract({
    method: 'post',
    path: '/models/import',
    does: 'Take in a pasado.catalogue/1 file: versions that are here already are left, the next ones published, all or none',
    roles: ['lead'],
    takes: 'file',
    body: z.strictObject({ catalogue: catalogueFile }),
    answer: z.object({ published: z.array(z.string()), known: z.int() })
  })
}
