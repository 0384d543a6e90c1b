import { z } from 'zod'
import { model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { addModel, allModels } from '../../db/catalogue'
import { conflictingState, refused } from '../problem'
import { route } from '../route'

/** Publishing models. */
export const modelRoutes = [
  route({
    method: 'post', path: '/models', does: 'Publish a model, or the next version of one', roles: ['lead'],
    body: z.strictObject({ model }),
    run: async ({ services, body }) => {
      const faults = modelFaultsOf(body.model)
      if (faults.length) throw refused(faults.map(({ path, message }) => ({ path: ['model', ...path], message })))
      const newest = Math.max(0, ...(await allModels(services.db)).filter(({ id }) => id === body.model.id).map(({ version }) => version))
      if (body.model.version !== newest + 1) throw refused([{ path: ['model', 'version'], message: `must be ${newest + 1}, the next after the newest of this model` }])
      if (!(await addModel(services.db, body.model))) throw conflictingState('published-meanwhile', 'Somebody published this version just now; look at it, then publish the next.')
      return { status: 201, json: { id: body.model.id, version: body.model.version } }
    }
  })
]
